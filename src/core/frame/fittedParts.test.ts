import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { length } from "../units";
import type { DrawnFrame, DrawnSection } from "./drawnSchema";
import { emptyFrame, member } from "./drawnStart";
import { copyMembers, deleteMembers } from "./editing";
import { addPart, capOpenEnds, copyPart, openEnds } from "./fittedParts";
import { mirrorMembers } from "./mirroring";
import { resolveStructure } from "./resolveStructure";

const S1: DrawnSection = {
  id: "S1",
  shape: "tube",
  profile: null,
  width: length("40"),
  height: length("60"),
  wall: length("3"),
  material: "mild steel",
};
const one = (from: [number, number, number], to: [number, number, number]): DrawnFrame => ({
  ...emptyFrame(S1),
  members: [member("M1", from, to, "S1", "mm")],
});
const structureOf = (f: DrawnFrame) => resolveStructure(f).structure;
const partOf = (f: DrawnFrame | null, i = 0) => {
  if (!f) throw new Error("a part expected");
  const part = structureOf(f).parts[i];
  if (!part) throw new Error("a part expected");
  return part;
};

describe("parts that fit what is pointed at", () => {
  it("caps cover the end of their tube, whichever way it runs, and close it", () => {
    const way = fc.record({
      x: fc.integer({ min: -800, max: 800 }),
      y: fc.integer({ min: -800, max: 800 }),
      z: fc.integer({ min: -800, max: 800 }),
    });
    fc.assert(
      fc.property(way, fc.constantFrom("from" as const, "to" as const), ({ x, y, z }, end) => {
        fc.pre(Math.hypot(x, y, z) > 100);
        const frame = one([0, 0, 0], [x, y, z]);
        const capped = addPart(frame, structureOf(frame), "cap", { member: "M1", end }, "mm");
        const part = partOf(capped);
        expect(part.massKg).toBeCloseTo(40 * 60 * 3 * 7.85e-6, 6);
        // Its body touches the end all over and lies beyond it.
        const [m] = structureOf(frame).members;
        if (!m) throw new Error("a member expected");
        const s = part.corners.map((p) =>
          p.reduce((sum, v, i) => sum + (v - (m.from[i] as number)) * (m.axes[0][i] as number), 0),
        );
        const at = end === "to" ? m.longMm : 0;
        expect(Math.min(...s.map((v) => Math.abs(v - at)))).toBeLessThan(0.02);
        expect(Math.max(...s.map((v) => Math.abs(v - at)))).toBeCloseTo(3, 1);
        expect(openEnds(structureOf(capped as DrawnFrame)).map((e) => e.end)).toEqual([end === "to" ? "from" : "to"]);
      }),
      { numRuns: 40 },
    );
  });
  it("feet go under a leg, or under the lower face of a rail near its end", () => {
    const leg = one([0, 0, 0], [0, 0, 500]);
    const under = partOf(addPart(leg, structureOf(leg), "foot", { member: "M1", end: "from" }, "mm"));
    expect([under.low[2], under.high[2]]).toEqual([expect.closeTo(-6, 6), expect.closeTo(0, 6)]);
    expect(under.high[0] - under.low[0]).toBeGreaterThan(40);
    const rail = one([0, 0, 0], [900, 0, 0]);
    const foot = partOf(addPart(rail, structureOf(rail), "foot", { member: "M1", end: "to" }, "mm"));
    expect(foot.high[2]).toBeCloseTo(-30, 6);
    expect(foot.high[0]).toBeCloseTo(900, 6);
    expect(foot.high[1] - foot.low[1]).toBeCloseTo(40, 6);
  });
  it("a plate is as wide as the face that it lies on", () => {
    const rail = one([0, 0, 0], [0, 700, 0]);
    const plate = partOf(addPart(rail, structureOf(rail), "plate", { member: "M1", end: "middle" }, "mm"));
    expect([plate.low, plate.high]).toEqual(
      [
        [-20, 300, 30],
        [20, 400, 35],
      ].map((p) => p.map((v) => expect.closeTo(v, 6))),
    );
  });
  it("a gusset sits in the inside of its corner, whichever corner that is", () => {
    for (const [sx, sy] of [
      [1, 1],
      [-1, 1],
      [1, -1],
      [-1, -1],
    ] as const) {
      const frame: DrawnFrame = {
        ...emptyFrame(S1),
        members: [
          member("M1", [0, 0, 0], [sx * 600, 0, 0], "S1", "mm"),
          member("M2", [0, 0, 0], [0, sy * 600, 0], "S1", "mm"),
        ],
      };
      const s = structureOf(frame);
      const gusset = partOf(addPart(frame, s, "gusset", { joint: s.joints[0]?.id as string }, "mm"));
      const own = gusset.corners.map((p) => [p[0] * sx, p[1] * sy]);
      // Touches both inner faces, 20 off each line, and lies inside.
      expect(Math.min(...own.map((p) => p[0] as number))).toBeCloseTo(20, 6);
      expect(Math.min(...own.map((p) => p[1] as number))).toBeCloseTo(20, 6);
      expect(gusset.massKg).toBeCloseTo((80 * 80 * 4 * 7.85e-6) / 2, 6);
      // Half of it is cut off on the far side.
      expect(own.some((p) => (p[0] as number) > 99 && (p[1] as number) > 99)).toBe(false);
    }
  });
  it("one cap on each open end, and none on an end that is closed", () => {
    const frame: DrawnFrame = {
      ...emptyFrame(S1),
      members: [member("M1", [0, 0, 0], [600, 0, 0], "S1", "mm"), member("M2", [300, 0, 0], [300, 400, 0], "S1", "mm")],
    };
    const done = capOpenEnds(frame, structureOf(frame), "mm");
    expect(done.parts).toHaveLength(3);
    expect(openEnds(structureOf(done))).toEqual([]);
    expect(capOpenEnds(done, structureOf(done), "mm")).toEqual(done);
    // Taller than the face that it lands on, it stays open above: no cap goes there.
    const tall = { ...S1, id: "S2", height: length("90") };
    const stands = {
      ...frame,
      sections: [S1, tall],
      members: frame.members.map((m) => (m.id === "M2" ? { ...m, section: "S2" } : m)),
    };
    expect(structureOf(stands).members.find((m) => m.id === "M2")?.ends.from.hollow).toBe("open");
    expect(
      openEnds(structureOf(stands))
        .filter((e) => e.member === "M2")
        .map((e) => e.end),
    ).toEqual(["to"]);
  });
  it("go along when their member is copied or mirrored, and go with it when it is taken out", () => {
    const rail = one([100, 0, 0], [500, 200, 0]);
    const capped = addPart(rail, structureOf(rail), "cap", { member: "M1", end: "to" }, "mm") as DrawnFrame;
    const copied = copyMembers(capped, ["M1"], [0, 300, 0], 1, "mm").frame;
    expect(partOf(copied, 1).centreOfMass[1] - partOf(copied, 0).centreOfMass[1]).toBeCloseTo(300, 1);
    const image = mirrorMembers(capped, ["M1"], "x", 0, false, "mm").frame;
    expect(partOf(image, 1).centreOfMass[0]).toBeCloseTo(-partOf(image, 0).centreOfMass[0], 1);
    expect(partOf(image, 1).low[0]).toBeCloseTo(-partOf(image, 0).high[0], 1);
    expect(deleteMembers(capped, ["M1"], "mm").parts).toEqual([]);
    const again = copyPart(capped, structureOf(capped), "P1", { member: "M1", end: "from" }, "mm") as DrawnFrame;
    expect(again.parts.map((p) => p.id)).toEqual(["P1", "P2"]);
  });
});
