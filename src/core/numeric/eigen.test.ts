import { EigenvalueDecomposition, Matrix } from "ml-matrix";
import { describe, expect, it } from "vitest";
import { symmetricEigen } from "./eigen";
import { normalDraw, seeded } from "./random";

describe("eigenvalues of a symmetric matrix", () => {
  it("are those of a general library, also of a singular one", () => {
    const random = seeded(12);
    const half = Array.from({ length: 7 }, () => Array.from({ length: 5 }, () => normalDraw(random)));
    const a = half.map((p) => half.map((q) => p.reduce((s, v, i) => s + v * (q[i] as number), 0)));
    const own = [...symmetricEigen(a).values].sort((x, y) => x - y);
    const theirs = new EigenvalueDecomposition(new Matrix(a)).realEigenvalues.sort((x, y) => x - y);
    own.forEach((v, i) => {
      expect(v).toBeCloseTo(theirs[i] as number, 9);
    });
  });
});
