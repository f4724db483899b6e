import { type Nesting, type NestingProblem, nestingLp, nestingOf, type Pattern, type Solved } from "./nesting";
import { bestPattern, fullBars } from "./patterns";
import type { Stock } from "./stockSchema";

/** Rounds of adding patterns; ordinary jobs need a few dozen. */
const MOST_ROUNDS = 400;

/** Plans to begin with. */
const TRIES = 60;

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
  // Plans to begin with, on every kind of bar that is bought; the best of them is also what has to be undercut.
  let best: { plan: Pattern[]; cost: number } | null = null;
  bars.forEach((b, i) => {
    if (b.offcut && bars.some((x) => !x.offcut)) return;
    for (const plan of fullBars(problem, i, TRIES)) {
      const cost = plan.length * b.cost;
      if (plan.length > 0 && Number.isFinite(b.quantity) === false && (!best || cost < best.cost))
        best = { plan, cost };
      for (const p of plan) add(p);
    }
  });
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
  // Costs come in steps: what lies between two of them is the upper one.
  const step = bars.some((b) => b.offcut) ? 0 : bars.map((b) => b.cost).reduce(greatestDivisor);
  const floor = step > 1e-6 ? Math.ceil(least / step - 1e-6) * step : least;
  const start = best as { plan: Pattern[]; cost: number } | null;
  const nesting =
    start && start.cost <= floor + 1e-6
      ? nestingOf(
          { ...grown, patterns: start.plan },
          { optimal: true, values: Object.fromEntries(start.plan.map((_, k) => [`x${k}`, 1])), duals: {} },
          stock,
        )
      : nestingOf(grown, solve(nestingLp(grown, true)), stock);
  const cost = nesting.bars.reduce((s, b) => s + (bars.find((x) => x.id === b.id)?.cost ?? 0), 0);
  const share = cost > 0 ? Math.min(1, floor / cost) : 1;
  return { ...nesting, proven: nesting.missing.length === 0 && share > 1 - 1e-6, bound: share };
}
