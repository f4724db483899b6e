import { useCallback, useEffect, useRef, useState } from "react";
import type { Predictions } from "@/workers/predictions";
import { useCameBack } from "./useCameBack";

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
  // What begins by itself does so again when the connection is back.
  const cameBack = useCameBack(() => atOnce && setHeld((h) => (h?.state.is === "failed" ? null : h)));
  const begin = useCallback(async (): Promise<void> => {
    end();
    const cameBackBefore = cameBack.current;
    const put = (state: WorkedOut<T>) => setHeld((h) => (h && h.key !== key ? h : { key, state }));
    const failed = () => {
      if (atOnce && cameBack.current !== cameBackBefore) setHeld(null);
      else put({ is: "failed" });
    };
    setHeld({ key, state: { is: "working", share: 0 } });
    try {
      const { Predictions } = await import("@/workers/predictions");
      const mine = new Predictions(failed);
      worker.current = mine;
      // How far it is comes on a way of its own, and may come after the answer: then it tells nothing any more.
      const value = await asked.current(mine, (share) => {
        if (worker.current === mine) put({ is: "working", share });
      });
      if (worker.current !== mine) return;
      put(value === null ? { is: "stopped" } : { is: "known", value });
      end();
    } catch {
      failed();
    }
  }, [key, end, atOnce, cameBack]);
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
