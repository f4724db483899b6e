/** A sparse row or column: positions and values. */
export interface Sparse {
  at: number[];
  value: number[];
}

/** Dot of a sparse vector with a full one. */
export function sparseDot(v: Sparse, x: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < v.at.length; i++) sum += v.value[i] * x[v.at[i]];
  return sum;
}

/** x += k v. */
export function sparseAdd(x: Float64Array, v: Sparse, k: number): void {
  for (let i = 0; i < v.at.length; i++) x[v.at[i]] = x[v.at[i]] + k * v.value[i];
}

/** A symmetric positive definite matrix kept by its envelope: of each row the part from its first entry to the diagonal. */
export interface Skyline {
  n: number;
  /** First column kept in each row. */
  first: Int32Array;
  /** Where row i starts in `value`. */
  start: Int32Array;
  value: Float64Array;
}

/**
 * Builds an envelope matrix from entries.
 * @param n size. @param entries (row, column, value) of one half or both; only row >= column is read; equal places add up.
 */
export function skyline(n: number, entries: readonly (readonly [number, number, number])[]): Skyline {
  const first = Int32Array.from({ length: n }, (_, i) => i);
  for (const [i, j] of entries) if (j < i && j < first[i]) first[i] = j;
  const start = new Int32Array(n + 1);
  for (let i = 0; i < n; i++) start[i + 1] = start[i] + i - first[i] + 1;
  const value = new Float64Array(start[n]);
  for (const [i, j, v] of entries) {
    if (j > i) continue;
    const at = start[i] + j - first[i];
    value[at] = value[at] + v;
  }
  return { n, first, start, value };
}

/**
 * Cholesky factor in place, row by row within the envelope.
 * @returns the row at which the matrix stops being positive definite, or -1 when all is well.
 * Source: George and Liu, Computer Solution of Large Sparse Positive Definite Systems, ch. 4 (from memory).
 */
export function factorSkyline({ n, first, start, value }: Skyline): number {
  for (let i = 0; i < n; i++) {
    const fi = first[i];
    const si = start[i] - fi;
    const before = value[si + i];
    for (let j = fi; j < i; j++) {
      const fj = first[j];
      const sj = start[j] - fj;
      let sum = value[si + j];
      for (let k = Math.max(fi, fj); k < j; k++) sum -= value[si + k] * value[sj + k];
      value[si + j] = sum / value[sj + j];
    }
    let d = before;
    for (let k = fi; k < i; k++) d -= value[si + k] ** 2;
    if (!(d > 1e-14 * before)) return i;
    value[si + i] = Math.sqrt(d);
  }
  return -1;
}

/** Solves with a factored matrix in place. @param x right side, becomes the solution. */
export function solveSkyline({ n, first, start, value }: Skyline, x: Float64Array): void {
  let from = 0;
  while (from < n && x[from] === 0) from++;
  for (let i = from; i < n; i++) {
    const fi = first[i];
    const si = start[i] - fi;
    let sum = x[i];
    for (let k = Math.max(fi, from); k < i; k++) sum -= value[si + k] * x[k];
    x[i] = sum / value[si + i];
  }
  for (let i = n - 1; i >= 0; i--) {
    const fi = first[i];
    const si = start[i] - fi;
    const xi = x[i] / value[si + i];
    x[i] = xi;
    for (let k = fi; k < i; k++) x[k] = x[k] - value[si + k] * xi;
  }
}
