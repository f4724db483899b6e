import fc from "fast-check";
import { inverse, Matrix } from "ml-matrix";
import { describe, expect, it } from "vitest";
import { leastSquares, type Noise, testReadings, whitening } from "./leastSquares";
import { multiply, type Rows, transpose } from "./linear";
import { normalDraw, seeded } from "./random";

const white = (noise: Noise) => {
  const w = whitening(noise);
  if (!w) throw new Error("not positive definite");
  return w;
};
/** A fit of readings with this noise, tested. */
function fitted(A: Rows, l: readonly number[], noise: Noise) {
  const w = white(noise);
  const [rows, observed] = [w.rows(A), w.column(l)];
  const found = leastSquares(rows, observed);
  const residuals = rows.map((row, i) => row.reduce((s, v, j) => s + v * (found.x[j] ?? 0), 0) - (observed[i] ?? 0));
  return { found, tests: testReadings(rows, found, residuals, l.length - found.rank, w) };
}

describe("least squares", () => {
  it("of one unknown read n times is the weighted mean, sure to u / sqrt(n) (closed form)", () => {
    const { found, tests } = fitted([[1], [1], [1], [1]], [10, 10.2, 9.8, 10.4], { u: [0.2, 0.2, 0.2, 0.2] });
    expect(found.x[0]).toBeCloseTo(10.1, 12);
    expect(Math.sqrt(found.cofactor[0]?.[0] ?? 0)).toBeCloseTo(0.1, 12);
    expect(tests.chi2).toBeCloseTo((0.1 ** 2 + 0.1 ** 2 + 0.3 ** 2 + 0.3 ** 2) / 0.04, 9);
    // Each of four like readings is checked by three quarters.
    for (const r of tests.readings) expect(r.redundancy).toBeCloseTo(0.75, 12);
    // Smallest slip that shows: 4.13 u over the root of its redundancy (Baarda, from memory).
    expect(tests.readings[0]?.detectable).toBeCloseTo((4.13 * 0.2) / Math.sqrt(0.75), 9);
  });
  it("agrees with the inverse of the normal matrix (ml-matrix), with noise that readings share", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 2, max: 5 }), (seed, n) => {
        const random = seeded(seed);
        const m = n + 3;
        const A = Array.from({ length: m }, () => Array.from({ length: n }, () => normalDraw(random)));
        const l = Array.from({ length: m }, () => normalDraw(random));
        const G = Array.from({ length: m }, () => Array.from({ length: m }, () => normalDraw(random)));
        const cov = multiply(G, transpose(G)).map((row, i) => row.map((v, j) => v + (i === j ? 0.5 : 0)));
        const P = inverse(new Matrix(cov)).to2DArray();
        const AtP = multiply(transpose(A), P);
        const Q = inverse(new Matrix(multiply(AtP, A))).to2DArray();
        const x = Q.map((row) =>
          row.reduce((s, q, k) => s + q * (AtP[k] ?? []).reduce((t, v, i) => t + v * (l[i] ?? 0), 0), 0),
        );
        const { found, tests } = fitted(A, l, { cov });
        found.x.forEach((v, i) => {
          expect(v).toBeCloseTo(x[i] ?? Number.NaN, 6);
        });
        // Redundancies add up to what is left over.
        expect(tests.readings.reduce((s, r) => s + r.redundancy, 0)).toBeCloseTo(m - n, 6);
        expect(tests.freedom).toBe(3);
      }),
      { numRuns: 40 },
    );
  });
  it("takes readings that stand alone and their covariance for the same", () => {
    const A = [
      [1, 0],
      [0, 1],
      [1, 1],
      [1, -1],
    ];
    const l = [3, 4, 7.4, -1.3];
    const u = [0.1, 0.2, 0.3, 0.1];
    const alone = fitted(A, l, { u });
    const cov = fitted(A, l, { cov: u.map((s, i) => u.map((_, j) => (i === j ? s * s : 0))) });
    for (const [i, r] of alone.tests.readings.entries())
      for (const key of ["residual", "w", "redundancy", "slip", "uSlip", "detectable"] as const)
        expect(cov.tests.readings[i]?.[key]).toBeCloseTo(r[key], 9);
    expect(cov.tests.alike(0, 2)).toBeCloseTo(alone.tests.alike(0, 2), 9);
  });
  it("names what the readings leave open, and leaves it at nought", () => {
    const { found } = fitted(
      [
        [1, -1, 0],
        [0, 0, 1],
      ],
      [2, 5],
      { u: [1, 1] },
    );
    expect(found.rank).toBe(2);
    expect(found.open).toHaveLength(1);
    expect(found.x[0]).toBeCloseTo(1, 9);
    expect(found.x[1]).toBeCloseTo(-1, 9);
    expect(found.x[2]).toBeCloseTo(5, 9);
    const [way] = found.open;
    expect(Math.abs((way?.[0] ?? 0) - (way?.[1] ?? 1))).toBeLessThan(1e-9);
  });
  it("finds a slip: its size, whatever it is, and that it stands out", () => {
    const A = Array.from({ length: 6 }, (_, i) => [1, i]);
    const l = A.map(([, i]) => 2 + 0.5 * (i ?? 0));
    for (const slip of [1, -5, 20]) {
      const bad = l.map((v, i) => (i === 2 ? v + slip : v));
      const { tests } = fitted(A, bad, { u: A.map(() => 0.1) });
      expect(tests.readings[2]?.slip).toBeCloseTo(slip, 9);
      expect(tests.agree).toBe(false);
      const largest = Math.max(...tests.readings.map((r) => Math.abs(r.w)));
      expect(Math.abs(tests.readings[2]?.w ?? 0)).toBeCloseTo(largest, 9);
    }
  });
  it("claims nothing where nothing is left over, and weighs no reading without uncertainty", () => {
    const { tests } = fitted(
      [
        [1, 0],
        [0, 1],
      ],
      [1, 2],
      { u: [1, 1] },
    );
    expect(tests).toMatchObject({ freedom: 0, pValue: null, agree: null });
    expect(tests.readings.map((r) => r.controlled)).toEqual([false, false]);
    expect(whitening({ u: [1, 0] })).toBeNull();
    expect(
      whitening({
        cov: [
          [1, 1],
          [1, 1],
        ],
      }),
    ).toBeNull();
  });
});
