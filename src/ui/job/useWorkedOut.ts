import { useCallback, useEffect, useRef, useState } from "react";
import type { Predictions } from "@/workers/predictions";

/** How something that a worker works out stands. */
export type WorkedOut<T> =
  | { is: "not begun" | "failed" | "stopped" }
  | { is: "working"; share: number }
  | { is: "known"; value: T };

interface Held<T> {
  key: string;
  state: WorkedOut<T>;
}

/**
 * Works something out in a worker of its own, when it is asked for; of another key it is nothing of this one.
 * @param key all that the answer depends on. @param ask what the worker is asked. @param atOnce whether it begins by itself.
 */
export function useWorkedOut<T>(
  key: string,
  ask: (worker: Predictions, progress: (share: number) => void) => Promise<T | null>,
  atOnce: boolean,
) {
  const [held, setHeld] = useState<Held<T> | null>(null);
  const worker = useRef<Predictions | null>(null);
  const asked = useRef(ask);
  useEffect(() => {
    asked.current = ask;
  });
  const end = useCallback(() => {
    worker.current?.end();
    worker.current = null;
  }, []);
  const begin = useCallback(async (): Promise<void> => {
    end();
    const put = (state: WorkedOut<T>) => setHeld((h) => (h && h.key !== key ? h : { key, state }));
    setHeld({ key, state: { is: "working", share: 0 } });
    try {
      const { Predictions } = await import("@/workers/predictions");
      const mine = new Predictions(() => put({ is: "failed" }));
      worker.current = mine;
      const value = await asked.current(mine, (share) => put({ is: "working", share }));
      if (worker.current !== mine) return;
      put(value === null ? { is: "stopped" } : { is: "known", value });
      end();
    } catch {
      put({ is: "failed" });
    }
  }, [key, end]);
  useEffect(() => end, [end]);
  const state: WorkedOut<T> = held?.key === key ? held.state : { is: "not begun" };
  const mustBegin = atOnce && state.is === "not begun";
  useEffect(() => {
    if (mustBegin) void begin();
  }, [mustBegin, begin]);
  return {
    state,
    begin,
    stop: () => {
      end();
      setHeld({ key, state: { is: "stopped" } });
    },
  };
}
