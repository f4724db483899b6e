import { describe, expect, it } from "vitest";
import { drawn, FREE_FRAMES, onPosts, squareTube, started, twoTubes } from "../../../tests/support/drawnFrames";
import { ladder } from "../../../tests/support/ladder";
import { closedVolumes, type DrawnFrame, resolveStructure, STARTERS, type Structure, tubeBeginsMm } from "../frame";
import { dot3, seeded, sub3 } from "../numeric";
import { length } from "../units";
import { dipHoleMm, holeAdvice, openMembers } from "./holes";

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
  it("are drilled where a tape from the long point finds bare tube: beside what lands there, on any frame", () => {
    const random = seeded(20261202);
    const frames = [
      ...Object.values(FREE_FRAMES),
      ...STARTERS.map(({ name }) => started(name)),
      ...Array.from({ length: 12 }, () => onPosts(300 + 900 * random(), 300 + 500 * random(), [200, 780])),
      ...[1, 3, 5, 9].map((across) => twoTubes(squareTube(), squareTube(20, 2, "S2"), "middle", { across })),
    ];
    let beside = 0;
    for (const frame of frames) {
      const structure = resolveStructure(frame).structure;
      for (const finish of ["bare", "zinc dip"] as const)
        for (const { places } of holeAdvice(structure, finish))
          for (const { member, fromFirstEndMm } of places) {
            const m = structure.members.find((x) => x.id === member);
            if (!m) throw new Error(member);
            expect(fromFirstEndMm).toBeGreaterThan(0);
            expect(fromFirstEndMm).toBeLessThan(m.longMm);
            if (finish !== "bare") continue;
            const s = fromFirstEndMm + tubeBeginsMm(m);
            for (const j of structure.joints.filter((x) => x.a === member)) {
              const far = Math.abs(dot3(sub3(j.at, m.from), m.axes[0]) - s);
              const branch = structure.members.find((x) => x.id === j.b);
              expect(far, `${member} ${j.id}`).toBeGreaterThan((branch?.properties.widthMm ?? 0) / 2 + 10);
            }
            if (Math.abs(fromFirstEndMm - m.longMm / 2) > 1) beside++;
          }
    }
    expect(beside).toBeGreaterThan(5);
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

describe("closed volumes of any frame", () => {
  const of = (frame: DrawnFrame): Structure => resolveStructure(frame).structure;
  it("legs with an open foot breathe; a cap closes them, and then they want a vent", () => {
    const table = started("table base", { way: "on its feet" });
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
