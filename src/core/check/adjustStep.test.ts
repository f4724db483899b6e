import { describe, expect, it } from "vitest";
import { restsGrid, type restsUnder } from "../job";
import { adjustStep } from "./adjustStep";
import { type BedHeights, bedVerdict } from "./bedVerdict";

const placed = (rests: ReturnType<typeof restsUnder>) => rests.map((r) => ({ id: r.id, x: r.x.mm, y: r.y.mm }));

describe("the next step at the rests", () => {
  const rests = placed(restsGrid({ lengthMm: 1000, widthMm: 600 }, 2, 2, "mm"));
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
