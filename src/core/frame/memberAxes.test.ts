import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cross3, dot3, norm3, sub3, type Vec3 } from "../numeric";
import { memberAxes, turnedAxes } from "./memberAxes";

const UP: Vec3 = [0, 0, 1];
const place = fc.tuple(
  fc.integer({ min: -2000, max: 2000 }),
  fc.integer({ min: -2000, max: 2000 }),
  fc.integer({ min: -2000, max: 2000 }),
);

describe("a member's own axes", () => {
  it("are square to each other and right-handed, x along it, whatever way it lies", () => {
    fc.assert(
      fc.property(place, place, fc.integer({ min: -180, max: 180 }), (from, to, deg) => {
        fc.pre(norm3(sub3(to, from)) > 1);
        for (const axes of [
          memberAxes(from, to, undefined, UP),
          turnedAxes(memberAxes(from, to, undefined, UP), deg),
        ]) {
          const [x, y, z] = axes;
          for (const a of axes) expect(norm3(a)).toBeCloseTo(1, 9);
          expect(dot3(x, y)).toBeCloseTo(0, 9);
          cross3(x, y).forEach((v, i) => {
            expect(v).toBeCloseTo(z[i] ?? Number.NaN, 9);
          });
          expect(norm3(cross3(x, sub3(to, from)))).toBeLessThan(1e-6);
        }
      }),
    );
  });
  it("have their height upright where it lies, and a quarter turn lays it on its side", () => {
    const [, y, z] = memberAxes([0, 0, 0], [1000, 0, 0], undefined, UP);
    expect(z).toEqual([0, 0, 1]);
    expect(y[1]).toBeCloseTo(1, 12);
    expect(turnedAxes(memberAxes([0, 0, 0], [1000, 0, 0], undefined, UP), 90)[1][2]).toBeCloseTo(1, 12);
  });
});
