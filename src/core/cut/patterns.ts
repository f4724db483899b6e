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

/** A whole plan: one entry a bar that is cut. */
export type WholePlan = Pattern[];

/**
 * Whole plans that leave little: offcuts first, then bar after bar, each filled as full as it goes around the longest piece
 * that is left, and at last laid into the cheapest bar that holds it. A little chance in what a length is worth, and in
 * which bar is taken, makes every plan another one.
 * Source: minimum bin slack (Gupta and Ho, 1999, from memory).
 */
export function fullPlans(problem: NestingProblem, tries: number): WholePlan[] {
  const { pieces, bars, kerfMm } = problem;
  const random = seeded(1);
  const longest = pieces.map((_, i) => i).sort((a, b) => (pieces[b]?.needMm ?? 0) - (pieces[a]?.needMm ?? 0));
  const bought = bars.flatMap((b, i) => (b.offcut ? [] : [i]));
  const offcuts = bars.flatMap((b, i) => (b.offcut ? Array.from({ length: b.quantity }, () => i) : []));
  const need = (counts: readonly number[]): number => counts.reduce((s, c, i) => s + c * (pieces[i]?.needMm ?? 0), 0);
  const cheapest = (counts: readonly number[]): number | undefined =>
    bought
      .filter((i) => need(counts) <= (bars[i]?.usableMm ?? 0) + kerfMm + 1e-9)
      .sort((a, b) => (bars[a]?.cost ?? 0) - (bars[b]?.cost ?? 0))[0];
  return Array.from({ length: tries }, (_, t): WholePlan => {
    const left = pieces.map((p) => p.quantity);
    const plan: WholePlan = [];
    const cut = (bar: number, counts: number[]) => {
      plan.push({ bar, counts });
      for (const [i, c] of counts.entries()) left[i] = (left[i] ?? 0) - c;
    };
    const shaken = (length: number): number => length * (t === 0 ? 1 : 1 + 0.08 * random());
    for (const bar of offcuts) {
      const { counts } = bestPattern(
        problem,
        bar,
        pieces.map((p) => shaken(p.needMm)),
        left,
        FILL_LOOKS,
      );
      if (counts.some((c) => c > 0)) cut(bar, counts);
    }
    for (;;) {
      const first = longest.find((i) => (left[i] ?? 0) > 0);
      if (first === undefined) return plan;
      const able = bought.filter((i) => (pieces[first]?.needMm ?? 0) <= (bars[i]?.usableMm ?? 0) + kerfMm + 1e-9);
      const bar = able[t < able.length ? t : Math.floor(random() * able.length)];
      if (bar === undefined) return [];
      const worth = pieces.map((p, i) => (i === first ? 1e6 * p.needMm : shaken(p.needMm)));
      const { counts } = bestPattern(problem, bar, worth, left, FILL_LOOKS);
      if (counts.every((c) => c === 0)) return [];
      cut(cheapest(counts) ?? bar, counts);
    }
  });
}
