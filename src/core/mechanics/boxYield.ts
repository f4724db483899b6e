import { luSolve } from "../numeric";

/** Over its limit by more than this share, a line yields. */
const OVER = 1e-12;
/** Exchanges of whole sets that may fail to better things before lines are exchanged one at a time. */
const PATIENCE = 8;
const SINGULAR = 1e-12;
/** Rounds of the slow way, where the quick one finds no end. */
const SWEEPS = 300;

/**
 * The elastic, perfectly plastic state of lines that hold each other: N = free - A p with |N| at most its limit, p above nought
 * only at the upper limit and below nought only at the lower. One answer, whatever the order of the lines.
 * Block principal pivoting of the box problem, one line at a time where whole sets would go round in a circle (Murty's rule; Judice
 * and Pires 1994, from memory); it ends for a positive definite A.
 * @param n lines. @param a n x n, row-major: force in line i taken back per mm that line j yields.
 * @param free forces if none yielded, N. @param limit N. @param into takes how far each yields, mm.
 * @param at which lines are guessed to stand at their limits, -1, 0 or 1 each: the answer is the same, nearer is sooner.
 */
export function boxYield(
  n: number,
  a: (i: number, j: number) => number,
  free: ArrayLike<number>,
  limit: ArrayLike<number>,
  into: Float64Array,
  at: Int8Array = new Int8Array(n),
): void {
  into.fill(0, 0, n);
  let best = n + 1;
  let patience = PATIENCE;
  if (at.some((s) => s !== 0)) atLimits(n, a, free, limit, at, into);
  // Each exchange ends nearer or is one of finitely many.
  for (let turn = 0; turn < 20 * (n + 1); turn++) {
    const wrong: number[] = [];
    for (let i = 0; i < n; i++) {
      if (at[i] !== 0) {
        if (at[i] * into[i] < 0) wrong.push(i);
        continue;
      }
      let force = free[i];
      for (let j = 0; j < n; j++) if (at[j] !== 0) force -= a(i, j) * into[j];
      if (Math.abs(force) > limit[i] * (1 + OVER)) wrong.push(force > 0 ? i : -1 - i);
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
    atLimits(n, a, free, limit, at, into);
  }
  // Nearly singular: down the energy line by line, which always comes nearer.
  for (let sweep = 0; sweep < SWEEPS; sweep++)
    for (let i = 0; i < n; i++) {
      let force = free[i];
      for (let j = 0; j < n; j++) if (j !== i && into[j] !== 0) force -= a(i, j) * into[j];
      const over = Math.abs(force) - limit[i];
      into[i] = over > 0 && a(i, i) > 0 ? (Math.sign(force) * over) / a(i, i) : 0;
    }
}

/** How far the lines that stand at their limits yield. */
function atLimits(
  n: number,
  a: (i: number, j: number) => number,
  free: ArrayLike<number>,
  limit: ArrayLike<number>,
  at: Int8Array,
  into: Float64Array,
): void {
  const on: number[] = [];
  for (let i = 0; i < n; i++) if (at[i] !== 0) on.push(i);
  const m = on.length;
  into.fill(0, 0, n);
  const left = new Float64Array(m * m);
  const right = new Float64Array(m);
  const fill = (more: number) =>
    on.forEach((i, p) => {
      on.forEach((j, q) => {
        left[p * m + q] = a(i, j) + (p === q ? more : 0);
      });
      right[p] = free[i] - at[i] * limit[i];
    });
  fill(0);
  if (!luSolve(left, right, m, 1)) {
    // A line that nothing holds against has no force to limit: a breath of stiffness keeps the equations whole.
    let stiffest = 0;
    for (const i of on) stiffest = Math.max(stiffest, a(i, i));
    fill(SINGULAR * stiffest);
    if (!luSolve(left, right, m, 1)) return;
  }
  on.forEach((i, p) => {
    into[i] = right[p];
  });
}
