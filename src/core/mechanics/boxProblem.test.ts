import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { yieldOf } from "../../../tests/support/box";

const solve = (a: number[][], free: number[], limit: number[]) => {
  const p = yieldOf(a, free, limit);
  const force = free.map((f, i) => f - (a[i] ?? []).reduce((sum, v, j) => sum + v * (p[j] ?? 0), 0));
  return { p, force };
};
/** Every pattern of limits tried in turn: the one that fits. */
function byTrying(a: number[][], free: number[], limit: number[]): number[] | null {
  const n = free.length;
  for (let code = 0; code < 3 ** n; code++) {
    const at = Array.from({ length: n }, (_, i) => (Math.floor(code / 3 ** i) % 3) - 1);
    const on = at.flatMap((s, i) => (s === 0 ? [] : [i]));
    const m = on.map((i) => [...on.map((j) => a[i]?.[j] ?? 0), (free[i] ?? 0) - (at[i] ?? 0) * (limit[i] ?? 0)]);
    // Gauss and Jordan, with pivots.
    for (let c = 0; c < m.length; c++) {
      const best = m.reduce((b, row, r) => (r >= c && Math.abs(row[c] ?? 0) > Math.abs(m[b]?.[c] ?? 0) ? r : b), c);
      [m[c], m[best]] = [m[best] as number[], m[c] as number[]];
      m.forEach((row, r) => {
        if (r === c) return;
        const f = (row[c] ?? 0) / (m[c]?.[c] ?? 1);
        row.forEach((v, k) => {
          row[k] = v - f * (m[c]?.[k] ?? 0);
        });
      });
    }
    const p = Array.from({ length: n }, () => 0);
    on.forEach((i, r) => {
      p[i] = (m[r]?.[m.length] ?? 0) / (m[r]?.[r] ?? 1);
    });
    const force = free.map((f, i) => f - (a[i] ?? []).reduce((sum, v, j) => sum + v * (p[j] ?? 0), 0));
    const fits = force.every((v, i) =>
      at[i] === 0 ? Math.abs(v) <= (limit[i] ?? 0) * (1 + 1e-9) : (at[i] ?? 0) * (p[i] ?? 0) >= -1e-12,
    );
    if (fits) return p;
  }
  return null;
}
/** A = L L' + 1: positive definite. */
const anyProblem = fc.integer({ min: 1, max: 4 }).chain((n) =>
  fc.record({
    l: fc.array(fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: n, maxLength: n }), {
      minLength: n,
      maxLength: n,
    }),
    free: fc.array(fc.double({ min: -20, max: 20, noNaN: true }), { minLength: n, maxLength: n }),
    limit: fc.array(fc.double({ min: 0.5, max: 8, noNaN: true }), { minLength: n, maxLength: n }),
  }),
);
const matrix = (l: number[][]): number[][] =>
  l.map((row, i) => l.map((other, j) => row.reduce((s, v, k) => s + v * (other[k] ?? 0), 0) + (i === j ? 1 : 0)));

describe("lines that yield together", () => {
  it("end where trying every pattern ends, never over a limit, never giving work back", () => {
    fc.assert(
      fc.property(anyProblem, ({ l, free, limit }) => {
        const a = matrix(l);
        const { p, force } = solve(a, free, limit);
        const tried = byTrying(a, free, limit);
        expect(tried).not.toBeNull();
        p.forEach((v, i) => {
          expect(v).toBeCloseTo(tried?.[i] ?? Number.NaN, 7);
          expect(Math.abs(force[i] ?? 0)).toBeLessThanOrEqual((limit[i] ?? 0) * (1 + 1e-9));
          expect(v * (force[i] ?? 0)).toBeGreaterThanOrEqual(0);
        });
      }),
      { numRuns: 300 },
    );
  });
  it("end alike in whichever order the lines stand, and mirrored for mirrored loads", () => {
    fc.assert(
      fc.property(anyProblem, ({ l, free, limit }) => {
        const a = matrix(l);
        const { p } = solve(a, free, limit);
        const turned = solve(a.map((row) => [...row].reverse()).reverse(), [...free].reverse(), [...limit].reverse());
        [...turned.p].reverse().forEach((v, i) => {
          expect(v).toBeCloseTo(p[i] ?? 0, 9);
        });
        solve(
          a,
          free.map((f) => -f),
          limit,
        ).p.forEach((v, i) => {
          expect(v).toBeCloseTo(-(p[i] ?? 0), 9);
        });
      }),
    );
  });
  it("that nothing holds against carry nothing and stop nobody", () => {
    const { p, force } = solve(
      [
        [2, 0],
        [0, 0],
      ],
      [5, 0],
      [1, 1],
    );
    expect(p[0]).toBeCloseTo(2, 9);
    expect(force[0]).toBeCloseTo(1, 9);
    expect([p[1], force[1]]).toEqual([0, 0]);
  });
});
