import { seeded } from "../numeric";
import type { NestingProblem, Pattern } from "./nesting";

/** Looks at one bar before the best so far is taken. */
const MOST_LOOKS = 200_000;

const FILL_LOOKS = 4_000;

/**
 * The way to cut one bar that is worth most at given prices for pieces. Source: bounded knapsack, by branch and bound on the
 * worth per length.
 * @param worth of one of each piece. @param most how many of each there are. @param looks after which the best so far is taken.
 * @returns counts and their worth.
 */
export function bestPattern(
  { pieces, bars, kerfMm }: NestingProblem,
  bar: number,
  worth: readonly number[],
  most: readonly number[] = pieces.map((p) => p.quantity),
  looks = MOST_LOOKS,
): { counts: number[]; worth: number } {
  const room = (bars[bar]?.usableMm ?? 0) + kerfMm + 1e-9;
  const order = pieces
    .map((p, i) => ({ i, need: p.needMm, most: most[i] ?? 0, worth: worth[i] ?? 0 }))
    .filter((x) => x.most > 0 && x.worth > 1e-12 && x.need <= room)
    .sort((a, b) => b.worth / b.need - a.worth / a.need || b.need - a.need);
  const counts = pieces.map(() => 0);
  let best = { counts: [...counts], worth: 0 };
  let looked = 0;
  const walk = (k: number, left: number, sum: number): void => {
    if (sum > best.worth + 1e-12) best = { counts: [...counts], worth: sum };
    const x = order[k];
    looked += 1;
    if (!x || looked > looks) return;
    // No filling of what is left is worth more than all of it at this rate.
    if (sum + (left * x.worth) / x.need <= best.worth + 1e-12) return;
    for (let c = Math.min(x.most, Math.floor(left / x.need)); c >= 0; c--) {
      counts[x.i] = c;
      walk(k + 1, left - c * x.need, sum + c * x.worth);
    }
    counts[x.i] = 0;
  };
  walk(0, room, 0);
  return best;
}

/**
 * Whole plans that leave little: bar after bar, each filled as full as it goes around the longest piece that is left; a
 * little chance in what a length is worth makes every plan another one.
 * Source: minimum bin slack (Gupta and Ho, 1999, from memory).
 */
export function fullBars(problem: NestingProblem, bar: number, tries: number): Pattern[][] {
  const { pieces } = problem;
  const random = seeded(1);
  const longest = pieces.map((_, i) => i).sort((a, b) => (pieces[b]?.needMm ?? 0) - (pieces[a]?.needMm ?? 0));
  return Array.from({ length: tries }, (_, t) => {
    const left = pieces.map((p) => p.quantity);
    const plan: Pattern[] = [];
    for (;;) {
      const first = longest.find((i) => (left[i] ?? 0) > 0);
      if (first === undefined) return plan;
      const worth = pieces.map((p, i) =>
        i === first ? 1e6 * p.needMm : p.needMm * (t === 0 ? 1 : 1 + 0.05 * random()),
      );
      const { counts } = bestPattern(problem, bar, worth, left, FILL_LOOKS);
      if (counts.every((c) => c === 0)) return [];
      plan.push({ bar, counts });
      for (const [i, c] of counts.entries()) left[i] = (left[i] ?? 0) - c;
    }
  });
}
