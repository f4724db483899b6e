import { describe, expect, it } from "vitest";
import { sawTest, sawTestProblems } from "./fitUp";

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
