import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { chanceWithin, normalBelow } from "./chance";

describe("chance to lie within limits", () => {
  it("has the table values of the normal distribution", () => {
    // Any table of the standard normal distribution.
    for (const [z, p] of [
      [0, 0.5],
      [1, 0.8413447],
      [1.645, 0.9500151],
      [-1.96, 0.0249979],
      [3, 0.9986501],
    ] as const)
      expect(normalBelow(z)).toBeCloseTo(p, 6);
  });
  it("is nine in ten for the band itself, one side or the other as wide as it is", () => {
    expect(chanceWithin({ value: 0, low: -1, high: 1 }, -1, 1)).toBeCloseTo(0.9, 3);
    expect(chanceWithin({ value: 0.3, low: -0.2, high: 2 }, -0.2, 2)).toBeCloseTo(0.9, 3);
    expect(chanceWithin({ value: 0.3, low: -0.2, high: 2 }, null, 0.3)).toBeCloseTo(0.5, 6);
    expect(chanceWithin({ value: 1, low: 1, high: 1 }, 0, 2)).toBe(1);
    expect(chanceWithin({ value: 1, low: 1, high: 1 }, 0, 0.5)).toBe(0);
  });
  it("never falls when limits are wider, and lies between nought and one", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 4, noNaN: true }),
        (value, down, up, limit) => {
          const e = { value, low: value - down, high: value + up };
          const [one, two] = [chanceWithin(e, -limit, limit), chanceWithin(e, -limit - 0.5, limit + 0.1)];
          expect(one).toBeGreaterThanOrEqual(0);
          expect(two).toBeLessThanOrEqual(1);
          expect(two).toBeGreaterThanOrEqual(one - 1e-9);
        },
      ),
    );
  });
});
