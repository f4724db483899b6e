import { luSolve } from "./dense";

/** A dense matrix as rows. Small ones only: a frame has some tens of readings. */
export type Rows = number[][];

/** An entry that is known to be there. @returns NaN when it is not, which no figure survives unseen. */
export const entry = (list: ArrayLike<number>, i: number): number => list[i] ?? Number.NaN;

/** n x m of zeros. */
export const zeros = (n: number, m: number): Rows => Array.from({ length: n }, () => new Array<number>(m).fill(0));

export const transpose = (a: Rows): Rows => (a[0] ?? []).map((_, j) => a.map((row) => row[j]));

/** a (n x k) times b (k x m). */
export function multiply(a: Rows, b: Rows): Rows {
  const m = b[0]?.length ?? 0;
  return a.map((row) => {
    const out = new Array<number>(m).fill(0);
    row.forEach((x, k) => {
      if (x === 0) return;
      const line = b[k];
      for (let j = 0; j < m; j++) out[j] = out[j] + x * line[j];
    });
    return out;
  });
}

/** a times a column. */
export const multiplyColumn = (a: Rows, x: readonly number[]): number[] =>
  a.map((row) => row.reduce((sum, v, j) => sum + v * x[j], 0));

/**
 * Lower Cholesky factor of a symmetric positive definite matrix (only the lower half is read).
 * @returns null when it is not positive definite. Source: Golub and Van Loan, Matrix Computations, 4.2 (from memory).
 */
export function cholesky(a: Rows): Rows | null {
  const n = a.length;
  const l = zeros(n, n);
  for (let j = 0; j < n; j++) {
    const lj = l[j];
    for (let i = j; i < n; i++) {
      const li = l[i];
      let sum = a[i][j];
      for (let k = 0; k < j; k++) sum -= li[k] * lj[k];
      if (i > j) li[j] = sum / lj[j];
      else if (sum > 0) lj[j] = Math.sqrt(sum);
      else return null;
    }
  }
  return l;
}

/** Solves L L^T x = b. @param l lower factor, n x n. @param b right side, n. @returns n. */
export function solveCholesky(l: Rows, b: ArrayLike<number>): number[] {
  const x = Array.from(b);
  for (const [i, row] of l.entries()) {
    let sum = x[i];
    for (let k = 0; k < i; k++) sum -= row[k] * x[k];
    x[i] = sum / row[i];
  }
  for (let i = l.length - 1; i >= 0; i--) {
    const row = l[i];
    const xi = x[i] / row[i];
    x[i] = xi;
    for (let k = 0; k < i; k++) x[k] = x[k] - row[k] * xi;
  }
  return x;
}

/**
 * Singular values by one-sided Jacobi rotations of the columns: accurate for small ones too.
 * Source: Hestenes 1958; Golub and Van Loan, Matrix Computations, 8.6 (from memory).
 * @param a n x m, any shape. @returns m values in no order.
 */
export function singularValues(a: Rows): number[] {
  const columns = transpose(a);
  const dotOf = (p: number[], q: number[]): number => p.reduce((s, v, i) => s + v * q[i], 0);
  for (let sweep = 0; sweep < 60; sweep++) {
    let turned = false;
    for (let i = 0; i < columns.length - 1; i++)
      for (let j = i + 1; j < columns.length; j++) {
        const p = columns[i];
        const q = columns[j];
        const pp = dotOf(p, p);
        const qq = dotOf(q, q);
        const pq = dotOf(p, q);
        if (Math.abs(pq) <= 1e-13 * Math.sqrt(pp * qq) || pq === 0) continue;
        turned = true;
        const zeta = (qq - pp) / (2 * pq);
        const t = (zeta >= 0 ? 1 : -1) / (Math.abs(zeta) + Math.hypot(1, zeta));
        const c = 1 / Math.hypot(1, t);
        const s = c * t;
        columns[i] = p.map((v, k) => c * v - s * q[k]);
        columns[j] = p.map((v, k) => s * v + c * q[k]);
      }
    if (!turned) break;
  }
  return columns.map((col) => Math.sqrt(dotOf(col, col)));
}

/** @param rows a rectangular array. @returns smallest over largest singular value; 0 for a matrix of zeros. */
export function conditionRatio(rows: Rows): number {
  const values = singularValues(rows);
  const largest = Math.max(...values);
  return largest > 0 ? Math.min(...values) / largest : 0;
}

/** Solves a small general system by elimination with pivots. @param rows n x n. @returns n, or null when singular. */
export function solveSmall(rows: Rows, right: readonly number[]): number[] | null {
  const x = Float64Array.from(right);
  return luSolve(Float64Array.from(rows.flat()), x, right.length, 1, 1e-12) ? [...x] : null;
}
