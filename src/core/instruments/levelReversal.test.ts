import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { levelReversal } from "./levelReversal";

describe("a level turned end for end", () => {
  it("tells its own error and the slope apart, by either way of noting signs", () => {
    const any = fc.double({ min: -20, max: 20, noNaN: true });
    fc.assert(
      fc.property(any, any, (zero, slope) => {
        // Turned, the level sees the slope the other way; its own error stays.
        const own = levelReversal(zero + slope, zero - slope, 0.1, "level");
        expect(own.zeroError).toBeCloseTo(zero, 9);
        expect(own.slope).toBeCloseTo(slope, 9);
        const world = levelReversal(slope + zero, slope - zero, 0.1, "world");
        expect(world.zeroError).toBeCloseTo(zero, 9);
        expect(world.slope).toBeCloseTo(slope, 9);
      }),
    );
    expect(levelReversal(1, 1, 0.1, "level").u).toBeCloseTo(0.1 / Math.SQRT2, 12);
  });
});
