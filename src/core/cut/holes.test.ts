import { describe, expect, it } from "vitest";
import { ladder } from "../../../tests/support/ladder";
import { sawTest, sawTestProblems } from "./fitUp";
import { closedVolumes, dipHoleMm, holeAdvice } from "./holes";

describe("closed volumes and their holes", () => {
  it("the mitred sides are one ring, every cross member one of its own, and all tube is in one of them", () => {
    const frame = ladder(3);
    const volumes = closedVolumes(frame);
    expect(volumes.map((v) => v.members)).toEqual([["AB", "BC", "CD", "DA"], ["M1"], ["M2"], ["M3"]]);
    expect(volumes.reduce((s, v) => s + v.lengthMm, 0)).toBeCloseTo(
      frame.members.reduce((s, m) => s + m.centreMm, 0),
      9,
    );
  });
  it("each has a vent to be welded shut, and a vent and a drain at opposite ends to be dipped: never none", () => {
    const frame = ladder(2);
    for (const advice of holeAdvice(frame, "paint")) expect(advice.count).toBe(1);
    for (const advice of holeAdvice(frame, "zinc dip")) {
      expect(advice.count).toBeGreaterThanOrEqual(2);
      expect(advice.where).toMatch(/below.*above/);
      expect(advice.why).toMatch(/never dip/);
      expect(advice.diameterMm).toBe(16);
    }
  });
  // EN ISO 14713-2, one hole at each end, from memory.
  it.each([
    [20, 10],
    [40, 14],
    [50, 16],
    [60, 20],
    [100, 25],
    [160, 40],
  ])("a tube of %d mm takes holes of %d mm (EN ISO 14713-2, from memory)", (side, hole) => {
    expect(dipHoleMm(side)).toBe(hole);
  });
  it("grows with the tube, beyond the table too", () => {
    let before = 0;
    for (let side = 10; side <= 400; side += 10) {
      expect(dipHoleMm(side)).toBeGreaterThanOrEqual(before);
      before = dipHoleMm(side);
    }
  });
});

describe("test of the saw", () => {
  it("turns its sign with where the gap opens and with which is inside which", () => {
    const base = sawTest(0.8, 150, "pieces inside square", "toe").perCutErrorDeg;
    expect(sawTest(0.8, 150, "pieces inside square", "heel").perCutErrorDeg).toBeCloseTo(-base, 12);
    expect(sawTest(0.8, 150, "square inside pieces", "toe").perCutErrorDeg).toBeCloseTo(-base, 12);
    expect(sawTest(0, 150, "pieces inside square", "toe").perCutErrorDeg).toBeCloseTo(0, 12);
  });
  it("refuses a gap that no saw makes, and a leg that no square has", () => {
    expect(sawTestProblems(60, 150)[0]).toMatchObject({ path: "saw.gap" });
    expect(sawTestProblems(-1, 150)[0]?.message).toMatch(/not negative/);
    expect(sawTestProblems(0.5, 5)[0]).toMatchObject({ path: "saw.leg" });
    expect(sawTestProblems(0.5, 150)).toEqual([]);
  });
});
