import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { boxOf, yieldOf } from "../../../tests/support/box";

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
  it("and seams that touch are in the one state that fits: nothing pulls, nothing overlaps, nothing is over its limit", () => {
    const number = (most: number) => fc.double({ min: -most, max: most, noNaN: true });
    const mixed = fc.record({
      lines: fc.integer({ min: 0, max: 3 }),
      seams: fc.integer({ min: 1, max: 3 }),
      l: fc.array(fc.array(number(2), { minLength: 6, maxLength: 6 }), { minLength: 6, maxLength: 6 }),
      g: fc.array(fc.array(number(2), { minLength: 3, maxLength: 3 }), { minLength: 3, maxLength: 3 }),
      free: fc.array(number(10), { minLength: 6, maxLength: 6 }),
      limit: fc.array(fc.double({ min: 0.5, max: 5, noNaN: true }), { minLength: 3, maxLength: 3 }),
    });
    fc.assert(
      fc.property(mixed, ({ lines, seams, l, g, free, limit }) => {
        const n = lines + seams;
        const own = matrix(l.slice(0, n).map((row) => row.slice(0, n)));
        // Lines among themselves and seams among themselves as flexibilities are; between them what one gives the other takes.
        const a = own.map((row, i) =>
          row.map((v, j) =>
            i < lines === j < lines ? v : i < lines ? -(g[i]?.[j - lines] ?? 0) : (g[j]?.[i - lines] ?? 0),
          ),
        );
        const problem = {
          a,
          free: free.slice(0, n),
          upper: a.map((_, i) => (i < lines ? (limit[i] ?? 1) : 0)),
          isSeam: a.map((_, i) => i >= lines),
        };
        const p = boxOf(problem);
        const r = problem.free.map((f, i) => f - (a[i] ?? []).reduce((sum, v, j) => sum + v * (p[j] ?? 0), 0));
        const small = 1e-8;
        r.forEach((v, i) => {
          const up = problem.upper[i] ?? 0;
          expect(v).toBeLessThanOrEqual(up + small);
          if (problem.isSeam[i]) {
            expect(p[i]).toBeGreaterThanOrEqual(0);
            expect(Math.abs((p[i] ?? 0) * v)).toBeLessThan(small * 100);
          } else {
            expect(v).toBeGreaterThanOrEqual(-up - small);
            if (Math.abs(p[i] ?? 0) > small) expect(Math.abs(v - Math.sign(p[i] ?? 0) * up)).toBeLessThan(small * 10);
          }
        });
      }),
      { numRuns: 300 },
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
