import { type Nesting, type NestingProblem, nestingLp, nestingOf, type Pattern, type Solved } from "./nesting";
import { bestPattern, fullPlans, type WholePlan } from "./patterns";
import type { Stock } from "./stockSchema";

/** Rounds of adding patterns; ordinary jobs need a few dozen. */
const MOST_ROUNDS = 400;

/** Plans to begin with. */
const TRIES = 150;

const greatestDivisor = (a: number, b: number): number => (b < 1e-6 ? a : greatestDivisor(b, a % b));

/**
 * Solves a nesting with any solver. Where not every pattern was written down, patterns are added as the linear program's
 * prices ask for them until none is worth more than its bar; what that program costs, no plan can undercut.
 * Source: column generation (Gilmore and Gomory, 1961, 1963, from memory).
 * @param solve takes a program in LP form. @param stock for what is worth keeping.
 */
export function solveNesting(problem: NestingProblem, solve: (lp: string) => Solved, stock: Stock): Nesting {
  if (problem.complete) return nestingOf(problem, solve(nestingLp(problem, true)), stock);
  const { pieces, bars } = problem;
  const seen = new Set<string>();
  const grown: NestingProblem = { ...problem, patterns: [] };
  const add = (p: Pattern): boolean => {
    const key = `${p.bar}/${p.counts.join()}`;
    if (seen.has(key)) return false;
    seen.add(key);
    grown.patterns.push(p);
    return true;
  };
  // What offcuts cost only puts them in order; what counts is what is bought.
  const bought = (p: readonly Pattern[]): number =>
    p.reduce((s, x) => s + (bars[x.bar]?.offcut ? 0 : (bars[x.bar]?.cost ?? 0)), 0);
  let best: WholePlan | null = null;
  for (const plan of fullPlans(problem, TRIES)) {
    if (plan.length === 0) continue;
    if (!best || bought(plan) < bought(best)) best = plan;
    for (const p of plan) add(p);
  }
  let least = 0;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const lp = solve(nestingLp(grown, false));
    const worth = pieces.map((_, i) => lp.duals[`piece${i}`] ?? 0);
    let added = false;
    let short = 0;
    bars.forEach((b, i) => {
      const best = bestPattern(problem, i, worth);
      // A bar of which there are few has a price of its own: its row's dual, not positive.
      const price = b.cost - (lp.duals[`bar${i}`] ?? 0);
      if (best.worth > price + 1e-7 * Math.max(1, b.cost) && add({ bar: i, counts: best.counts })) added = true;
      if (price > 0) short = Math.max(short, best.worth / price - 1);
    });
    // Scaled down until no pattern is worth more than its bar, the prices bound every plan from below (Farley, 1990, from memory).
    const value =
      pieces.reduce((s, p, i) => s + p.quantity * (worth[i] as number), 0) +
      bars.reduce((s, b, i) => s + (Number.isFinite(b.quantity) ? b.quantity * (lp.duals[`bar${i}`] ?? 0) : 0), 0);
    least = Math.max(least, value / (1 + Math.max(0, short)));
    if (!added) break;
  }
  // Costs of bars come in steps: what lies between two of them is the upper one. All offcuts together are less than a step.
  const buyable = bars.filter((b) => !b.offcut);
  const offcutsAll = bars.reduce((s, b) => s + (b.offcut ? b.quantity * b.cost : 0), 0);
  const step = buyable.map((b) => b.cost).reduce(greatestDivisor, 0);
  const floor = step > 1e-6 ? Math.max(0, Math.ceil((least - offcutsAll) / step - 1e-6) * step) : least - offcutsAll;
  const start = best as WholePlan | null;
  const whole = (plan: WholePlan): Nesting =>
    nestingOf(
      { ...grown, patterns: plan },
      { optimal: true, values: Object.fromEntries(plan.map((_, k) => [`x${k}`, 1])), duals: {} },
      stock,
    );
  const costOf = (n: Nesting): number =>
    n.missing.length > 0
      ? Number.POSITIVE_INFINITY
      : n.bars.reduce((s, b) => s + (b.offcut ? 0 : (bars.find((x) => x.id === b.id)?.cost ?? 0)), 0);
  const begun = start ? whole(start) : null;
  const done = begun !== null && costOf(begun) <= floor + 1e-6;
  const searched = done ? null : nestingOf(grown, solve(nestingLp(grown, true)), stock);
  const nesting = begun && (!searched || costOf(begun) <= costOf(searched)) ? begun : (searched as Nesting);
  const cost = costOf(nesting);
  const share = cost > 0 && Number.isFinite(cost) ? Math.min(1, floor / cost) : cost === 0 ? 1 : 0;
  return { ...nesting, proven: nesting.missing.length === 0 && share > 1 - 1e-6, bound: share };
}
