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
  /** Orders that come of the schools, by their keys: where welds wait or are done they are laid step by step. */
  schools: ReadonlySet<string>;
  /** What would help, where no order makes it likely; null where one does. */
  remedies: Remedies | null;
}

/** Workers at most: a page must still answer. */
const MOST_WORKERS = 2;
/** Share of the trials that are made before the schools' chances are known. */
const EARLY_SHARE = 0.4;

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
  /** Whether a search shall end with what it has. */
  const isEnough = useRef(false);
  const end = useCallback(() => {
    run.current++;
    for (const worker of workers.current) worker.end();
    workers.current = [];
  }, []);
  useEffect(() => end, [end]);
  const key = planningKey(job);
  const begin = async (trials: number, mostTurns: number): Promise<void> => {
    end();
    isEnough.current = false;
    const own = run.current;
    const isOver = (): boolean => run.current !== own;
    const failed = () => {
      if (isOver()) return;
      end();
      setPlanning((p) => p && { ...p, is: "failed" });
    };
    setPlanning({
      key,
      is: "schools",
      searched: trials > 0,
      tried: 0,
      outlooks: [],
      schools: new Set(),
      remedies: null,
    });
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
      const asked = new Set<string>();
      const queue: OrderChoice[] = [];
      /** Orders whose chance is wanted, each once; what is wanted soon goes in front. */
      const want = (choices: readonly OrderChoice[], soon = false): void => {
        const next = choices.filter((c) => !asked.has(orderKey(c)) && asked.add(orderKey(c)));
        if (soon) queue.unshift(...next);
        else queue.push(...next);
      };
      /** Chances of what is wanted, one after the other, until nothing is. */
      const chances = async (worker: Predictions): Promise<void> => {
        for (let next = queue.shift(); next && !isOver(); next = queue.shift()) {
          // Whoever has enough waits for no more schools, only for what the search found.
          if (isEnough.current && next.by === "schools" && found.length > 0) continue;
          const outlook = await worker.orderOutlook(job, next);
          if (!outlook || isOver()) continue;
          found.push(outlook);
          setPlanning((p) => p && { ...p, outlooks: ranked(found) });
        }
      };
      const everybody = (work: (worker: Predictions, i: number) => Promise<void>): Promise<unknown> =>
        Promise.all(workers.current.map(work));
      const counts = workers.current.map(() => 0);
      /** A search in one worker, by a seed of its own; the first order that is worth a look is looked at soon. */
      const search = async (worker: Predictions, i: number, share: number): Promise<void> => {
        const before = counts[i] ?? 0;
        const orders = await worker.betterToLookAt(
          job,
          [...found],
          { trials: Math.ceil(share * trials), mostTurns, seed: i + 1 },
          (_, tried, early) => {
            counts[i] = before + tried;
            if (early) want([early], true);
            const all = counts.reduce((a, b) => a + b, 0);
            if (!isOver()) setPlanning((p) => p && { ...p, is: "search", tried: all });
          },
        );
        want(orders ?? []);
      };
      const schools = await first.schoolsToLookAt(job, told);
      if (isOver() || !schools) return;
      want(schools);
      setPlanning((p) => p && { ...p, is: "chances", schools: new Set(schools.map(orderKey)) });
      // With two workers one searches at once, from the school that few draws favour, while the other works out chances.
      const soon = trials > 0 && workers.current.length > 1;
      await everybody(async (worker, i) => {
        if (soon && i > 0) await search(worker, i, EARLY_SHARE);
        await chances(worker);
      });
      if (isOver()) return;
      if (trials > 0 && !isEnough.current) {
        setPlanning((p) => p && { ...p, is: "search" });
        const share = (soon ? 1 - EARLY_SHARE : 1) / workers.current.length;
        await everybody((worker, i) => search(worker, i, share));
      }
      if (isOver()) return;
      setPlanning((p) => p && { ...p, is: "chances" });
      const cut = cutToLookAt(job, found);
      want(cut ? [cut] : []);
      await everybody(chances);
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
      isEnough.current = true;
      for (const worker of workers.current) worker.enough();
    },
    stop: () => {
      end();
      setPlanning((p) => p && { ...p, is: "stopped" });
    },
  };
}
