import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { luSolve, matMul, matVec, symmetrise } from "./dense";
import { normalDraw, seeded } from "./random";

const random = (seed: number, count: number) => {
  const draw = seeded(seed);
  return Float64Array.from({ length: count }, () => normalDraw(draw));
};

describe("dense kernels", () => {
  it("solve what they multiplied, for several right sides", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 8 }), (seed, n) => {
        const a = random(seed, n * n);
        for (let i = 0; i < n; i++) a[i * n + i] = (a[i * n + i] ?? 0) + 5;
        const x = random(seed + 1, n * 2);
        const b = matMul(a, x, n, n, 2, new Float64Array(2 * n));
        expect(luSolve(a.slice(), b, n, 2)).toBe(true);
        b.forEach((v, i) => {
          expect(v).toBeCloseTo(x[i] ?? Number.NaN, 9);
        });
      }),
    );
  });
  it("say when a matrix is singular", () => {
    expect(luSolve(Float64Array.from([1, 2, 2, 4]), Float64Array.from([1, 1]), 2, 1)).toBe(false);
  });
  it("multiply by hand", () => {
    expect([...matVec(Float64Array.from([1, 2, 3, 4]), Float64Array.from([5, 6]), 2, 2, new Float64Array(2))]).toEqual([
      17, 39,
    ]);
    expect([...symmetrise(Float64Array.from([1, 2, 4, 1]), 2)]).toEqual([1, 3, 3, 1]);
  });
});
