import { type OutcomeId, outcomeKey } from "./outcomeId";
import type { Replay } from "./prediction";

/** Steps that moved something by less are not told, mm. */
const WORTH_TELLING_MM = 0.005;

/** One outcome in a replay. */
export const replayed = (replay: Replay, id: OutcomeId): Replay["outcomes"][number] | undefined =>
  replay.outcomes.find((q) => outcomeKey(q.id) === outcomeKey(id));

/** What is left in the cold frame of what each step did to an outcome, largest first. */
export function largestSteps(replay: Replay, id: OutcomeId): { step: string; change: number }[] {
  const by = replayed(replay, id)?.byStep;
  if (!by) return [];
  const sums = new Map<string, number>();
  replay.ids.forEach((step, i) => {
    sums.set(step, (sums.get(step) ?? 0) + (by[i] ?? 0));
  });
  return [...sums]
    .map(([step, change]) => ({ step, change }))
    .filter(({ change }) => Math.abs(change) >= WORTH_TELLING_MM)
    .sort((a, b) => Math.abs(b.change) - Math.abs(a.change));
}
