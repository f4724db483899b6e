import { useCallback, useEffect, useRef, useState } from "react";
import { frameKey, type Job, type OrderOutlook, type PlanningState } from "@/core/job";
import type { Predictions } from "@/workers/predictions";

/** How the comparison of orders stands. */
export type Planning = { key: string } & (
  | { is: "working"; searching: boolean; state: PlanningState | null }
  | { is: "known"; outlooks: readonly OrderOutlook[] }
  | { is: "stopped" | "failed"; outlooks: readonly OrderOutlook[] }
);

/** What a comparison is of: the frame with its settings and limits, and what was read; not the order that is planned. */
const planningKey = ({ plan, entries }: Job): string =>
  `${frameKey(plan)} ${JSON.stringify([plan.limits, plan.aim])} ${entries.length}`;

/** Compares orders in a worker of its own. */
export function useOrderPlanning(job: Job) {
  const [planning, setPlanning] = useState<Planning | null>(null);
  const worker = useRef<Predictions | null>(null);
  const end = useCallback(() => {
    worker.current?.end();
    worker.current = null;
  }, []);
  useEffect(() => end, [end]);
  const key = planningKey(job);
  const begin = async (trials: number, mostTurns: number): Promise<void> => {
    let latest: readonly OrderOutlook[] = [];
    const failed = () => {
      end();
      setPlanning({ key, is: "failed", outlooks: latest });
    };
    setPlanning({ key, is: "working", searching: trials > 0, state: null });
    try {
      const { Predictions } = await import("@/workers/predictions");
      worker.current ??= new Predictions(failed);
      const outlooks = await worker.current.planOrder(job, { trials, mostTurns }, (state) => {
        latest = state.outlooks;
        setPlanning((p) => (p?.is === "working" ? { ...p, state } : p));
      });
      setPlanning(outlooks ? { key, is: "known", outlooks } : { key, is: "stopped", outlooks: latest });
    } catch {
      failed();
    }
  };
  return {
    // Of another frame or other limits, what was worked out is nothing of this one.
    planning: planning?.key === key ? planning : null,
    begin,
    enough: () => worker.current?.enough(),
    stop: () => worker.current?.cancel(),
  };
}
