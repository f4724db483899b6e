import { describe, expect, it } from "vitest";
import { drawn, squareTube, started } from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { type DrawnFrame, mirrorMembers, resolveStructure, type Structure } from "../frame";
import { length } from "../units";
import { cutList } from "./cutList";

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
  it("cuts to one stop what is wanted about as long, apart what is not; sides across from each other stay alike", () => {
    const ladder = of(started("ladder", { rungs: 3 }));
    const added = (by: Record<string, number>) =>
      Object.fromEntries(
        ladder.members.map((m) => [m.id, { value: by[m.id] ?? 0, low: by[m.id] ?? 0, high: by[m.id] ?? 0 }]),
      );
    const linesWith = (by: Record<string, number>) =>
      cutList(ladder, added(by)).map((p) => `${p.members.join()} ${p.allowanceMm?.value.toFixed(2)}`);
    expect(linesWith({ M1: 0.3, M2: 0.4, M3: 0.6 })).toEqual(["AB,CD 0.00", "BC,DA 0.00", "M1,M2,M3 0.43"]);
    expect(linesWith({ M1: 2.6, M2: -0.5, M3: 2.4 })).toEqual(["AB,CD 0.00", "BC,DA 0.00", "M1,M3 2.50", "M2 -0.50"]);
    expect(linesWith({ AB: 3, CD: 1 })[0]).toBe("AB,CD 2.00");
  });
  it("says parallel and opposed, the angle from square, and which edge is long", () => {
    expect(line(started("rectangle"), "AB")).toMatchObject({
      cuts: "opposed",
      sawDeg: [45, 45],
      ends: "both ends 45° from square, long edge outside, opposed",
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
    const cut = cutList(of(started("ladder")), { M1: { value: 0.4, low: 0.2, high: 0.8 } });
    const rungs = cut.find((p) => p.members.includes("M1"));
    // Four rungs on one line take the mean of what they are to be given.
    expect(rungs?.allowanceMm).toEqual({ value: 0.1, low: 0.05, high: 0.2 });
    expect(rungs?.cutLongPointMm).toBeCloseTo((rungs?.longPointMm ?? 0) + 0.1, 9);
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
