import { useCallback, useEffect, useRef, useState } from "react";
import type { Structure } from "@/core/frame";
import { frameKey, type HoldingOutlook, heldSo, holdingTrials, holdingWays, type Job, withTrial } from "@/core/job";
import { orderKey, USUAL_ORDER } from "@/core/plan";
import type { Predictions } from "@/workers/predictions";

/** How a comparison of ways to hold a frame stands. */
export interface Comparison {
  key: string;
  is: "working" | "known" | "stopped" | "failed";
  of: number;
  outlooks: readonly HoldingOutlook[];
  /** Whether each is worked through in the order that suits it, or all as planned. */
  suited: boolean;
}

/** What a comparison is of: the frame as it is held now, its order, its limits, and what was read and done. */
const comparisonKey = ({ plan, entries }: Job): string =>
  `${frameKey(plan)} ${orderKey(plan.order ?? USUAL_ORDER)} ${JSON.stringify([plan.limits, plan.aim, plan.fixture, plan.hands])} ${entries.filter((e) => e.kind !== "change" && e.kind !== "note").length}`;

/** Ways of holding a frame, each worked through in a worker by draws of its own. */
export function useHoldingComparison(job: Job, structure: Structure | null) {
  const [comparison, setComparison] = useState<Comparison | null>(null);
  const worker = useRef<Predictions | null>(null);
  const run = useRef(0);
  const end = useCallback(() => {
    run.current++;
    worker.current?.end();
    worker.current = null;
  }, []);
  useEffect(() => end, [end]);
  const key = comparisonKey(job);
  const begin = async (suited: boolean): Promise<void> => {
    if (!structure) return;
    end();
    const own = run.current;
    const isOver = (): boolean => run.current !== own;
    const failed = () => {
      if (isOver()) return;
      end();
      setComparison((c) => c && { ...c, is: "failed" });
    };
    const ways = holdingWays(job.plan, structure);
    setComparison({ key, is: "working", of: holdingTrials(ways, suited).length, outlooks: [], suited });
    try {
      const { Predictions } = await import("@/workers/predictions");
      if (isOver()) return;
      const mine = new Predictions(failed);
      worker.current = mine;
      const planned = job.plan.order ?? USUAL_ORDER;
      for (const { way, inItsOrder } of holdingTrials(ways, suited)) {
        const so = heldSo(job, way);
        const outlook = await (inItsOrder ? mine.suitedOutlook(so) : mine.orderOutlook(so, planned));
        if (!outlook || isOver()) return;
        setComparison((c) => c && { ...c, outlooks: withTrial(c.outlooks, { way, outlook }) });
      }
      end();
      setComparison((c) => c && { ...c, is: "known" });
    } catch {
      failed();
    }
  };
  return {
    // Of another frame, or one that is held otherwise by now, it is nothing of this one.
    comparison: comparison?.key === key ? comparison : null,
    begin,
    stop: () => {
      end();
      setComparison((c) => c && { ...c, is: "stopped" });
    },
  };
}
