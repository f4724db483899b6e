import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { resolveStructure, STARTERS } from "../frame";
import { length } from "../units";
import { footprint } from "./footprint";

describe("what lies over the bed", () => {
  it("of a level rectangle is its outside, measured from corner A, with its weight in the middle", () => {
    const over = footprint(built(rectangle({ length: length("1200"), width: length("800") })));
    expect(over).toMatchObject({ origin: { x: 0, y: 0 }, insetMm: 20 });
    expect(over?.lengthMm).toBeCloseTo(1200, 9);
    expect(over?.widthMm).toBeCloseTo(800, 9);
    expect(over?.centreOfMass.x).toBeCloseTo(600, 9);
    expect(over?.corners?.C).toEqual({ x: 1200, y: 800 });
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
