import { describe, expect, it } from "vitest";
import { twistOnDiagonals } from "./twistOnDiagonals";

describe("what a twist does to diagonals", () => {
  it("is next to nothing: 5 mm on 1200 x 800 takes 0.004 mm, and strings across pass 2.5 mm apart (closed form)", () => {
    const t = twistOnDiagonals(1200, 800, 5);
    expect(t.symmetricMm).toBeCloseTo(-(5 ** 2) / (4 * Math.hypot(1200, 800)), 6);
    expect(t.oneCornerMm).toBeCloseTo(-(5 ** 2) / (2 * Math.hypot(1200, 800)), 6);
    expect(t.crossingGapMm).toBe(2.5);
  });
  it("does not depend on which pair is high", () => {
    expect(twistOnDiagonals(900, 600, -4)).toEqual(twistOnDiagonals(900, 600, 4));
  });
});
