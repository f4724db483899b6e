import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FREE_FRAMES, inchTube, squareTube, started, stool } from "../../../tests/support/drawnFrames";
import { add3, dot3, norm3, scale3, sub3, type Vec3 } from "../numeric";
import { length } from "../units";
import type { DrawnFrame } from "./drawnSchema";
import { drawnFrameSchema } from "./drawnSchema";
import { capOpenEnds, fitPart } from "./fittedParts";
import { groundFaces } from "./groundFaces";
import { followMirrors } from "./mirrorImage";
import { mirrorMembers } from "./mirroring";
import { bodyPoints, resolveStructure } from "./resolveStructure";
import { STARTERS } from "./starters";
import type { Structure, StructureJoint } from "./structure";
import { structureProblems } from "./structureProblems";
import { takenOut } from "./takenOut";
import { laidFlat, TURN_NAMES, TURNS, type Turn, turnFrame } from "./turning";

const rectangular = { ...squareTube(), width: length("60"), height: length("30") };
const angle = {
  ...squareTube(),
  shape: "angle" as const,
  width: length("50"),
  height: length("50"),
  wall: length("5"),
};
const of = (frame: DrawnFrame): Structure => resolveStructure(frame).structure;
/** With every corner butted: the first of its two members runs through. */
const butted = (frame: DrawnFrame): DrawnFrame => ({
  ...frame,
  joints: of(frame).joints.map(({ a, b }) => ({ between: [a, b], kind: "butt", through: a, faces: [] })),
});

/** With caps, a gusset, a plate of its own, something to clear, and faces to be ground. */
function dressed(frame: DrawnFrame): DrawnFrame {
  const capped = capOpenEnds(frame, of(frame), "mm");
  const joint = of(frame).joints.find((j) => j.kind !== "lap");
  const gusset = joint && fitPart("gusset", of(frame), { joint: joint.id }, "mm");
  const free = {
    id: "P98",
    kind: "plate" as const,
    at: { x: length("100"), y: length("50"), z: length("30") },
    size: { x: length("90"), y: length("60"), z: length("5") },
    triangular: true,
    on: null,
    material: "mild steel" as const,
    holes: [{ x: length("-20"), y: length("10"), diameter: length("9") }],
  };
  return groundFaces(
    {
      ...capped,
      parts: [
        ...capped.parts,
        free,
        ...(gusset ? [{ ...free, ...gusset, id: "P99", kind: "gusset" as const, holes: free.holes }] : []),
      ],
      obstacles: [
        {
          id: "G1",
          name: "drum",
          at: { x: length("10"), y: length("20"), z: length("30") },
          size: { x: length("50"), y: length("60"), z: length("70") },
          least: length("5"),
        },
      ],
    },
    ["top"],
  );
}

const FRAMES: Record<string, DrawnFrame> = {
  ...Object.fromEntries(STARTERS.map((s) => [s.name, started(s.name)])),
  ...FREE_FRAMES,
  "flat ladder": started("ladder", {}, rectangular),
  "angle ring": started("rectangle", {}, angle),
  "angle stand": started("table base", {}, angle),
  "butted ring": butted(started("rectangle")),
};
const frameOf = fc
  .constantFrom(...Object.keys(FRAMES))
  .map((name) => ({ name, frame: dressed(FRAMES[name] as DrawnFrame) }));

const applied = (turn: Turn, v: Vec3): Vec3 => [dot3(turn[0], v), dot3(turn[1], v), dot3(turn[2], v)];
const middleOf = ({ low, high }: Structure): Vec3 => scale3(add3(low, high), 0.5);
/** Whether every point of one body is one of another. */
const sameBody = (a: readonly Vec3[], b: readonly Vec3[]): boolean =>
  a.length === b.length && a.every((p) => b.some((q) => norm3(sub3(p, q)) < 1e-4));

