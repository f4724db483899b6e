import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { resolveStructure, STARTERS } from "../frame";
import { hull } from "../geometry";
import { restsUnder } from "../job";
import { cross, distance, sub, type Vec2 } from "../numeric";
import { length } from "../units";
import { footprint } from "./footprint";

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
