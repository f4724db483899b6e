import { describe, expect, it } from "vitest";
import { drawn, squareTube, started } from "../../../tests/support/drawnFrames";
import { type DrawnFrame, resolveStructure, type Structure } from "../frame";
import type { Vec3 } from "../numeric";
import { length } from "../units";
import { drillList, drillProblems, pilotMm } from "./drill";
import type { Drill } from "./drillSchema";
import { bevelFor, preparations } from "./prepare";

const of = (frame: DrawnFrame): Structure => resolveStructure(frame).structure;

describe("drilling and preparing", () => {
  const hole = (change: Partial<Drill>): Drill => ({
    id: "H1",
    member: "AB",
    for: "mounting",
    at: length("600"),
    face: "top",
    diameter: length("9"),
    through: true,
    ...change,
  });
  it("takes a pilot a little larger than the web from 12.7 mm up (common practice, no source)", () => {
    expect(pilotMm(9)).toBeNull();
    expect(pilotMm(12.7)).toBe(2.5);
    for (let d = 12.7; d < 60; d += 0.7) expect(pilotMm(d)).toBeGreaterThan(0.17 * d);
  });
  it("watches what a hole takes from its face, and how near a joint it lies", () => {
    const s = of(started("rectangle"));
    expect(drillList(s, [hole({})])[0]?.notes).toEqual([]);
    expect(drillList(s, [hole({ diameter: length("20") })])[0]?.notes.join()).toMatch(/50 % of a face/);
    expect(drillList(s, [hole({ at: length("20") })])[0]?.notes.join()).toMatch(/Near a joint/);
    expect(drillList(s, [hole({ for: "wiring" })])[0]?.notes.join()).toMatch(/grommet/);
  });
  it("refuses what cannot be drilled, at its field", () => {
    const s = of(started("rectangle"));
    expect(drillProblems(s, [hole({ diameter: length("45") })])[0]).toMatchObject({
      path: "drill.0.diameter",
      message: expect.stringMatching(/does not fit into a face of 40 mm/),
    });
    expect(drillProblems(s, [hole({ at: length("3000") })])[0]).toMatchObject({ path: "drill.0.at" });
    expect(drillProblems(s, [hole({ member: "ZZ" })])[0]).toMatchObject({ severity: "warning" });
    expect(drillProblems(null, [hole({ diameter: length("900") })])[0]?.message).toMatch(/outside 1 to 100/);
  });
  it("bevels by wall (common practice, no source), and strips coating always", () => {
    expect(bevelFor(3)).toMatch(/square/);
    expect(bevelFor(5)).toMatch(/30°/);
    expect(bevelFor(8)).toMatch(/37°/);
    for (const p of preparations(of(started("rectangle")), "paint"))
      expect(p.steps.join(" ")).toMatch(/Strip zinc.*never a chlorinated/);
    // What two sections need alike is said once.
    const rail = [
      [0, 0, 0],
      [900, 0, 0],
    ] as [Vec3, Vec3];
    const post = (x: number, section: string): [Vec3, Vec3, string] => [[x, 0, 0], [x, 500, 0], section];
    const sections = [squareTube(60, 3), squareTube(40, 3, "S2"), squareTube(40, 5, "S3")];
    const frame = drawn({ RAIL: rail, P: post(200, "S2"), Q: post(600, "S3") }, sections);
    expect(preparations(of(frame), "paint").map((p) => p.sections)).toEqual([["S1", "S2"], ["S3"]]);
  });
});
