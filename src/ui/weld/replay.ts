import { CORNERS, type Corner } from "@/core/geometry";
import { type OutcomeId, outcomeKey, type Replay } from "@/core/shrink";

/** Steps that moved something by less are not told, mm. */
const WORTH_TELLING_MM = 0.005;

/** Last row of a step in the replay: where the frame stands when it is done. -1 for a step that is not in it. */
export const rowOf = (replay: Replay, step: string): number => replay.ids.lastIndexOf(step);

/** One outcome in a replay. */
export const replayed = (replay: Replay, id: OutcomeId): Replay["outcomes"][number] | undefined =>
  replay.outcomes.find((q) => outcomeKey(q.id) === outcomeKey(id));

/** How high each corner stands after a row, mm above the frame's mean plane; null for a frame without corners. */
export function cornerLifts(replay: Replay, row: number): Record<Corner, number> | null {
  const out = replay.history[row];
  if (!out) return null;
  const lifts: Partial<Record<Corner, number>> = {};
  for (const corner of CORNERS) {
    const p = replay.points.find((q) => q.member === null && q.id === corner);
    const lift = p && out[p.first + 2];
    if (lift === undefined) return null;
    lifts[corner] = lift;
  }
  return lifts as Record<Corner, number>;
}

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
