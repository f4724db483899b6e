import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { collimationMmPerM } from "./twoPeg";

describe("two pegs", () => {
  it("tell the slope of the line of sight, whatever the pegs' heights and the level's", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: -500, max: 500, noNaN: true }),
        fc.double({ min: 900, max: 1700, noNaN: true }),
        fc.double({ min: 900, max: 1700, noNaN: true }),
        (error, higher, one, two) => {
          // Midway between pegs 30 m apart, then 3 m beyond the second.
          const rod = (sight: number, peg: number, metres: number) => sight - peg + error * metres;
          const t = {
            a1: rod(one, 0, 15),
            b1: rod(one, higher, 15),
            a2: rod(two, 0, 33),
            b2: rod(two, higher, 3),
            distA1: 15,
            distB1: 15,
            distA2: 33,
            distB2: 3,
          };
          expect(collimationMmPerM(t)).toBeCloseTo(error, 6);
        },
      ),
    );
  });
});
