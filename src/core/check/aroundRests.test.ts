import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { footprint, onThreeRests, tubeSags } from "../bed";
import { resolveStructure, type Structure } from "../frame";
import { restsGrid, restsUnder } from "../job";
import { length } from "../units";
import { adjustStep } from "./adjustStep";
import { type BedHeights, bedVerdict } from "./bedVerdict";
import { tubeFits } from "./tubeTolerance";

const flat = built(rectangle());
const under = (structure: Structure, count: 3 | 4 | 6) => {
  const over = footprint(structure);
  if (!over) throw new Error("no footprint");
  return placed(restsUnder(over, count));
};
const placed = (rests: ReturnType<typeof restsUnder>) => rests.map((r) => ({ id: r.id, x: r.x.mm, y: r.y.mm }));

describe("three rests out of those at hand", () => {
  it("hold the weight well inside, and the frame hardly sags between them", () => {
    const three = onThreeRests(under(flat, 6), flat);
    expect(three?.rests).toHaveLength(3);
    expect(three?.marginMm).toBeGreaterThan(0.05 * 600);
    expect(three?.sagMm).toBeGreaterThan(0);
    expect(three?.sagMm).toBeLessThan(0.2);
  });
  it("sag more under a longer frame, as its fourth power says", () => {
    const long = built(rectangle({ length: length("4000") }));
    const [short3, long3] = [flat, long].map((f) => onThreeRests(under(f, 6), f)?.sagMm ?? 0);
    expect(long3).toBeGreaterThan(20 * (short3 ?? 0));
  });
  it("are all that is needed: with only three, the bed is judged by how the frame hangs and how it slopes", () => {
    const rests = under(flat, 3);
    const three = onThreeRests(rests, flat);
    const verdict = (z: number[], level: number | null) =>
      bedVerdict(
        rests,
        {
          points: rests.map((r) => r.id),
          heightsMm: Object.fromEntries(rests.map((r, i) => [r.id, z[i] as number])),
          cov: [0, 1, 2].map((i) => [0, 1, 2].map((j) => (i === j ? 0.01 : 0))),
          levelKnown: true,
        },
        2,
        level,
        { by: "shims", mode: "level", pitchMm: 1.5, thread: "right" },
        "mm",
        three,
      );
    expect(three?.rests).toEqual(["R1", "R2", "R3"]);
    expect(verdict([0, 7, -4], null).word).toBe("good on three rests");
    expect(verdict([0, 0, 0.1], 2).word).toBe("good on three rests");
    expect(verdict([0, 7, -4], 2)).toMatchObject({
      word: "not good",
      why: expect.stringMatching(/slopes .* mm\/m of 2/),
    });
  });
  it("are none where its weight lies outside or on their edge", () => {
    const side = under(flat, 6).filter((r) => r.y < 600 / 2);
    expect(onThreeRests(side, flat)).toBeNull();
    expect(onThreeRests(under(flat, 4).slice(0, 2), flat)).toBeNull();
    // Of four corners any three have the weight on their longest side.
    expect(onThreeRests(under(flat, 4), flat)).toBeNull();
  });
});

describe("a loose tube on two rests", () => {
  it("sags a forty-eighth with the rests set in, and only what is seen is told", () => {
    const structure = built(rectangle({ length: length("6000") }));
    const sags = tubeSags(structure);
    expect(sags[0]?.members).toEqual(["AB", "CD"]);
    expect(sags[0]?.insetMm).toBeCloseTo(0.223 * 6000, 6);
    expect((sags[0]?.onEndsMm ?? 0) / (sags[0]?.setInMm ?? 1)).toBeGreaterThan(40);
    expect((sags[0]?.onEndsMm ?? 0) / (sags[0]?.setInMm ?? 1)).toBeLessThan(60);
    expect(tubeSags(flat)).toEqual([]);
  });
  it("counts every member once, whatever the frame", () => {
    const { structure } = resolveStructure(started("two frames stacked"));
    const told = tubeSags(structure).flatMap((s) => s.members);
    expect(new Set(told).size).toBe(told.length);
  });
});

