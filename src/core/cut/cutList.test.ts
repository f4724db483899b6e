import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, roundTube, squareTube, started } from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { type DrawnFrame, mirrorMembers, resolveStructure, type Structure } from "../frame";
import { length } from "../units";
import { copeTemplate, sheetStartsMm } from "./cope";
import { cutList } from "./cutList";
import { drillList, drillProblems, pilotMm } from "./drill";
import type { Drill } from "./drillSchema";
import { closedVolumes, holeAdvice, openMembers } from "./holes";

import { bevelFor, preparations } from "./prepare";

const of = (frame: DrawnFrame): Structure => resolveStructure(frame).structure;
const line = (frame: DrawnFrame, member: string) => {
  const found = cutList(of(frame)).find((p) => p.members.includes(member));
  if (!found) throw new Error(`no piece ${member}`);
  return found;
};

describe("the cut list of any frame", () => {
  it("puts on one line what can be laid over each other, and every member on just one", () => {
    for (const name of [
      "ladder",
      "gate leaf",
      "table base",
      "stand",
      "rack",
      "two frames stacked",
      "rails with a kink",
    ]) {
      const frame = started(name);
      const cut = cutList(of(frame));
      const names = cut.flatMap((p) => p.members);
      expect([...names].sort(), name).toEqual(frame.members.map((m) => m.id).sort());
      for (const p of cut) expect(p.quantity).toBe(p.members.length);
      expect(cut.reduce((s, p) => s + p.quantity * p.massKg, 0)).toBeCloseTo(of(frame).massKg, 6);
    }
    expect(cutList(of(started("table base"))).map((p) => p.members.join())).toEqual([
      "AB,CD",
      "BC,DA",
      "L1,L2,L3,L4",
      "T1,T2",
      "T3",
    ]);
  });
  it("says parallel and opposed, the angle from square, and which edge is long", () => {
    expect(line(started("rectangle"), "AB")).toMatchObject({
      cuts: "opposed",
      sawDeg: [45, 45],
      ends: "both ends 45°, long edge outside, opposed",
    });
    expect(line(started("ladder"), "M1")).toMatchObject({ cuts: "square", sawDeg: [0, 0] });
    // A member across two rails at an angle has two cuts that lie parallel.
    const slanted = drawn({
      R1: [
        [0, 0, 20],
        [2000, 0, 20],
      ],
      R2: [
        [0, 800, 20],
        [2000, 800, 20],
      ],
      X1: [
        [600, 0, 20],
        [1000, 800, 20],
      ],
    });
    const deg = (Math.atan2(400, 800) * 180) / Math.PI;
    expect(line(slanted, "X1")).toMatchObject({ cuts: "parallel" });
    expect(Math.abs(line(slanted, "X1").sawDeg[0])).toBeCloseTo(deg, 9);
    // Long point and short point, closed form.
    expect(line(slanted, "X1").longPointMm).toBeCloseTo(
      760 / Math.cos((deg * Math.PI) / 180) + 40 * Math.tan((deg * Math.PI) / 180),
      6,
    );
  });
  it("a kink of unequal tubes may want its long point on the inner edge: the angle is negative then", () => {
    const sections = [squareTube(100, 4, "S1"), squareTube(20, 2, "S2")];
    (sections[1] as { height: unknown }).height = length("100");
    // Far to the right stands a post, so that the frame's middle lies between the two members.
    const frame = drawn({ P: [[0, 0, 50], [900, 0, 50], "S1"], Q: [[0, 0, 50], [-500, 600, 50], "S2"] }, sections);
    const q = line(frame, "Q");
    const p = line(frame, "P");
    expect(Math.sign(q.sawDeg.find((d) => d !== 0) ?? 0) * Math.sign(p.sawDeg.find((d) => d !== 0) ?? 0)).toBe(-1);
  });
  it("a compound cut is told with its tilt, and its mirror image is another piece", () => {
    const legs = drawn({
      R1: [
        [0, 0, 400],
        [800, 0, 400],
      ],
      L1: [
        [100, 0, 400],
        [0, -150, 0],
      ],
    });
    const frame = mirrorMembers(legs, ["L1"], "x", 400, false, "mm").frame;
    const cut = cutList(of(frame)).filter((p) => p.members.some((m) => m.startsWith("L")));
    expect(cut).toHaveLength(2);
    expect(cut[0]?.handed?.mirrorOf).toEqual(cut[1]?.members);
    expect(cut[0]?.ends).toMatch(/tilted|side/);
    // Two upright legs are alike either way.
    expect(line(started("table base"), "L1").handed).toBeNull();
  });
  it("allowance is added to every length, and its band is kept", () => {
    const cut = cutList(of(started("ladder")), { M1: { value: 1, low: 0.5, high: 2 } });
    const rungs = cut.find((p) => p.members.includes("M1"));
    // Four rungs on one line take the mean of what they are to be given.
    expect(rungs?.allowanceMm).toEqual({ value: 0.25, low: 0.125, high: 0.5 });
    expect(rungs?.cutLongPointMm).toBeCloseTo((rungs?.longPointMm ?? 0) + 0.25, 9);
  });
});

