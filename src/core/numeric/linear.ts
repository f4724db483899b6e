import { CholeskyDecomposition, Matrix, SingularValueDecomposition } from "ml-matrix";

export { Matrix };

/** @param rows a rectangular array. @returns smallest over largest singular value; 0 for a matrix of zeros. */
export function conditionRatio(rows: number[][]): number {
  const values = new SingularValueDecomposition(new Matrix(rows), {
    computeLeftSingularVectors: false,
    computeRightSingularVectors: false,
    autoTranspose: true,
  }).diagonal;
  const largest = Math.max(...values);
  return largest > 0 ? Math.min(...values) / largest : 0;
}

/** Inverse of a symmetric positive definite matrix by Cholesky. @throws Error when it is not positive definite. */
export function inverseSpd(m: Matrix): Matrix {
  // Products of matrices are symmetric only to rounding; the decomposition wants it to the bit.
  const cholesky = new CholeskyDecomposition(Matrix.add(m, m.transpose()).mul(0.5));
  if (!cholesky.isPositiveDefinite()) throw new Error("inverseSpd: matrix is not positive definite");
  return cholesky.solve(Matrix.eye(m.rows));
}

/** Solves a small general system. @param rows n x n. @param right n. @returns n, or null when it is singular. */
export function solveSmall(rows: number[][], right: number[]): number[] | null {
  const n = right.length;
  const m = rows.map((row, i) => [...row, right[i] ?? 0]);
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(m[r]?.[c] ?? 0) > Math.abs(m[pivot]?.[c] ?? 0)) pivot = r;
    const top = m[pivot];
    const here = m[c];
    if (!top || !here || Math.abs(top[c] ?? 0) < 1e-12) return null;
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