/** Everything of a structure that can be seen, after a turn and a shift that lay corner on corner. */
function expectTurned(before: Structure, after: Structure, turn: Turn): void {
  const corners = [before.low, before.high].map((p) => applied(turn, p));
  const low = [0, 1, 2].map((i) => Math.min(...corners.map((p) => p[i] as number)));
  const shift = sub3(after.low, low as unknown as Vec3);
  const put = (p: Vec3): Vec3 => sub3(applied(turn, p), sub3([0, 0, 0], shift));
  for (const m of before.members) {
    const is = after.members.find((x) => x.id === m.id);
    expect(is && sameBody(bodyPoints(m).map(put), bodyPoints(is)), m.id).toBe(true);
  }
  for (const p of before.parts) {
    const is = after.parts.find((x) => x.id === p.id);
    expect(is && sameBody(p.corners.map(put), is.corners), p.id).toBe(true);
  }
  expect(after.joints.map((j) => [j.id, j.kind, j.a])).toEqual(before.joints.map((j) => [j.id, j.kind, j.a]));
  for (const j of before.joints)
    for (const f of j.faces) {
      const way = applied(turn, f.toward);
      const is = after.joints.find((x) => x.id === j.id)?.faces.find((x) => norm3(sub3(x.toward, way)) < 1e-6);
      expect(is && { care: is.care, bead: is.bead, long: Math.round(is.lengthMm * 1e4) }, `${j.id} ${f.line}`).toEqual({
        care: f.care,
        bead: f.bead,
        long: Math.round(f.lengthMm * 1e4),
      });
    }
}

describe("a frame turned by quarters", () => {
  it("is the same body, joint for joint and face for face, whichever way it is turned", () => {
    fc.assert(
      fc.property(frameOf, fc.constantFrom(...TURN_NAMES), ({ frame }, name) => {
        const turn = TURNS[name];
        const { frame: turned, lines } = turnFrame(frame, turn, "mm");
        expect(drawnFrameSchema.safeParse(turned).error).toBeUndefined();
        const [before, after] = [of(frame), of(turned)];
        expectTurned(before, after, turn);
        for (const j of before.joints)
          for (const f of j.faces) {
            const is = after.joints
              .find((x) => x.id === j.id)
              ?.faces.find((x) => x.line === lines.get(j.id)?.get(f.line));
            expect(is && norm3(sub3(is.toward, applied(turn, f.toward)))).toBeLessThan(1e-6);
          }
        // What is to be cleared stands to the frame as before: by its middle, from the middle of the frame.
        const off = (f: DrawnFrame, s: Structure): Vec3 => {
          const [{ at, size }] = f.obstacles as [DrawnFrame["obstacles"][number]];
          const middle = (["x", "y", "z"] as const).map((a) => at[a].mm + size[a].mm / 2) as unknown as Vec3;
          return sub3(middle, middleOf(s));
        };
        expect(norm3(sub3(off(turned, after), applied(turn, off(frame, before))))).toBeLessThan(0.02);
      }),
      { numRuns: 120 },
    );
  });
  it("is where it was when it is turned on until it stands as before, with nothing forgotten but what lies below", () => {
    fc.assert(
      fc.property(frameOf, fc.constantFrom(...TURN_NAMES), ({ frame }, name) => {
        const times = name === "upside down" ? 2 : 4;
        let now = frame;
        for (let i = 0; i < times; i++) now = turnFrame(now, TURNS[name], "mm").frame;
        expectTurned(of(frame), of(now), [
          [1, 0, 0],
          [0, 1, 0],
          [0, 0, 1],
        ]);
        expect(now.members.map((m) => [m.id, m.section, m.crown])).toEqual(
          frame.members.map((m) => [m.id, m.section, m.crown]),
        );
        const drum = (f: DrawnFrame) => f.obstacles.map((o) => [o.size.x.mm, o.size.y.mm, o.size.z.mm]);
        expect(drum(now)).toEqual(drum(frame));
      }),
      { numRuns: 60 },
    );
  });
  it("keeps images in step: followed again after the turn, they are where it put them", () => {
    const rail = started("rails with a kink", {}, rectangular);
    const half = { ...rail, members: rail.members.filter((m) => !m.id.startsWith("LH")), pairs: [] };
    const linked = mirrorMembers(half, ["RH1", "RH2"], "y", 450, true, "mm").frame;
    for (const name of TURN_NAMES) {
      const { frame } = turnFrame(linked, TURNS[name], "mm");
      expectTurned(of(linked), of(followMirrors(frame, "mm")), TURNS[name]);
      const isLevel = name === "onto its front" || name === "onto its back";
      expect(frame.members.filter((m) => m.mirror !== null).length, name).toBe(isLevel ? 0 : 2);
    }
  });
  it("keeps places round in inches, and lays what stood upright on the bed", () => {
    const stand = started("table base", {}, inchTube, "inch-fraction");
    const { frame } = turnFrame(stand, TURNS["upside down"], "inch-fraction");
    for (const m of frame.members)
      for (const p of [m.from, m.to])
        for (const v of [p.x, p.y, p.z])
          expect(Math.abs(v.mm / 25.4 - Math.round((v.mm / 25.4) * 64) / 64)).toBeLessThan(1e-6);
  });
});

