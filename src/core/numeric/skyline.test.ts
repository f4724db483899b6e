import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { luSolve } from "./dense";
import { normalDraw, seeded } from "./random";
import { factorSkyline, skyline, solveSkyline, sparseAdd, sparseDot } from "./skyline";

describe("an envelope matrix", () => {
  it("gives what elimination of the full matrix gives, whatever its gaps", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 2, max: 14 }), (seed, n) => {
        const draw = seeded(seed);
        const full = new Float64Array(n * n);
        const entries: [number, number, number][] = [];
        const put = (i: number, j: number, v: number) => {
          entries.push([i, j, v]);
          full[i * n + j] = (full[i * n + j] ?? 0) + v;
        };
        // Springs between places far and near, each to ground a little: symmetric and positive definite.
        for (let i = 0; i < n; i++) put(i, i, 0.5);
        for (let s = 0; s < 2 * n; s++) {
          const [i, j] = [Math.floor(draw() * n), Math.floor(draw() * n)];
          const k = 0.1 + draw();
          if (i === j) continue;
          put(i, i, k);
          put(j, j, k);
          put(i, j, -k);
          put(j, i, -k);
        }
        const b = Float64Array.from({ length: n }, () => normalDraw(draw));
        const matrix = skyline(n, entries);
        expect(factorSkyline(matrix)).toBe(-1);
        const x = b.slice();
        solveSkyline(matrix, x);
        luSolve(full, b, n, 1);
        x.forEach((v, i) => {
          expect(v).toBeCloseTo(b[i] ?? Number.NaN, 9);
        });
      }),
    );
  });
  it("names the row where it stops being positive definite", () => {
    expect(
      factorSkyline(
        skyline(2, [
          [0, 0, 1],
          [1, 0, 1],
          [1, 1, 1],
        ]),
      ),
    ).toBe(1);
  });
  it("adds and multiplies sparse rows", () => {
    const x = Float64Array.from([1, 2, 3]);
    sparseAdd(x, { at: [0, 2], value: [2, -1] }, 2);
    expect([...x]).toEqual([5, 2, 1]);
    expect(sparseDot({ at: [1, 2], value: [3, 4] }, x)).toBe(10);
  });
});
