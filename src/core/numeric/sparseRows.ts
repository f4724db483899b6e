import type { Sparse } from "./skyline";

/** Sparse rows, one after the other. */
export interface SparseRows {
  count: number;
  /** Where each row starts in the other two, and their end. */
  start: Int32Array;
  at: Int32Array;
  value: Float64Array;
}

export function sparseRows(rows: readonly Sparse[]): SparseRows {
  const start = new Int32Array(rows.length + 1);
  rows.forEach(({ at }, i) => {
    start[i + 1] = start[i] + at.length;
  });
  return {
    count: rows.length,
    start,
    at: Int32Array.from(rows.flatMap((row) => row.at)),
    value: Float64Array.from(rows.flatMap((row) => row.value)),
  };
}

/** into[from + i] = row i times x, for the first `count` rows. */
export function rowsTimes(
  { start, at, value, count: all }: SparseRows,
  x: Float64Array,
  into: Float64Array,
  from = 0,
  count = all,
): void {
  for (let i = 0; i < count; i++) {
    let sum = 0;
    for (let k = start[i]; k < start[i + 1]; k++) sum += value[k] * x[at[k]];
    into[from + i] = sum;
  }
}
