/** A dense matrix as rows. Small ones only: a frame has some tens of readings. */
export type Rows = number[][];

/** n x m of zeros. */
export const zeros = (n: number, m: number): Rows => Array.from({ length: n }, () => new Array<number>(m).fill(0));

export const transpose = (a: Rows): Rows => (a[0] ?? []).map((_, j) => a.map((row) => row[j] as number));

/** a (n x k) times b (k x m). */
export function multiply(a: Rows, b: Rows): Rows {
  const m = b[0]?.length ?? 0;
  return a.map((row) => {
    const out = new Array<number>(m).fill(0);
    row.forEach((x, k) => {
      if (x === 0) return;
      const line = b[k] as number[];
      for (let j = 0; j < m; j++) out[j] = (out[j] as number) + x * (line[j] as number);
    });
    return out;
  });
}

/** a times a column. */
export const multiplyColumn = (a: Rows, x: readonly number[]): number[] =>
  a.map((row) => row.reduce((sum, v, j) => sum + v * (x[j] as number), 0));

/**
 * Lower Cholesky factor of a symmetric positive definite matrix (only the lower half is read).
 * @returns null when it is not positive definite. Source: Golub and Van Loan, Matrix Computations, 4.2 (from memory).
 */
export function cholesky(a: Rows): Rows | null {
  const n = a.length;
  const l = zeros(n, n);
  for (let j = 0; j < n; j++) {
    const lj = l[j] as number[];
    for (let i = j; i < n; i++) {
      const li = l[i] as number[];
      let sum = (a[i] as number[])[j] as number;
      for (let k = 0; k < j; k++) sum -= (li[k] as number) * (lj[k] as number);
      if (i > j) li[j] = sum / (lj[j] as number);
      else if (sum > 0) lj[j] = Math.sqrt(sum);
      else return null;
    }
  }
  return l;
}

/** Inverse of a symmetric positive definite matrix. @returns null when it is not positive definite. */
export function inverseSpd(a: Rows): Rows | null {
  const l = cholesky(a);
  if (!l) return null;
  const n = a.length;
  const inverse = zeros(n, n);
  for (let c = 0; c < n; c++) {
    const x = new Array<number>(n).fill(0);
    for (let i = 0; i < n; i++) {
      const li = l[i] as number[];
      let sum = i === c ? 1 : 0;
      for (let k = 0; k < i; k++) sum -= (li[k] as number) * (x[k] as number);
      x[i] = sum / (li[i] as number);
    }
    for (let i = n - 1; i >= 0; i--) {
      let sum = x[i] as number;
      for (let k = i + 1; k < n; k++) sum -= ((l[k] as number[])[i] as number) * (x[k] as number);
      x[i] = sum / ((l[i] as number[])[i] as number);
    }
    for (let i = 0; i < n; i++) (inverse[i] as number[])[c] = x[i] as number;
  }
  return inverse;
}

/**
 * Singular values by one-sided Jacobi rotations of the columns: accurate for small ones too.
 * Source: Hestenes 1958; Golub and Van Loan, Matrix Computations, 8.6 (from memory).
 * @param a n x m, any shape. @returns m values in no order.
 */
export function singularValues(a: Rows): number[] {
  const columns = transpose(a);
  const dotOf = (p: number[], q: number[]): number => p.reduce((s, v, i) => s + v * (q[i] as number), 0);
  for (let sweep = 0; sweep < 60; sweep++) {
    let turned = false;
    for (let i = 0; i < columns.length - 1; i++)
      for (let j = i + 1; j < columns.length; j++) {
        const p = columns[i] as number[];
        const q = columns[j] as number[];
        const pp = dotOf(p, p);
        const qq = dotOf(q, q);
        const pq = dotOf(p, q);
        if (Math.abs(pq) <= 1e-13 * Math.sqrt(pp * qq) || pq === 0) continue;
        turned = true;
        const zeta = (qq - pp) / (2 * pq);
        const t = (zeta >= 0 ? 1 : -1) / (Math.abs(zeta) + Math.hypot(1, zeta));
        const c = 1 / Math.hypot(1, t);
        const s = c * t;
        columns[i] = p.map((v, k) => c * v - s * (q[k] as number));
        columns[j] = p.map((v, k) => s * v + c * (q[k] as number));
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
  const n = right.length;
  const m = rows.map((row, i) => [...row, right[i] as number]);
  const nothing = 1e-12 * Math.max(...rows.flat().map(Math.abs));
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(m[r]?.[c] ?? 0) > Math.abs(m[pivot]?.[c] ?? 0)) pivot = r;
    const top = m[pivot];
    const here = m[c];
    if (!top || !here || Math.abs(top[c] ?? 0) <= nothing) return null;
    m[c] = top;
    m[pivot] = here;
    for (let r = 0; r < n; r++) {
      const row = m[r];
      if (r === c || !row) continue;
      const k = (row[c] ?? 0) / (top[c] ?? 1);
      for (let j = c; j <= n; j++) row[j] = (row[j] ?? 0) - k * (top[j] ?? 0);
    }
  }
  return m.map((row, i) => (row[n] ?? 0) / (row[i] ?? 1));
}
