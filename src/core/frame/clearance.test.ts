import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { length } from "../units";
import { boxCorners, clearances, gapBetween, squareBox } from "./clearance";
import { resolveStructure } from "./resolveStructure";

describe("gaps", () => {
  it("between two boxes are what they were set apart by, however they are turned", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 500 }),
        fc.double({ min: 0, max: 1.5, noNaN: true }),
        fc.integer({ min: 0, max: 2 }),
        (gap, turn, way) => {
          const [c, s] = [Math.cos(turn), Math.sin(turn)];
          // Turned about z, a box of half sizes 50, 30, 20 reaches this far along x, y, z.
          const far = [50 * c + 30 * s, 50 * s + 30 * c, 20][way] as number;
          const middle: [number, number, number] = [0, 0, 0];
          middle[way] = 70 + gap + far;
          const turned = {
            middle,
            axes: [
              [c, s, 0],
              [-s, c, 0],
              [0, 0, 1],
            ] as const,
            half: [50, 30, 20] as const,
          };
          const still = squareBox([-70, -70, -70], [70, 70, 70]);
          const found = gapBetween(still, turned as never);
          // Along z the faces lie over each other; sideways a corner comes nearest, inside the other's face.
          expect(found.mm).toBeCloseTo(gap, 5);
          expect(gapBetween(turned as never, still).mm).toBeCloseTo(gap, 5);
          expect(boxCorners(still)).toHaveLength(8);
        },
      ),
    );
    expect(gapBetween(squareBox([0, 0, 0], [10, 10, 10]), squareBox([13, 14, 0], [20, 20, 10])).mm).toBeCloseTo(5, 9);
    expect(gapBetween(squareBox([0, 0, 0], [10, 10, 10]), squareBox([8, 0, 0], [20, 20, 10])).mm).toBeCloseTo(-2, 9);
  });
  it("feet may stand on the floor, members may not", () => {
    const table = { ...started("table base"), floor: { at: length("-6"), least: length("1") } };
    expect(clearances(table, resolveStructure(table).structure)).toMatchObject([{ of: "floor", ok: true, gapMm: 6 }]);
  });
});
