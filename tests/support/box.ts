import { BoxProblem } from "@/core/mechanics";

/** What lines yield that hold each other. @param a by row: force in line i taken back per mm that line j yields. */
export function yieldOf(
  a: readonly (readonly number[])[],
  free: readonly number[],
  limit: readonly number[],
): number[] {
  const n = free.length;
  const box = new BoxProblem();
  box.begin(n);
  for (let j = 0; j < n; j++) {
    for (let i = 0; i < n; i++) box.a[j * n + i] = a[i]?.[j] ?? 0;
    box.free[j] = free[j] ?? 0;
    box.upper[j] = limit[j] ?? 0;
    box.lower[j] = -(limit[j] ?? 0);
    box.slack[j] = 1e-12 * (limit[j] ?? 0);
  }
  box.solve();
  return [...box.p.subarray(0, n)];
}
