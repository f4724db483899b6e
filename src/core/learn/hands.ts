import { cholesky, solveCholesky } from "../numeric";
import type { FrameLesson } from "./lessonSchema";
import { noiseOf, sumOf } from "./teaching";

/** How much one person's welds moved frames, as a multiple of what was predicted. */
export interface Hand {
  who: string;
  frames: number;
  ratio: number;
  /** Standard uncertainty of it. */
  u: number;
}

/** How long something takes in this shop. */
export interface OwnTime {
  kind: string;
  seconds: number;
  /** Ticks that it is from. */
  from: number;
}

const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((s, v, i) => s + v * b[i], 0);

/** The multiple of what was told that fits what was read of one frame best, and its weight. Source: generalised least squares. */
function multipleOf({ told, teaching }: FrameLesson): { ratio: number; weight: number } | null {
  const l = cholesky(sumOf(told.cov, noiseOf({ cov: teaching.cov })));
  if (!l) return null;
  const solved = solveCholesky(l, told.mean);
  const weight = dot(told.mean, solved);
  return weight > 0 ? { ratio: dot(teaching.change, solved) / weight, weight } : null;
}

/** Who welds shrinks how much: over the frames that say who laid most of their beads, the most telling first. */
export function handsOf(frames: readonly FrameLesson[]): Hand[] {
  const by = new Map<string, { sum: number; weight: number; frames: number }>();
  for (const frame of frames) {
    const found = frame.by === undefined ? null : multipleOf(frame);
    if (!found || frame.by === undefined) continue;
    const own = by.get(frame.by) ?? { sum: 0, weight: 0, frames: 0 };
    by.set(frame.by, {
      sum: own.sum + found.weight * found.ratio,
      weight: own.weight + found.weight,
      frames: own.frames + 1,
    });
  }
  return [...by]
    .map(([who, { sum, weight, frames: n }]) => ({ who, frames: n, ratio: sum / weight, u: 1 / Math.sqrt(weight) }))
    .sort((a, b) => a.u - b.u);
}

/** The shop's own times over its frames: the middle by ticks. */
export function ownTimes(frames: readonly FrameLesson[]): OwnTime[] {
  const kinds = new Map<string, { seconds: number; from: number }[]>();
  for (const { times = [] } of frames)
    for (const { kind, seconds, from } of times) kinds.set(kind, [...(kinds.get(kind) ?? []), { seconds, from }]);
  return [...kinds].map(([kind, list]) => {
    const sorted = [...list].sort((a, b) => a.seconds - b.seconds);
    const total = sorted.reduce((s, t) => s + t.from, 0);
    let before = 0;
    const middle = sorted.find((t) => {
      before += t.from;
      return before >= total / 2;
    });
    return { kind, seconds: middle?.seconds ?? 0, from: total };
  });
}
