import { roomFor } from "./quasiDefinite";

/** Exchanges of whole sets that may fail to better things before unknowns are exchanged one at a time. */
const PATIENCE = 8;
const SINGULAR = 1e-12;
/** Rounds of the slow way, where the quick one finds no end. */
const SWEEPS = 300;

/**
 * Unknowns that hold each other within limits: r = free - A p, each r between its limits. p is above nought only where r is at its
 * upper limit, below nought only at its lower. Lines that yield (p what they yielded, r their force, equal limits) and seams that touch
 * (p what they press with, r how far the parts would overlap, nothing below and nought above) are both of this kind. One answer, whatever
 * the order. Fill in the first `n` of each array, then `solve`; room is kept between problems.
 */
export class BoxProblem {
  n = 0;
  /** Place of each unknown in the matrix. */
  place = new Int32Array(0);
  free = new Float64Array(0);
  lower = new Float64Array(0);
  upper = new Float64Array(0);
  /** Over a limit by no more than this is at it. */
  slack = new Float64Array(0);
  /** Which are seams: against lines their rows have the other sign. */
  isSeam = new Uint8Array(0);
  /** Which are guessed to stand at their limits, -1, 0 or 1 each: the answer is the same, nearer is sooner. Takes which do. */
  at = new Int8Array(0);
  /** Takes the answer. */
  p = new Float64Array(0);
  private a: Float64Array = new Float64Array(0);
  private stride = 0;
  private r = new Float64Array(0);
  private right = new Float64Array(0);
  private on = new Int32Array(0);
  private wrong = new Int32Array(0);

  /** Makes room for n unknowns. */
  begin(n: number): void {
    this.n = n;
    if (n <= this.free.length) return;
    const room = 2 * n;
    for (const key of ["free", "lower", "upper", "slack", "p", "r", "right"] as const)
      this[key] = new Float64Array(room);
    this.at = new Int8Array(room);
    this.isSeam = new Uint8Array(room);
    this.place = new Int32Array(room);
    this.on = new Int32Array(room);
    this.wrong = new Int32Array(room);
  }

  /**
   * Block principal pivoting of the box problem, one unknown at a time where whole sets would go round in a circle (Murty's rule;
   * Judice and Pires 1994, from memory); it ends for an A whose every principal minor is positive, symmetric or not.
   * @param a by how much unknowns take each other down, per unit: the column of the one at place q from q * stride on.
   */
  solve(a: Float64Array, stride: number): void {
    this.a = a;
    this.stride = stride;
    const { n, place, free, lower, upper, slack, at, p, r, wrong } = this;
    let best = n + 1;
    let patience = PATIENCE;
    this.atLimits();
    // Each exchange ends nearer or is one of finitely many.
    for (let turn = 0; turn < 20 * (n + 1); turn++) {
      for (let i = 0; i < n; i++) r[i] = free[i];
      for (let j = 0; j < n; j++) {
        const by = p[j];
        if (by === 0) continue;
        const column = place[j] * stride;
        for (let i = 0; i < n; i++) r[i] = r[i] - a[column + place[i]] * by;
      }
      let count = 0;
      for (let i = 0; i < n; i++)
        if (at[i] !== 0) {
          // What slips at no force slips either way.
          if (at[i] * p[i] < 0 && upper[i] > lower[i]) wrong[count++] = i;
        } else if (r[i] > upper[i] + slack[i]) wrong[count++] = i;
        else if (r[i] < lower[i] - slack[i]) wrong[count++] = -1 - i;
      if (count === 0) return;
      if (count < best) {
        best = count;
        patience = PATIENCE;
      } else patience--;
      for (let k = patience > 0 ? 0 : count - 1; k < count; k++) {
        const w = wrong[k];
        const i = w < 0 ? -1 - w : w;
        at[i] = at[i] !== 0 ? 0 : w < 0 ? -1 : 1;
      }
      this.atLimits();
    }
    this.slowly();
  }

  /** Nearly singular: one unknown after the other, which always comes nearer where A is symmetric. */
  private slowly(): void {
    const { n, a, stride, place, free, lower, upper, p } = this;
    for (let sweep = 0; sweep < SWEEPS; sweep++)
      for (let i = 0; i < n; i++) {
        let own = free[i];
        for (let j = 0; j < n; j++) if (j !== i) own -= a[place[j] * stride + place[i]] * p[j];
        const over = own > upper[i] ? own - upper[i] : own < lower[i] ? own - lower[i] : 0;
        const itself = a[place[i] * (stride + 1)];
        p[i] = itself > 0 ? over / itself : 0;
      }
  }

  /** What those that stand at their limits come to. */
  private atLimits(): void {
    const { n, at, p, on, right } = this;
    let m = 0;
    for (let i = 0; i < n; i++) {
      p[i] = 0;
      if (at[i] !== 0) on[m++] = i;
    }
    if (m === 0) return;
    if (!this.solveOn(m, 0)) {
      // A line that nothing holds against has no force to limit: a breath of stiffness keeps the equations whole.
      let stiffest = 0;
      for (let k = 0; k < m; k++) stiffest = Math.max(stiffest, this.a[this.place[on[k]] * (this.stride + 1)]);
      if (!this.solveOn(m, SINGULAR * stiffest)) return;
    }
    for (let k = 0; k < m; k++) p[on[k]] = right[k];
  }

  /**
   * Solves the equations of those at their limits, into `right`. With the rows of seams turned about, the matrix is symmetric and
   * quasi-definite (lines positive, seams negative).
   * @returns false where it is singular.
   */
  private solveOn(m: number, more: number): boolean {
    const { a, stride, place, free, lower, upper, at, on, right, isSeam } = this;
    const { room, size } = roomFor(m);
    const { a: left, b } = room;
    for (let q = 0; q < m; q++) {
      const j = on[q];
      const sign = isSeam[j] ? -1 : 1;
      const row = q * size;
      const own = place[j];
      // Row q of the lower half: column q of the matrix read up to its diagonal.
      for (let k = 0; k <= q; k++) left[row + k] = sign * a[place[on[k]] * stride + own];
      left[row + q] = left[row + q] + sign * more;
      b[q] = sign * (free[j] - (at[j] > 0 ? upper[j] : lower[j]));
    }
    if (!room.solve(m, SINGULAR)) return false;
    for (let q = 0; q < m; q++) right[q] = b[q];
    return true;
  }
}
