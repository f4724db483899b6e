import { describe, expect, it } from "vitest";
import type { Vec2 } from "../numeric";
import { isHollow, isRound, sectionOutline, sectionSize } from "./sectionOutline";
import type { Shape } from "./shapes";

const area = (p: readonly Vec2[]): number =>
  p.reduce((s, a, i) => {
    const b = p[(i + 1) % p.length] as Vec2;
    return s + (a.x * b.y - a.y * b.x) / 2;
  }, 0);
const ALL: Shape[] = [
  { shape: "tube", widthMm: 60, heightMm: 40, wallMm: 3 },
  { shape: "round tube", diameterMm: 48, wallMm: 3 },
  { shape: "angle", widthMm: 50, heightMm: 40, wallMm: 5, rootMm: 6 },
  { shape: "channel", widthMm: 40, heightMm: 80, wallMm: 4 },
  { shape: "flat", widthMm: 50, heightMm: 8 },
  { shape: "bar", diameterMm: 20 },
];

describe("the outline of a section", () => {
  it("runs anticlockwise and fills its outer size, its middle at the origin", () => {
    for (const s of ALL) {
      const p = sectionOutline(s);
      expect(area(p), s.shape).toBeGreaterThan(0);
      const { widthMm, heightMm } = sectionSize(s);
      expect(Math.max(...p.map((q) => q.x)), s.shape).toBeCloseTo(widthMm / 2, 1);
      expect(Math.min(...p.map((q) => q.y)), s.shape).toBeCloseTo(-heightMm / 2, 1);
    }
  });
  it("is hollow or round as its shape is", () => {
    expect(ALL.filter(isHollow).map((s) => s.shape)).toEqual(["tube", "round tube"]);
    expect(ALL.filter(isRound).map((s) => s.shape)).toEqual(["round tube", "bar"]);
  });
});
