import { describe, expect, it } from "vitest";
import { cutList } from "../cut";
import { newPlan } from "../job";
import { length } from "../units";
import { rectangleProblems } from "./rectangleProblems";
import type { Rectangle } from "./rectangleSchema";
import { resolveFrame } from "./resolve";
import { PROFILES } from "./sections";

const base = newPlan("t", "mm").frame;
const frame = (change: Partial<Rectangle> = {}): Rectangle => ({ ...base, ...change });
const cross = (...at: string[]) => at.map((a, i) => ({ id: `M${i + 1}`, at: length(a) }));

describe("a rectangle", () => {
  it("puts corners, sides and cross members where they belong", () => {
    const f = resolveFrame(frame({ cross: cross("300", "700") }));
    expect(f.corners.C).toEqual({ x: 1000, y: 600 });
    expect(f.members.map((m) => m.name)).toEqual(["AB", "BC", "CD", "DA", "M1", "M2"]);
    expect(f.members[4]).toMatchObject({
      centreMm: 520,
      axis: [
        { x: 300, y: 40 },
        { x: 300, y: 560 },
      ],
    });
    expect(f.joints.map((j) => j.name)).toEqual(["A", "B", "C", "D", "M1/AB", "M1/CD", "M2/AB", "M2/CD"]);
    expect(f.joints[0]?.members).toEqual(["DA", "AB"]);
    expect(f.centreOfMass.x).toBeCloseTo(500, 9);
    // 2 (960 + 560) + 2 x 520 mm of 40x40x3 at 3.30 kg/m
    expect(f.massKg).toBeCloseTo(((2 * 960 + 2 * 560 + 2 * 520) / 1000) * 3.3, 1);
  });
  it("lets cross members run the other way", () => {
    const f = resolveFrame(frame({ crossRuns: "along", cross: cross("300") }));
    expect(f.members[4]).toMatchObject({
      centreMm: 920,
      axis: [
        { x: 40, y: 300 },
        { x: 960, y: 300 },
      ],
    });
    expect(f.joints[4]?.members).toEqual(["M1", "DA"]);
  });
  it("has a mass centre that follows its cross members", () => {
    expect(resolveFrame(frame({ cross: cross("200") })).centreOfMass.x).toBeLessThan(500);
  });
});

describe("what cannot be built", () => {
  it.each([
    [{ length: length("0") }, "frame.length", /more than zero/],
    [{ length: length("-5") }, "frame.length", /more than zero/],
    [{ length: length("40 m") }, "frame.length", /over 20 m/],
    [{ width: length("5 mm") }, "frame.width", /under 60 mm/],
    [{ section: { ...base.section, wall: length("21") } }, "frame.section.wall", /fills the tube/],
    [{ section: { ...base.section, wall: length("0") } }, "frame.section.wall", /more than zero/],
    [{ section: { ...base.section, face: length("2 m") } }, "frame.section.face", /outside 8 to 400/],
    [{ width: length("75") }, "frame.width", /no opening/],
    [{ cross: cross("10") }, "frame.cross.0.at", /run into a side/],
    [{ cross: cross("300", "320") }, "frame.cross.1.at", /overlaps M1/],
    [{ cross: [...cross("300"), { id: "M1", at: length("500") }] }, "frame.cross.1.id", /there twice/],
  ] as [Partial<Rectangle>, string, RegExp][])("%j", (change, path, why) => {
    expect(rectangleProblems(frame(change))).toContainEqual({
      path,
      message: expect.stringMatching(why),
      severity: "error",
    });
  });
  it("is nothing in any profile of the table", () => {
    for (const p of PROFILES) {
      const section = {
        profile: p.name,
        face: length(String(p.smallMm)),
        depth: length(String(p.largeMm)),
        wall: length(String(p.wallMm)),
      };
      expect(rectangleProblems(frame({ section })), p.name).toEqual([]);
    }
  });
});

describe("the cut list", () => {
  const none = { value: 0, low: 0, high: 0 };
  const loss = (value: number) => ({ value, low: value / 2, high: 2 * value });
  it("states the allowance apart and adds it once", () => {
    const [long, short, bars] = cutList(resolveFrame(frame({ cross: cross("300", "700") })), {
      lengthMm: loss(0.6),
      widthMm: loss(0.4),
    });
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
    const list = cutList(resolveFrame(frame({ width: length("1000") })), { lengthMm: none, widthMm: none });
    expect(list).toHaveLength(1);
    expect(list[0]).toMatchObject({ quantity: 4 });
  });
});