/**
 * Depth of a cope, closed form for a round branch: distance from the through member's axis at a place round the branch.
 * @param rMm radius of the edge that touches. @param radiusMm of the through member. @param angleDeg between the axes.
 * @param offsetMm of the axes from each other. @param phi round the branch, from the plane of both axes, rad.
 * @returns along the branch from where its axis passes the through member's, mm; NaN where the branch misses it.
 * Source: exact intersection of two cylinders.
 */
function copeDepth(rMm: number, radiusMm: number, angleDeg: number, offsetMm: number, phi: number): number {
  const a = (angleDeg * Math.PI) / 180;
  return (
    (Math.sqrt(radiusMm ** 2 - (rMm * Math.sin(phi) + offsetMm) ** 2) + rMm * Math.cos(phi) * Math.cos(a)) / Math.sin(a)
  );
}

describe("copes", () => {
  it("every point of the curve lies on both cylinders, whatever radii, angle and offset", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 40, noNaN: true }),
        fc.double({ min: 0, max: 30, noNaN: true }),
        fc.double({ min: 30, max: 150, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }),
        (r, more, deg, off, phi) => {
          const R = r + more + 0.5;
          const e = off * (R - r - 0.25);
          const t = copeDepth(r, R, deg, e, phi);
          const a = (deg * Math.PI) / 180;
          // Branch along (cos a, 0, sin a), through member along x: a point of the branch's outside, then its distance from x.
          const along = [Math.cos(a), 0, Math.sin(a)];
          const u = [Math.sin(a), 0, -Math.cos(a)];
          const p = [0, 1, 2].map(
            (k) =>
              t * (along[k] as number) + r * Math.cos(phi) * (u[k] as number) + (k === 1 ? r * Math.sin(phi) + e : 0),
          );
          expect(Math.hypot(p[1] as number, p[2] as number)).toBeCloseTo(R, 6);
        },
      ),
    );
  });
  it("the template of a frame is that curve: of equal tubes at right angles it is as deep as the radius", () => {
    const frame = drawn(
      {
        R1: [
          [0, 0, 0],
          [1000, 0, 0],
        ],
        M1: [
          [500, 0, 0],
          [500, 600, 0],
        ],
      },
      [roundTube(60, 3)],
    );
    const m = of(frame).members[1];
    const template = m && copeTemplate(m, "from", "outer");
    expect(template?.aroundMm).toBeCloseTo(Math.PI * 60, 6);
    expect(template?.deepMm).toBeCloseTo(30, 6);
    const inner = m && copeTemplate(m, "from", "inner");
    expect(inner?.deepMm).toBeCloseTo(30 - Math.sqrt(900 - 27 * 27), 6);
    for (const p of template?.points ?? []) {
      const phi = p.aroundMm / 30;
      expect(p.inMm).toBeCloseTo(copeDepth(30, 30, 90, 0, phi), 5);
    }
    expect(line(frame, "M1").ends).toMatch(/cope to a round of 60 mm at 90°/);
  });
  it("is printed on as many sheets as it takes, each sharing a strip with the one before", () => {
    expect(sheetStartsMm(180, 186)).toEqual([0]);
    for (const width of [186, 187, 300, 520, 900]) {
      const starts = sheetStartsMm(width, 186);
      expect((starts.at(-1) ?? 0) + 186).toBeGreaterThanOrEqual(width);
      for (const [i, s] of starts.slice(1).entries()) expect((starts[i] ?? 0) + 186 - s).toBe(10);
      expect(starts).toHaveLength(width <= 186 ? 1 : Math.ceil((width - 10) / 176));
    }
  });
  it("a square branch on a round is notched: as deep as the round falls away under half its width", () => {
    const frame = drawn({ R1: [[0, 0, 0], [1000, 0, 0], "S1"], M1: [[500, 0, 0], [500, 600, 0], "S2"] }, [
      roundTube(80, 3, "S1"),
      squareTube(40, 3, "S2"),
    ]);
    const m = of(frame).members[1];
    const template = m && copeTemplate(m, "from", "outer");
    expect(template?.deepMm).toBeCloseTo(40 - Math.sqrt(1600 - 400), 6);
    expect(template?.aroundMm).toBeCloseTo(160, 9);
    expect(line(frame, "M1").ends).toMatch(/notch to a round/);
  });
});

