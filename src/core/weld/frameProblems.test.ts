import { describe, expect, it } from "vitest";
import { good, points, section } from "../../../tests/support/corner";
import { FREE_FRAMES } from "../../../tests/support/drawnFrames";
import { resolveStructure } from "../frame";
import { fromStructure, type MechanicalFrame } from "../mechanics";
import { frameProblems } from "./frameProblems";
import { weldedModel } from "./weldedModel";

const joint = (i: number, change: object): Partial<MechanicalFrame> => ({
  joints: good.joints.map((j, k) => (k === i ? { ...j, ...change } : j)),
});

const wrong = (change: Partial<MechanicalFrame>) => frameProblems({ ...good, ...change });
const first = (change: Partial<MechanicalFrame>) => wrong(change)[0];

describe("what keeps a frame from being simulated is named at its place", () => {
  it("a good frame has nothing", () => expect(frameProblems(good)).toEqual([]));
  it("no members, twice the same name, one end only, a point that is not there", () => {
    expect(first({ members: [] })?.path).toBe("members");
    expect(first({ members: [...good.members, { id: "LA", section, points: ["A", "B"] }] })?.message).toMatch(
      /Two members are called LA/,
    );
    expect(first({ members: [{ id: "X", section, points: ["P"] }], joints: [] })).toMatchObject({
      path: "members/X",
      message: expect.stringMatching(/one end only/),
    });
    expect(first({ members: [{ id: "X", section, points: ["P", "Q"] }], joints: [] })?.message).toMatch(/point Q/);
  });
  it("a member without length, one that comes back, one that bends, points out of order, a place that is no number", () => {
    expect(first(points({ B: [0, 0, 0] }))).toMatchObject({
      path: "members/LB",
      message: expect.stringMatching(/no length between P and B/),
    });
    expect(first(points({ M: [300, 20, 0] }))?.message).toMatch(/M does not lie on LA/);
    expect(first(points({ M: [700, 0, 0] }))?.message).toMatch(/not in order/);
    expect(first(points({ A: [Number.NaN, 0, 0] }))).toMatchObject({ path: "points/A" });
  });
  it("a section or material with a zero in it", () => {
    const flat = good.members.map((m) => ({ ...m, section: { ...section, wallMm: 0 } }));
    expect(first({ members: flat })?.message).toMatch(/zero or missing/);
    expect(first({ material: { ...good.material, yieldMPa: 0 } })?.path).toBe("material");
  });
  it("joints of members that are not there, that do not reach, that run past, that are no such joint", () => {
    expect(first(joint(0, { b: "ZZ" }))).toMatchObject({ path: "joints/J", message: expect.stringMatching(/ZZ/) });
    expect(first(joint(0, { b: "LA" }))?.message).toMatch(/to itself/);
    expect(first(joint(0, { point: "T" }))?.message).toMatch(/LA does not reach J/);
    expect(first(joint(1, { kind: "mitre" }))?.message).toMatch(/LA runs past K/);
    expect(first(joint(1, { a: "TT", b: "LA" }))?.message).toMatch(/LA runs past K/);
    expect(first(joint(0, { kind: "butt" }))?.message).toMatch(/meet at an angle/);
    expect(first({ ...points({ B: [-500, 0, 0] }) })?.message).toMatch(/straight: make it a butt/);
    expect(first({ ...points({ B: [500, 0, 0] }) })?.message).toMatch(/lie on each other/);
    expect(first({ joints: [...good.joints, good.joints[0] as (typeof good.joints)[number]] })?.message).toMatch(
      /Two joints/,
    );
  });
  it("a branch along its chord, one that ends inside it, one that passes by, a lap at one height", () => {
    expect(first(points({ T: [900, 30, 0] }))?.message).toMatch(/under 10°/);
    expect(first(points({ T: [300, 20, 0] }))?.message).toMatch(/ends inside LA/);
    expect(
      first({
        ...points({ N: [300, 0, 90], T: [300, 450, 90] }),
        ...joint(1, { pointB: "N" }),
        members: good.members.map((m) => (m.id === "TT" ? { ...m, points: ["N", "T"] } : m)),
      })?.message,
    ).toMatch(/do not touch/);
    expect(first(joint(1, { kind: "lap" }))?.message).toMatch(/same height/);
  });
  it("two members that cross without a joint, with the place", () => {
    const [found] = wrong({
      ...points({ C: [150, 200, 0], D: [500, 200, 0] }),
      members: [...good.members, { id: "XX", section, points: ["C", "D"] }],
    });
    expect(found).toMatchObject({
      path: "members/XX",
      message: expect.stringMatching(/TT and XX cross at x 300, y 200/),
    });
  });
  it("none where two end on a third one at one place", () => {
    const L = FREE_FRAMES["an L"];
    expect(frameProblems(fromStructure(resolveStructure(L).structure).frame)).toEqual([]);
    // Without its joint to the third, it is in the way of the other.
    const { frame } = fromStructure(resolveStructure(L).structure);
    const joints = frame.joints.filter((j) => !(j.a === "S4" && j.b === "T1"));
    expect(frameProblems({ ...frame, joints }).map((p) => p.message)).toContainEqual(
      expect.stringMatching(/S[34] and T1 cross at/),
    );
  });
  it("a part that no joint holds", () => {
    expect(first({ joints: [good.joints[0] as (typeof good.joints)[number]] })?.message).toMatch(
      /^TT is not joined to the rest/,
    );
    const apart = wrong({
      ...points({ U: [2000, 0, 0], V: [2500, 0, 0] }),
      members: [...good.members, { id: "UV", section, points: ["U", "V"] }],
    });
    expect(apart).toEqual([
      { path: "members/UV", message: expect.stringMatching(/UV is not joined to the rest/), severity: "error" },
    ]);
  });
  it("a model is refused with the same words", () => {
    expect(() => weldedModel({ ...good, members: [] })).toThrow(/no member yet/);
  });
});
