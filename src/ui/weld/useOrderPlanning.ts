import { useCallback, useEffect, useRef, useState } from "react";
import {
  cutToLookAt,
  frameKey,
  type Job,
  type OrderOutlook,
  type Remedies,
  ranked,
  type Tell,
  unlikelyAtBest,
} from "@/core/job";
import { type OrderChoice, orderKey } from "@/core/plan";
import type { Predictions } from "@/workers/predictions";

/** How the comparison of orders stands, with the outlooks that are there by now, the likeliest first. */
export interface Planning {
  key: string;
  is: "schools" | "search" | "chances" | "known" | "stopped" | "failed";
  /** Whether a better order was searched for, besides the schools. */
  searched: boolean;
  /** Orders tried so far. */
  tried: number;
  outlooks: readonly OrderOutlook[];
  /** What would help, where no order makes it likely; null where one does. */
  remedies: Remedies | null;
}

/** Workers at most: a page must still answer. */
const MOST_WORKERS = 2;

/**
 * What a comparison is of: the frame with its settings and limits, what was read and what was done; not the order that is planned, nor
 * what the record says of changes.
 */
const planningKey = ({ plan, entries }: Job): string =>
  `${frameKey(plan)} ${JSON.stringify([plan.limits, plan.aim, plan.hands, plan.holds])} ${entries.filter((e) => e.kind !== "change" && e.kind !== "note").length}`;

/** Compares orders in workers of its own, as many as the device has cores for. */
export function useOrderPlanning(job: Job) {
  const [planning, setPlanning] = useState<Planning | null>(null);
  const workers = useRef<Predictions[]>([]);
  /** The comparison that is under way; another one, or none, when it was stopped. */
  const run = useRef(0);
  const end = useCallback(() => {
    run.current++;
    for (const worker of workers.current) worker.end();
    workers.current = [];
  }, []);
  useEffect(() => end, [end]);
  const key = planningKey(job);
  const begin = async (trials: number, mostTurns: number): Promise<void> => {
    end();
    const own = run.current;
    const isOver = (): boolean => run.current !== own;
    const failed = () => {
      if (isOver()) return;
      end();
      setPlanning((p) => p && { ...p, is: "failed" });
    };
    setPlanning({ key, is: "schools", searched: trials > 0, tried: 0, outlooks: [], remedies: null });
    try {
      const { Predictions } = await import("@/workers/predictions");
      if (isOver()) return;
      const count = Math.min(MOST_WORKERS, Math.max(1, navigator.hardwareConcurrency));
      workers.current = Array.from({ length: count }, () => new Predictions(failed));
      const [first] = workers.current as [Predictions];
      const told: Tell = (doing, tried) => {
        if (!isOver()) setPlanning((p) => p && { ...p, is: doing, tried });
      };
      const found: OrderOutlook[] = [];
      /** Chances of some orders, shared out among the workers: as planned first, whoever waits no longer has seen it. */
      const look = async (choices: readonly OrderChoice[]): Promise<void> => {
        const queue = [...choices];
        const work = async (worker: Predictions): Promise<void> => {
          for (let next = queue.shift(); next && !isOver(); next = queue.shift()) {
            const outlook = await worker.orderOutlook(job, next);
            if (!outlook || isOver()) continue;
            found.push(outlook);
            setPlanning((p) => p && { ...p, outlooks: ranked(found) });
          }
        };
        setPlanning((p) => p && { ...p, is: "chances" });
        await Promise.all(workers.current.map(work));
      };
      /** What a search finds: one in each worker, each by a seed of its own, which share the trials. */
      const searched = async (from: readonly OrderOutlook[], tell: Tell): Promise<OrderChoice[]> => {
        const tried = workers.current.map(() => 0);
        const each = workers.current.map((worker, i) =>
          worker.betterToLookAt(
            job,
            from,
            { trials: Math.ceil(trials / workers.current.length), mostTurns, seed: i + 1 },
            (doing, n) => {
              tried[i] = n;
              tell(
                doing,
                tried.reduce((a, b) => a + b, 0),
              );
            },
          ),
        );
        const all = (await Promise.all(each)).flatMap((orders) => orders ?? []);
        return [...new Map(all.map((choice) => [orderKey(choice), choice] as const)).values()];
      };
      const schools = await first.schoolsToLookAt(job, told);
      if (isOver() || !schools) return;
      await look(schools);
      if (isOver()) return;
      const cut = cutToLookAt(job, found);
      if (trials > 0) setPlanning((p) => p && { ...p, is: "search" });
      const better = trials > 0 ? await searched(found, told) : [];
      if (isOver()) return;
      await look([...(cut ? [cut] : []), ...better]);
      if (isOver()) return;
      const best = unlikelyAtBest(found);
      const remedies = best && (await first.orderRemedies(job, best));
      if (isOver()) return;
      end();
      setPlanning((p) => p && { ...p, is: "known", remedies });
    } catch {
      failed();
    }
  };
  return {
    // Of another frame or other limits, what was worked out is nothing of this one.
    planning: planning?.key === key ? planning : null,
    begin,
    enough: () => {
      for (const worker of workers.current) worker.enough();
    },
    stop: () => {
      end();
      setPlanning((p) => p && { ...p, is: "stopped" });
    },
  };
}
