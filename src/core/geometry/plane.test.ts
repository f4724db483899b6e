import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { acrossPlane, collinear, fitPlane, heightOf } from "./plane";

const PLACES = [
  { x: 0, y: 0 },
  { x: 1200, y: 30 },
  { x: 1100, y: 800 },
  { x: 50, y: 760 },
  { x: 600, y: 300 },
];

describe("a plane through heights", () => {
  it("is found again whatever its tilt", () => {
    const small = fc.double({ min: -0.1, max: 0.1, noNaN: true });
    fc.assert(
      fc.property(fc.double({ min: -50, max: 50, noNaN: true }), small, small, (a, bx, by) => {
        const plane = fitPlane(
          PLACES,
          PLACES.map((p) => heightOf({ a, bx, by }, p)),
        );
        expect(plane?.a).toBeCloseTo(a, 6);
        expect(plane?.bx).toBeCloseTo(bx, 9);
        expect(plane?.by).toBeCloseTo(by, 9);
      }),
    );
  });
  it("leaves misses that carry neither height nor tilt", () => {
    const z = [0.2, -0.1, 0.4, 0, -0.3];
    const plane = fitPlane(PLACES, z);
    if (!plane) throw new Error("no plane");
    const miss = PLACES.map((p, i) => (z[i] ?? 0) - heightOf(plane, p));
    for (const weight of [() => 1, (p: { x: number }) => p.x, (p: { y: number }) => p.y])
      expect(PLACES.reduce((s, p, i) => s + (miss[i] ?? 0) * (weight as (q: typeof p) => number)(p), 0)).toBeCloseTo(
        0,
        6,
      );
  });
  it("is none over places in one line, and distances square to it are shorter by its slope", () => {
    const line = [0, 500, 1000].map((x) => ({ x, y: 2 * x }));
    expect(collinear(line)).toBe(true);
    expect(fitPlane(line, [0, 1, 0])).toBeNull();
    expect(acrossPlane({ a: 0, bx: 0.75, by: 0 })).toBeCloseTo(0.8, 12);
  });
});
