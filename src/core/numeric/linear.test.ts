import fc from "fast-check";
import { inverse, Matrix, SingularValueDecomposition } from "ml-matrix";
import { describe, expect, it } from "vitest";
import { cholesky, conditionRatio, multiply, singularValues, solveCholesky, solveSmall, transpose } from "./linear";

// What is next to nothing beside the rest is nothing: the library's own answer is no reference there.
const number = fc.double({ min: -10, max: 10, noNaN: true }).map((x) => (Math.abs(x) < 1e-4 ? 0 : x));
const list = (n: number) => fc.array(number, { minLength: n, maxLength: n });
const matrix = (n: number, m: number) => fc.array(list(m), { minLength: n, maxLength: n });

function expectClose(ours: number[][], theirs: number[][], digits: number): void {
  expect(ours.length).toBe(theirs.length);
  for (const [i, row] of ours.entries())
    for (const [j, x] of row.entries()) expect(x).toBeCloseTo(theirs[i]?.[j] ?? Number.NaN, digits);
}

describe("linear algebra against a general-purpose library (ml-matrix)", () => {
  it("solves symmetric positive definite systems as their inverse does", () => {
    fc.assert(
      fc.property(matrix(6, 4), (a) => {
        const spd = multiply(transpose(a), a).map((row, i) => row.map((x, j) => (i === j ? x + 1 : x)));
        const half = cholesky(spd);
        if (!half) throw new Error("not positive definite");
        const columns = spd.map((_, c) =>
          solveCholesky(
            half,
            spd.map((__, i) => (i === c ? 1 : 0)),
          ),
        );
        expectClose(transpose(columns), inverse(new Matrix(spd)).to2DArray(), 8);
      }),
    );
  });
  it("finds the same singular values, and the same rank", () => {
    fc.assert(
      fc.property(matrix(7, 4), (a) => {
        const ours = singularValues(a).sort((x, y) => y - x);
        expectClose([ours], [new SingularValueDecomposition(new Matrix(a)).diagonal], 7);
      }),
    );
    expect(
      conditionRatio([
        [1, 2],
        [2, 4],
        [3, 6],
      ]),
    ).toBeLessThan(1e-12);
    expect(
      conditionRatio([
        [1, 0],
        [0, 1e-6],
      ]),
    ).toBeCloseTo(1e-6, 12);
    expect(
      conditionRatio([
        [0, 0],
        [0, 0],
      ]),
    ).toBe(0);
  });
  it("says when there is no inverse", () => {
    expect(
      cholesky([
        [1, 2],
        [2, 1],
      ]),
    ).toBeNull();
    expect(
      solveSmall(
        [
          [1, 2],
          [2, 4],
        ],
        [1, 2],
      ),
    ).toBeNull();
  });
  it("solves general systems", () => {
    fc.assert(
      fc.property(matrix(3, 3), list(3), (any, b) => {
        // A strong diagonal, its rows swapped: well conditioned, and pivots are needed.
        const a = any.map((row, i) => row.map((x, j) => (i === j ? x + 40 : x))).reverse();
        const x = solveSmall(a, b) ?? [];
        const scale = Math.max(1, ...x.map(Math.abs));
        for (const [i, [left]] of multiply(
          a,
          x.map((v) => [v]),
        ).entries())
          expect(Math.abs((left ?? Number.NaN) - (b[i] ?? 0))).toBeLessThan(1e-9 * scale);
      }),
    );
  });
});