describe("what the tube itself brings", () => {
  it("is told by the standard of its units, with what it does to a fit", () => {
    const metric = tubeFits(flat, "mm");
    expect(metric.map((f) => f.standard)).toEqual(Array.from({ length: 4 }, () => "EN 10219-2"));
    // 40 mm: 1 %, at least 0.5; twist 2 mm + 0.5 mm/m; straightness 0.15 %.
    expect(metric.map((f) => +f.limitMm.toFixed(3))).toEqual([0.5, 1.5, 2.5, 0.698]);
    expect(metric[0]?.does).toContain("1.0 mm");
    expect(tubeFits(flat, "inch-fraction")[0]).toMatchObject({ standard: "ASTM A500", limitMm: 0.02 * 25.4 });
  });
});

describe("the next step at the rests", () => {
  const rests = placed(restsGrid({ lengthMm: 1000, widthMm: 600 }, 2, 2));
  const heights = (z: number[]): BedHeights => ({
    points: rests.map((r) => r.id),
    heightsMm: Object.fromEntries(rests.map((r, i) => [r.id, z[i] as number])),
    cov: rests.map((_, i) => rests.map((__, j) => (i === j ? 0.0025 : 0))),
    levelKnown: true,
  });
  const verdict = (z: number[], by: "shims" | "feet" = "shims", mode: "level" | "best_fit" = "level") =>
    bedVerdict(rests, heights(z), 2, null, { by, mode, pitchMm: 1.5, thread: "right" });
  const step = (z: number[], before: number[] | null = null, by: "shims" | "feet" = "shims") =>
    adjustStep(verdict(z, by), before && verdict(before, by), by, rests, "mm");

  it("is the rest that is farthest off, by the leaves or the turns that bring it up", () => {
    expect(step([0, 3, 3, 3])).toMatchObject({ rest: "R1", say: expect.stringContaining("3 mm under R1") });
    expect(step([0, 3, 3, 3], null, "feet")?.say).toContain("2.00 turns (12.0 flats) clockwise seen from above");
    expect(step([0.4, 3, 0, 3])?.why).toContain("1 more after it");
  });
  it("is nothing on a bed that is good, and is not told while a rest is unread", () => {
    expect(step([0, 0.2, 0, 0.1])).toMatchObject({ rest: null, say: expect.stringContaining("as they are") });
    const some = bedVerdict(rests, { ...heights([0, 3, 3, 3]), points: [], heightsMm: {}, cov: [] }, 2, null, {
      by: "shims",
      mode: "level",
      pitchMm: 1.5,
      thread: "right",
    });
    expect(adjustStep(some, null, "shims", rests, "mm")).toBeNull();
  });
  it("sets nothing where three rests do", () => {
    const three = { rests: ["R1", "R2", "R3"], marginMm: 100, sagMm: 0.01 };
    const adjusting = { by: "shims", mode: "level", pitchMm: 1.5, thread: "right", onThree: true } as const;
    const now = bedVerdict(rests, heights([0, 3, 3, 9]), 2, null, adjusting, "mm", three);
    expect(now.word).toBe("good on three rests");
    expect(adjustStep(now, null, "shims", rests, "mm")).toMatchObject({
      rest: null,
      say: expect.stringContaining("three rests"),
    });
  });
  it("hears whether the last one did what it should", () => {
    expect(step([5.8, 6, 3, 3], [0, 6, 3, 3])?.why).not.toContain("more than");
    expect(step([0.5, 6, 3, 3], [0, 6, 3, 3])?.why).toMatch(
      /R1 was to rise 6\.00 mm, it rose 0\.50 mm, more than the leaves/,
    );
    expect(step([0.5, 6, 3, 3], [0, 6, 3, 3], "feet")?.why).toContain("lock nut");
  });
  it("says how much of four feet's turning is twist", () => {
    expect(step([0, 3, 0, 3], null, "feet")?.why).toMatch(/1\.50 mm is twist/);
    expect(step([0, 0, 3, 3], null, "feet")?.why).not.toMatch(/is twist/);
  });
});
