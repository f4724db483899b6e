import { CORNERS, type Corner } from "@/core/geometry";
import type { Replay } from "@/core/shrink";

/** Last row of a step in the replay: where the frame stands when it is done. -1 for a step that is not in it. */
export const rowOf = (replay: Replay, step: string): number => replay.ids.lastIndexOf(step);

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
