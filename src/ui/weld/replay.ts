import { CORNERS, type Corner, type ResolvedFrame } from "@/core/frame";
import type { Vec2 } from "@/core/numeric";
import type { Replay } from "@/core/shrink";

/** The largest movement is drawn about this share of the frame. */
const SHARE = 0.035;

/** Last row of a step in the replay: where the frame stands when it is done. -1 for a step that is not in it. */
export const rowOf = (replay: Replay, step: string): number => replay.ids.lastIndexOf(step);

/**
 * A round factor that makes the largest movement well seen: one for all of the tacking and one for all of the welding, so
 * that steps can be compared.
 * @param rows those that share the factor.
 */
export const exaggeration = (frame: ResolvedFrame, replay: Replay, rows: readonly number[]): number =>
  roundFactor(replay, rows, Math.min(frame.lengthMm, frame.widthMm), 2);

/** The same for any frame. @param sizeMm that the movement is seen against. @param axes 2: seen from above alone. */
export function roundFactor(replay: Replay, rows: readonly number[], sizeMm: number, axes: 2 | 3 = 3): number {
  let largest = 0;
  for (const row of rows)
    for (const p of replay.points) {
      const out = replay.history[row];
      if (out) largest = Math.max(largest, Math.hypot(...out.subarray(p.first, p.first + axes)));
    }
  if (largest <= 0) return 1;
  const wanted = (SHARE * sizeMm) / largest;
  const power = 10 ** Math.floor(Math.log10(wanted));
  return Math.max(1, power * ([5, 2, 1].find((n) => n * power <= wanted) ?? 1));
}

/**
 * Outlines of all members as they lie after a row of the replay, exaggerated.
 * @returns one closed outline per member, mm on the bed.
 */
export function movedOutlines(frame: ResolvedFrame, replay: Replay, row: number, factor: number): Vec2[][] {
  const out = replay.history[row];
  if (!out) return [];
  const half = frame.section.faceMm / 2;
  return frame.members.map((member) => {
    const points = replay.points.filter((p) => p.member === member.name);
    const [first, last] = [points[0], points.at(-1)];
    if (!first || !last) return [];
    const length = Math.hypot(last.at[0] - first.at[0], last.at[1] - first.at[1]);
    const along = { x: (last.at[0] - first.at[0]) / length, y: (last.at[1] - first.at[1]) / length };
    const edge = (side: 1 | -1): Vec2[] =>
      points.map((p) => {
        // Sides run round the frame with the inside on their left; mitres leave the inner edge shorter.
        const mitre = member.kind === "side" ? side * half : 0;
        const end = p === first ? mitre : p === last ? -mitre : 0;
        return {
          x: p.at[0] + along.x * end - along.y * side * half + factor * (out[p.first] as number),
          y: p.at[1] + along.y * end + along.x * side * half + factor * (out[p.first + 1] as number),
        };
      });
    return [...edge(1), ...edge(-1).reverse()];
  });
}

/** How high each corner stands after a row, mm above the frame's mean plane. */
export function cornerLifts(replay: Replay, row: number): Record<Corner, number> | null {
  const out = replay.history[row];
  if (!out) return null;
  const lifts = CORNERS.map((c) => {
    const p = replay.points.find((q) => q.member === null && q.id === c);
    return [c, p ? (out[p.first + 2] as number) : 0] as const;
  });
  return Object.fromEntries(lifts) as Record<Corner, number>;
}

/** What is left in the cold frame of what each step did to a quantity, largest first. */
export function largestSteps(replay: Replay, quantity: string): { step: string; change: number }[] {
  const by = replay.quantities.find((q) => q.id === quantity)?.byStep;
  if (!by) return [];
  const sums = new Map<string, number>();
  replay.ids.forEach((id, i) => {
    sums.set(id, (sums.get(id) ?? 0) + (by[i] as number));
  });
  return [...sums]
    .map(([step, change]) => ({ step, change }))
    .filter(({ change }) => Math.abs(change) >= 0.005)
    .sort((a, b) => Math.abs(b.change) - Math.abs(a.change));
}
