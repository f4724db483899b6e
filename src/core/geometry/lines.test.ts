import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { circleCrossing, lineCrossing, nearestOnStretch } from "./lines";

const coordinate = fc.double({ min: -2000, max: 2000, noNaN: true });
const point = fc.record({ x: coordinate, y: coordinate });

describe("lines", () => {
  it("cross where both of them are, and parallel ones nowhere", () => {
    fc.assert(
      fc.property(point, point, fc.double({ min: 0.1, max: 3, noNaN: true }), (p, q, turn) => {
        const [u, v] = [
          { x: 1, y: 0 },
          { x: Math.cos(turn), y: Math.sin(turn) },
        ];
        const c = lineCrossing(p, u, q, v);
        if (!c) throw new Error("no crossing");
        expect(c.y).toBeCloseTo(p.y, 6);
        expect((c.x - q.x) * v.y - (c.y - q.y) * v.x).toBeCloseTo(0, 5);
      }),
    );
    expect(lineCrossing({ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 5, y: 0 }, { x: 2, y: 2 })).toBeNull();
  });
  it("have a nearest place within a stretch, never beyond its ends", () => {
    const [from, to] = [
      { x: 0, y: 0 },
      { x: 100, y: 0 },
    ];
    expect(nearestOnStretch({ x: 30, y: 40 }, from, to)).toEqual({ share: 0.3, offMm: 40 });
    expect(nearestOnStretch({ x: -30, y: 40 }, from, to)).toEqual({ share: 0, offMm: 50 });
    expect(nearestOnStretch({ x: 3, y: 4 }, from, from)).toEqual({ share: 0, offMm: 5 });
  });
  it("of two circles cross left of the way between them: a triangle of 3, 4 and 5", () => {
    const c = circleCrossing({ x: 0, y: 0 }, 3, { x: 5, y: 0 }, 4);
    expect(c?.x).toBeCloseTo(1.8, 12);
    expect(c?.y).toBeCloseTo(2.4, 12);
    expect(circleCrossing({ x: 0, y: 0 }, 1, { x: 5, y: 0 }, 1)).toBeNull();
  });
});
