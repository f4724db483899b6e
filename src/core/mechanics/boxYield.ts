import { luSolve } from "../numeric";

/** Exchanges of whole sets that may fail to better things before unknowns are exchanged one at a time. */
const PATIENCE = 8;
const SINGULAR = 1e-12;
/** Rounds of the slow way, where the quick one finds no end. */
const SWEEPS = 300;

/** Unknowns that hold each other within limits: r = free - A p, each r between its limits. */
export interface BoxProblem {
  /** How many. */
  n: number;
  /** By how much unknown j takes r of i down, per unit. */
  a: (i: number, j: number) => number;
  free: ArrayLike<number>;
  lower: ArrayLike<number>;
  upper: ArrayLike<number>;
  /** Over a limit by no more than this is at it. */
  slack: ArrayLike<number>;
}

/**
 * The state of unknowns that hold each other: r = free - A p within its limits, p above nought only at the upper limit and below
 * nought only at the lower. Lines that yield (p what they yielded, r their force, equal limits) and seams that touch (p what they
 * press with, r how far the parts would overlap, nothing below and nought above) are both of this kind. One answer, whatever the order.
 * Block principal pivoting of the box problem, one unknown at a time where whole sets would go round in a circle (Murty's rule; Judice
 * and Pires 1994, from memory); it ends for an A whose every principal minor is positive, symmetric or not.
 * @param into takes p. @param at which are guessed to stand at their limits, -1, 0 or 1 each: the answer is the same, nearer is sooner.
 */
export function boxYield(problem: BoxProblem, into: Float64Array, at: Int8Array = new Int8Array(problem.n)): void {
  const { n, a, free, lower, upper, slack } = problem;
  into.fill(0, 0, n);
  let best = n + 1;
  let patience = PATIENCE;
  atLimits(problem, at, into);
  // Each exchange ends nearer or is one of finitely many.
  for (let turn = 0; turn < 20 * (n + 1); turn++) {
    const wrong: number[] = [];
    for (let i = 0; i < n; i++) {
      if (at[i] !== 0) {
        if (at[i] * into[i] < 0) wrong.push(i);
        continue;
      }
      let r = free[i];
      for (let j = 0; j < n; j++) if (at[j] !== 0) r -= a(i, j) * into[j];
      if (r > upper[i] + slack[i]) wrong.push(i);
      else if (r < lower[i] - slack[i]) wrong.push(-1 - i);
    }
    if (wrong.length === 0) return;
    if (wrong.length < best) {
      best = wrong.length;
      patience = PATIENCE;
    } else patience--;
    for (const w of patience > 0 ? wrong : wrong.slice(-1)) {
      const i = w < 0 ? -1 - w : w;
      at[i] = at[i] !== 0 ? 0 : w < 0 ? -1 : 1;
    }
    atLimits(problem, at, into);
  }
  // Nearly singular: one unknown after the other, which always comes nearer where A is symmetric.
  for (let sweep = 0; sweep < SWEEPS; sweep++)
    for (let i = 0; i < n; i++) {
      let r = free[i];
      for (let j = 0; j < n; j++) if (j !== i && into[j] !== 0) r -= a(i, j) * into[j];
      const over = r > upper[i] ? r - upper[i] : r < lower[i] ? r - lower[i] : 0;
      into[i] = a(i, i) > 0 ? over / a(i, i) : 0;
    }
}

/** What those that stand at their limits come to. */
function atLimits({ n, a, free, lower, upper }: BoxProblem, at: Int8Array, into: Float64Array): void {
  const on: number[] = [];
  for (let i = 0; i < n; i++) if (at[i] !== 0) on.push(i);
  into.fill(0, 0, n);
  const m = on.length;
  if (m === 0) return;
  const left = new Float64Array(m * m);
  const right = new Float64Array(m);
  const fill = (more: number) => {
    for (let p = 0; p < m; p++) {
      const i = on[p];
      for (let q = 0; q < m; q++) left[p * m + q] = a(i, on[q]);
      left[p * m + p] = left[p * m + p] + more;
      right[p] = free[i] - (at[i] > 0 ? upper[i] : lower[i]);
    }
  };
  fill(0);
  if (!luSolve(left, right, m, 1)) {
    // A line that nothing holds against has no force to limit: a breath of stiffness keeps the equations whole.
    let stiffest = 0;
    for (const i of on) stiffest = Math.max(stiffest, a(i, i));
    fill(SINGULAR * stiffest);
    if (!luSolve(left, right, m, 1)) return;
  }
  for (let p = 0; p < m; p++) into[on[p]] = right[p];
}
