import { BoxProblem } from "@/core/mechanics";

/**
 * Solves for what stands at its limits. @param problem a by row: how far unknown j takes i down; the limits of a line are alike both ways, a seam has none
 * below. @returns what each yields or presses with.
 */
export function boxOf({
  a,
  free,
  upper,
  isSeam,
}: {
  a: readonly (readonly number[])[];
  free: readonly number[];
  upper: readonly number[];
  isSeam: readonly boolean[];
}): number[] {
  const n = free.length;
  const box = new BoxProblem();
  box.begin(n);
  const matrix = new Float64Array(n * n);
  for (let j = 0; j < n; j++) {
    for (let i = 0; i < n; i++) matrix[j * n + i] = a[i]?.[j] ?? 0;
    box.place[j] = j;
    const limit = upper[j] ?? 0;
    box.free[j] = free[j] ?? 0;
    box.upper[j] = limit;
    box.lower[j] = isSeam[j] ? Number.NEGATIVE_INFINITY : -limit;
    box.slack[j] = 1e-12 * limit;
    box.isSeam[j] = isSeam[j] ? 1 : 0;
  }
  box.solve(matrix, n);
  return [...box.p.subarray(0, n)];
}

/** What lines yield that hold each other. @param a by row: force in line i taken back per mm that line j yields. */
export const yieldOf = (
  a: readonly (readonly number[])[],
  free: readonly number[],
  limit: readonly number[],
): number[] => boxOf({ a, free, upper: limit, isSeam: free.map(() => false) });