describe("members taken out of a frame", () => {
  const stand = started("table base", { way: "on its feet" });
  it("are the pieces that they are in the whole, joined as they are there, and lie flat when laid down", () => {
    fc.assert(
      fc.property(frameOf, fc.array(fc.boolean(), { minLength: 40, maxLength: 40 }), ({ frame }, which) => {
        const ids = frame.members.filter((_, i) => which[i] || i === 0).map((m) => m.id);
        const whole = of(frame);
        const part = of(takenOut(frame, ids, "mm"));
        expect(part.members.map((m) => m.id)).toEqual(ids);
        const among = whole.joints.filter((j) => ids.includes(j.a) && ids.includes(j.b));
        // One that ran past the other's end to where a third cuts it off ends there: nothing of it lies beyond the other.
        const isCutOff = (j: StructureJoint): boolean =>
          j.kind === "butt" &&
          whole.joints.some(
            (k) =>
              !among.includes(k) &&
              ((k.b === j.a && k.endB === j.endA) || (k.kind === "mitre" && k.a === j.a && k.endA === j.endA)),
          );
        // One that ran past two ends there, of which one is taken, may have gone on to the other.
        const ranPastMore = (j: StructureJoint): boolean =>
          j.kind === "butt" &&
          whole.joints.some((k) => k.kind === "butt" && !among.includes(k) && k.a === j.a && k.endA === j.endA);
        const kindsOf = (list: StructureJoint[], kind: (j: StructureJoint) => string) =>
          list.map((j) => [j.id, among.some((k) => k.id === j.id && ranPastMore(k)) ? "butt or tee" : kind(j)]);
        expect(kindsOf(part.joints, (j) => j.kind)).toEqual(kindsOf(among, (j) => (isCutOff(j) ? "tee" : j.kind)));
        // What is cut square, or to what is among them, is as long as in the whole.
        for (const m of part.members) {
          const was = whole.members.find((x) => x.id === m.id);
          // A mitre's other half, or one of the walls that an end fits in between.
          const isFitted = (j: StructureJoint): boolean =>
            j.b === m.id && whole.joints.some((k) => k !== j && k.b === m.id && k.endB === j.endB);
          const outside = whole.joints.some(
            (j) => [j.a, j.b].includes(m.id) && !among.includes(j) && (j.kind === "mitre" || isFitted(j)),
          );
          const inside = among.some((j) => [j.a, j.b].includes(m.id) && j.kind === "mitre");
          if (was && !outside && !inside) expect(Math.abs(m.centreMm - was.centreMm), m.id).toBeLessThan(0.01);
        }
        const before = of(takenOut(frame, ids, "mm"));
        const flat = of(laidFlat(takenOut(frame, ids, "mm"), "mm"));
        expect(flat.massKg).toBeCloseTo(before.massKg, 6);
        expect(flat.high[2] - flat.low[2]).toBeLessThan(
          Math.max(...[0, 1, 2].map((i) => (before.high[i] as number) - (before.low[i] as number))) + 0.01,
        );
      }),
      { numRuns: 60 },
    );
  });
  it("are as long as they are cut where they run past what is not among them", () => {
    const ring = butted(started("rectangle"));
    const longOf = (frame: DrawnFrame): Record<string, number> =>
      Object.fromEntries(of(frame).members.map((m) => [m.id, Math.round(m.centreMm * 100) / 100]));
    const whole = longOf(ring);
    expect(whole.AB).toBe(1200);
    for (const ids of [["AB"], ["AB", "BC"], ["BC", "CD"], ["AB", "CD", "DA"]])
      expect(longOf(takenOut(ring, ids, "mm"))).toEqual(Object.fromEntries(ids.map((id) => [id, whole[id]])));
    // A post that was drawn a millimetre longer than it is cut at its rails.
    const posts = stool(300, 480);
    expect(longOf(posts).P1).toBe(499);
    expect(longOf(takenOut(posts, ["P1"], "mm"))).toEqual({ P1: 499 });
    expect(longOf(takenOut(posts, ["P1", "R4"], "mm")).P1).toBe(499);
  });
  it("make a flat frame of one side of a stand, that nothing is wrong with", () => {
    const sides = of(stand)
      .members.filter((m) => m.from[1] < 200 && m.to[1] < 200)
      .map((m) => m.id);
    expect(sides.length).toBeGreaterThanOrEqual(3);
    const flat = laidFlat(takenOut(stand, sides, "mm"), "mm");
    const built = of(flat);
    expect(built.high[2] - built.low[2]).toBeLessThan(60);
    expect(structureProblems(flat, resolveStructure(flat), "mm").filter((p) => p.severity === "error")).toEqual([]);
  });
});
