import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { add, cross, degrees, distance, dot, norm, radians, scale, sub, unit } from "./vector";

const vec = fc.record({ x: fc.integer({ min: -5000, max: 5000 }), y: fc.integer({ min: -5000, max: 5000 }) });

describe("vectors in plan", () => {
  it("obey Lagrange's identity and the law of cosines", () => {
    fc.assert(
      fc.property(vec, vec, (a, b) => {
        expect(dot(a, b) ** 2 + cross(a, b) ** 2).toBeCloseTo(norm(a) ** 2 * norm(b) ** 2, -2);
        expect(distance(a, b) ** 2).toBeCloseTo(norm(a) ** 2 + norm(b) ** 2 - 2 * dot(a, b), 2);
        expect(add(sub(a, b), b)).toEqual(a);
      }),
    );
  });
  it("turn counter-clockwise from x to y, and keep their direction at length one", () => {
    expect(cross({ x: 1, y: 0 }, { x: 0, y: 1 })).toBe(1);
    expect(unit({ x: -30, y: 40 })).toEqual({ x: -0.6, y: 0.8 });
    expect(scale({ x: 2, y: -1 }, 3)).toEqual({ x: 6, y: -3 });
    expect([degrees(Math.PI / 4), radians(180)]).toEqual([45, Math.PI]);
  });
});