describe("closed volumes of any frame", () => {
  it("legs with an open foot breathe; a cap closes them, and then they want a vent", () => {
    const table = started("table base");
    expect(openMembers(of(table))).toEqual(["L1", "L2", "L3", "L4"]);
    const at = { x: length("20"), y: length("20"), z: length("-1.5") };
    const size = { x: length("40"), y: length("40"), z: length("3") };
    const cap = {
      id: "P1",
      kind: "cap" as const,
      at,
      size,
      triangular: false,
      on: "L1",
      material: "mild steel" as const,
      holes: [],
    };
    const capped = of({ ...table, parts: [cap] });
    expect(openMembers(capped)).toEqual(["L2", "L3", "L4"]);
    expect(closedVolumes(capped).map((v) => v.members.join())).toContain("L1");
    for (const a of holeAdvice(capped, "zinc dip")) {
      expect(a.count).toBeGreaterThanOrEqual(2);
      expect(a.places).toHaveLength(a.count);
      expect(a.places.every((p) => p.fromFirstEndMm > 0)).toBe(true);
    }
  });
  it("solid bars and angles trap nothing", () => {
    const frame = drawn(
      {
        A1: [
          [0, 0, 0],
          [800, 0, 0],
        ],
      },
      [{ ...squareTube(40, 4), shape: "angle" }],
    );
    expect(closedVolumes(of(frame))).toEqual([]);
    expect(openMembers(of(frame))).toEqual([]);
  });
});

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
  });
});

describe("allowances of a rectangle", () => {
  const loss = (value: number) => ({ value, low: value / 2, high: 2 * value });
  it("are stated apart and added once", () => {
    const frame = rectangle({
      cross: [
        { id: "M1", at: length("300") },
        { id: "M2", at: length("700") },
      ],
    });
    const [ab, bc, m] = [loss(0.6), loss(0.4), loss(0.4)];
    const [long, short, bars] = cutList(built(frame), { AB: ab, CD: ab, BC: bc, DA: bc, M1: m, M2: m });
    expect(long).toMatchObject({ members: ["AB", "CD"], quantity: 2, longPointMm: 1000, cuts: "opposed" });
    expect(long?.shortPointMm).toBeCloseTo(920, 9);
    expect(long?.sawDeg[0]).toBeCloseTo(45, 9);
    expect(long?.cutLongPointMm).toBeCloseTo(1000.6, 9);
    expect(long?.cutShortPointMm).toBeCloseTo(920.6, 9);
    expect(short?.cutLongPointMm).toBeCloseTo(600.4, 9);
    expect(bars).toMatchObject({ quantity: 2, longPointMm: 520, sawDeg: [0, 0], cuts: "square" });
    expect(bars?.cutLongPointMm).toBeCloseTo(520.4, 9);
  });
  it("cuts the four sides of a square alike", () => {
    const list = cutList(built(rectangle({ width: length("1000") })));
    expect(list).toHaveLength(1);
    expect(list[0]).toMatchObject({ quantity: 4 });
  });
});
