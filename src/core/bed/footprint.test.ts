import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, squareTube, started } from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { resolveStructure, STARTERS } from "../frame";
import { hull, nearestOnStretch } from "../geometry";
import { restsUnder } from "../job";
import { cross, distance, sub, type Vec2, type Vec3 } from "../numeric";
import { length } from "../units";
import { footprint, hasSidesAlong } from "./footprint";

/** Whether a place lies within the outermost of some. */
const inHull = (p: Vec2, of: readonly Vec2[]): boolean => {
  const ring = hull([...of]);
  return ring.every((q, i) => cross(sub(ring[(i + 1) % ring.length] as Vec2, q), sub(p, q)) >= -1e-6);
};

describe("what lies over the bed", () => {
  it("of a level rectangle is its outside, measured from corner A, with its weight in the middle", () => {
    const over = footprint(built(rectangle({ length: length("1200"), width: length("800") })));
    expect(over).toMatchObject({ origin: { x: 0, y: 0 }, insetMm: 20 });
    expect(over?.lengthMm).toBeCloseTo(1200, 9);
    expect(over?.widthMm).toBeCloseTo(800, 9);
    expect(over?.centreOfMass.x).toBeCloseTo(600, 9);
    expect(over?.corners?.C).toEqual({ x: 1200, y: 800 });
  });
  it("of a frame without corners is carried by rests under its tubes, with its weight between them", () => {
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      const over = footprint(structure);
      // A rack is drawn standing on one rail: rests in a row carry nothing, so they lie under its edges.
      if (!over || structure.quad || name === "rack") continue;
      for (const count of [3, 4, 6] as const) {
        const rests = restsUnder(over, count, "mm").map(({ x, y }) => ({ x: x.mm, y: y.mm }));
        expect(rests, name).toHaveLength(Math.min(count, over.touches.length));
        for (const r of rests)
          expect(Math.min(...over.touches.map((t) => distance(t, r))), `${name}: ${r.x}, ${r.y}`).toBeLessThan(0.01);
        const carried = inHull(over.centreOfMass, rests);
        expect(carried || count === 3, `${name} on ${count}`).toBe(true);
      }
    }
  });
  it("of four sides that lean is carried by rests under their corners, in the middle of the tubes", () => {
    const slant = fc.integer({ min: -250, max: 250 });
    fc.assert(
      fc.property(slant, slant, fc.integer({ min: 0, max: 150 }), fc.constantFrom(30, 40, 60), (d, c, up, mm) => {
        const [A, B, C, D]: [Vec3, Vec3, Vec3, Vec3] = [
          [0, 0, 0],
          [1200, 0, 0],
          [1200 + c, 700 + up, 0],
          [d, 700, 0],
        ];
        const sides = { AB: [A, B], BC: [B, C], CD: [C, D], DA: [D, A] } as Record<string, [Vec3, Vec3]>;
        const { structure } = resolveStructure(drawn(sides, [squareTube(mm, 3)]));
        const over = footprint(structure);
        if (!over?.corners) throw new Error("no corners");
        const lines = Object.values(sides).map((side) => side.map(([x, y]) => sub({ x, y }, over.origin)));
        for (const count of [3, 4, 6] as const)
          for (const { x, y } of restsUnder(over, count, "mm"))
            expect(
              Math.min(...lines.map(([p, q]) => nearestOnStretch({ x: x.mm, y: y.mm }, p as Vec2, q as Vec2).offMm)),
            ).toBeLessThan(1);
        expect(hasSidesAlong(over)).toBe(d === 0);
      }),
      { numRuns: 40 },
    );
  });
  it("of any frame holds its weight, and carries all of it", () => {
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      const over = footprint(structure);
      if (!over) throw new Error(name);
      expect(over.massKg, name).toBeCloseTo(structure.massKg, 9);
      for (const axis of ["x", "y"] as const) {
        const reach = over.hull.map((p) => p[axis]);
        expect(over.centreOfMass[axis], name).toBeGreaterThanOrEqual(Math.min(...reach));
        expect(over.centreOfMass[axis], name).toBeLessThanOrEqual(Math.max(...reach));
      }
    }
  });
});
