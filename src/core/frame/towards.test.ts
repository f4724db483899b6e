import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { length } from "../units";
import type { DrawnFrame } from "./drawnSchema";
import { emptyFrame, member } from "./drawnStart";
import { centreOn, copiesWithin, copyMembers, moveEnd, setSection } from "./editing";
import { JOINT_REACH_MM, nearMisses } from "./nearMisses";
import { resolveStructure } from "./resolveStructure";
import { structureProblems } from "./structureProblems";
import { byAngle, byJog, turnedBy, untilMember } from "./towards";

const S1 = {
  id: "S1",
  shape: "tube" as const,
  profile: null,
  width: length("40"),
  height: length("40"),
  wall: length("3"),
  material: "mild steel" as const,
};
const frameOf = (...members: DrawnFrame["members"]): DrawnFrame => ({ ...emptyFrame(S1), members });

describe("drawing by angle and length, by a jog, up to a face", () => {
  it("turns anticlockwise in plan and keeps the length", () => {
    expect(byAngle([10, 0, 5], [1, 0, 0], 90, 100)).toEqual([10, 100, 5].map((v) => expect.closeTo(v, 9)));
    fc.assert(
      fc.property(fc.double({ min: -180, max: 180, noNaN: true }), fc.integer({ min: 1, max: 3000 }), (a, l) => {
        const p = byAngle([0, 0, 0], [0, 1, 0], a, l);
        expect(Math.hypot(...p)).toBeCloseTo(l, 6);
        expect(turnedBy([0, 0, 1], a)[0]).toBeCloseTo(Math.cos((a * Math.PI) / 180), 9);
      }),
    );
  });
  it("jogs in toward the middle, whichever side that is", () => {
    const jog = { overMm: 420, inMm: 150, upMm: 140 };
    expect(byJog([0, 0, 0], [1, 0, 0], jog, [0, 500, 0])).toEqual([420, 150, 140]);
    expect(byJog([0, 1000, 0], [1, 0, 0], jog, [0, 500, 0])).toEqual([420, 850, 140].map((v) => expect.closeTo(v, 9)));
  });
  it("ends on another member wherever that is, and its end is cut to the face", () => {
    const rail = member("M1", [0, 1000, 20], [2000, 1000, 20], "S1", "mm");
    const frame = frameOf(rail);
    const placed = resolveStructure(frame).placed.get("M1");
    if (!placed) throw new Error("placed expected");
    fc.assert(
      fc.property(fc.integer({ min: 30, max: 150 }), (angle) => {
        const end = untilMember([1000, 0, 20], turnedBy([1, 0, 0], angle), placed);
        if (!end.ok) {
          expect(end.message).toMatch(/beyond its end/);
          return;
        }
        expect(end.value[1]).toBeCloseTo(1000, 6);
        const joined = resolveStructure(frameOf(rail, member("M2", [1000, 0, 20], end.value, "S1", "mm")));
        expect(joined.structure.joints.map((j) => [j.a, j.b])).toEqual([["M1", "M2"]]);
        // The long point lies on the near face.
        const top = Math.max(...joined.structure.members.flatMap((m) => (m.id === "M2" ? m.ends.to.at[1] : [])));
        expect(top).toBeCloseTo(980, 3);
      }),
      { numRuns: 25 },
    );
    expect(untilMember([1000, 0, 20], [1, 0, 0], placed)).toMatchObject({
      ok: false,
      message: expect.stringMatching(/along M1/),
    });
    expect(untilMember([1000, 0, 20], [0, -1, 0], placed)).toMatchObject({
      ok: false,
      message: expect.stringMatching(/behind/),
    });
  });
});

describe("an end that stands a little short", () => {
  const short = (gap: number) =>
    frameOf(
      member("M1", [0, 0, 0], [1000, 0, 0], "S1", "mm"),
      member("M2", [400, 20 + gap, 0], [400, 600, 0], "S1", "mm"),
    );
  it("is a joint within the stated reach, a near miss beyond it, and nothing far away", () => {
    for (const gap of [0, 1, JOINT_REACH_MM - 0.1]) {
      const { structure, placed } = resolveStructure(short(gap));
      expect(structure.joints, String(gap)).toHaveLength(1);
      expect(nearMisses(placed, structure.joints)).toEqual([]);
    }
    for (const gap of [4, 10, 24]) {
      const found = resolveStructure(short(gap));
      const [miss] = nearMisses(found.placed, found.structure.joints);
      expect(miss).toMatchObject({ member: "M2", end: "from", to: "M1", gapMm: expect.closeTo(gap, 6) });
      const said = structureProblems(short(gap), found).map((p) => p.message);
      expect(said.join()).toMatch(/M2 ends \d+ mm short of M1: joints are found up to 3 mm\. Bring it to M1/);
    }
    const far = resolveStructure(short(60));
    expect(nearMisses(far.placed, far.structure.joints)).toEqual([]);
  });
  it("brought to the other is joined to it, whatever the angle between them", () => {
    fc.assert(
      fc.property(fc.integer({ min: 25, max: 155 }), fc.integer({ min: 5, max: 20 }), (angle, gap) => {
        const u = turnedBy([1, 0, 0], angle);
        const s = (20 + gap) / u[1];
        const at = (k: number): [number, number, number] => [500 + k * u[0], k * u[1], 0];
        const frame = frameOf(
          member("M1", [0, 0, 0], [1000, 0, 0], "S1", "mm"),
          member("M2", at(s), at(s + 500), "S1", "mm"),
        );
        const found = resolveStructure(frame);
        const [miss] = nearMisses(found.placed, found.structure.joints);
        // Slanted, its edge may reach the face before its middle does: then it is joined already.
        if (!miss) {
          expect(found.structure.joints).toHaveLength(1);
          return;
        }
        const mended = moveEnd(frame, miss.member, miss.end, miss.at, "mm");
        expect(resolveStructure(mended).structure.joints).toHaveLength(1);
      }),
    );
  });
});

describe("several at once", () => {
  it("copies as many as fit, and stand in the middle of their rail", () => {
    expect(copiesWithin([210, 0, 0], 1300)).toBe(6);
    expect(copiesWithin([0, 0, 0], 1300)).toBe(0);
    const frame = frameOf(
      member("M1", [0, 0, 0], [1600, 0, 0], "S1", "mm"),
      member("M2", [100, 20, 0], [100, 300, 0], "S1", "mm"),
    );
    const row = copyMembers(frame, ["M2"], [210, 0, 0], 6, "mm");
    const done = centreOn(row.frame, ["M2", ...row.ids], "M1", "mm");
    if (!done.ok) throw new Error(done.message);
    const at = done.value.members.slice(1).map((m) => m.from.x.mm);
    expect(at).toEqual([170, 380, 590, 800, 1010, 1220, 1430].map((v) => expect.closeTo(v, 6)));
  });
  it("take another section together", () => {
    const frame = {
      ...frameOf(
        member("M1", [0, 0, 0], [900, 0, 0], "S1", "mm"),
        member("M2", [0, 500, 0], [900, 500, 0], "S1", "mm"),
      ),
      sections: [S1, { ...S1, id: "S2", width: length("60") }],
    };
    const done = setSection(frame, ["M1", "M2"], "S2", "mm");
    expect(done.members.map((m) => m.section)).toEqual(["S2", "S2"]);
    expect(resolveStructure(done).structure.members[0]?.properties.widthMm).toBe(60);
  });
});
