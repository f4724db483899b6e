import { describe, expect, it } from "vitest";
import { a500Tolerance, en10219Tolerance } from "./tubeTolerances";

describe("what a tube may be off by", () => {
  it("after EN 10219-2 (from memory): sides, wall, straightness, twist", () => {
    expect(en10219Tolerance(40, 3, 6000)).toEqual({
      sideMm: 0.5,
      wallMm: 0.30000000000000004,
      concaveConvexMm: 0.5,
      squarenessDeg: 1,
      twistMm: 5,
      straightnessMm: 9,
    });
    const side = (mm: number): number => en10219Tolerance(mm, 6, 6000).sideMm;
    expect([side(80), side(150), side(300)].map((x) => x.toFixed(2))).toEqual(["0.80", "1.20", "1.80"]);
    expect(en10219Tolerance(150, 8, 6000).wallMm).toBe(0.5);
  });
  it("after ASTM A500 (from memory): 0.020 in on 2 in, 1/8 in in 5 ft, and more twist the larger it is", () => {
    expect(a500Tolerance(2, 20)).toEqual({ sideIn: 0.02, straightnessIn: 0.5, twistIn: (0.062 * 20) / 3 });
    expect(a500Tolerance(8, 5).sideIn).toBeCloseTo(0.08, 9);
    let before = 0;
    for (const size of [1, 2, 3, 5, 8, 10]) {
      const { twistIn } = a500Tolerance(size, 20);
      expect(twistIn).toBeGreaterThan(before);
      before = twistIn;
    }
  });
});
