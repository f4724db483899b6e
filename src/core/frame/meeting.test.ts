import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, roundTube, squareTube } from "../../../tests/support/drawnFrames";
import type { Vec3 } from "../numeric";
import { type Meeting, meeting, type Placed, reach } from "./meeting";
import { placeMembers } from "./placing";

type Line = [Vec3, Vec3] | [Vec3, Vec3, string];
const sections = [squareTube(40, 3), roundTube(60, 3, "R")];
function two(m: Line, n: Line): [Placed, Placed] {
  const all = placeMembers(drawn({ M: m, N: n }, sections));
  return [all.get("M") as Placed, all.get("N") as Placed];
}
const how = (m: Line, n: Line): Meeting["kind"] | null => meeting(...two(m, n))?.kind ?? null;

const RAIL: Line = [
  [0, 0, 0],
  [1000, 0, 0],
];

describe("how two members meet, from their geometry alone", () => {
  it("is a corner, a tee, a lap, a cross, an overlap, or nothing", () => {
    expect(
      how(RAIL, [
        [1000, 0, 0],
        [1000, 500, 0],
      ]),
    ).toBe("corner");
    expect(
      how(RAIL, [
        [400, 0, 0],
        [400, 500, 0],
      ]),
    ).toBe("tee");
    expect(
      how(RAIL, [
        [400, -300, 40],
        [400, 300, 40],
      ]),
    ).toBe("lap");
    expect(
      how(RAIL, [
        [400, -300, 0],
        [400, 300, 0],
      ]),
    ).toBe("cross");
    expect(
      how(RAIL, [
        [200, 10, 0],
        [700, 10, 0],
      ]),
    ).toBe("overlap");
    expect(
      how(RAIL, [
        [200, 40, 0],
        [700, 40, 0],
      ]),
    ).toBe("lap");
    expect(
      how(RAIL, [
        [400, 60, 0],
        [400, 500, 0],
      ]),
    ).toBe(null);
    // A straight run of two pieces.
    expect(
      how(RAIL, [
        [1000, 0, 0],
        [1800, 0, 0],
      ]),
    ).toBe("corner");
  });
  it("does not depend on which is named first, where the pair lies, or which way a member was drawn", () => {
    const second = fc.record({
      s: fc.integer({ min: 100, max: 900 }),
      start: fc.constantFrom(0, 15, -200, 300),
      deg: fc.integer({ min: 20, max: 160 }),
      z: fc.constantFrom(0, 40, 55),
    });
    fc.assert(
      fc.property(second, fc.integer({ min: 0, max: 359 }), fc.boolean(), ({ s, start, deg, z }, turn, flip) => {
        const [c, d] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
        const from: Vec3 = [s + start * c, start * d, z];
        const to: Vec3 = [s + 700 * c, 700 * d, z];
        const [ct, st] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
        const moved = ([x, y, h]: Vec3): Vec3 => [120 + ct * x - st * y, -80 + st * x + ct * y, 900 + h];
        const kind = how(RAIL, [from, to]);
        expect(how([from, to], RAIL)).toBe(kind);
        expect(how([moved(RAIL[0]), moved(RAIL[1])], flip ? [moved(to), moved(from)] : [moved(from), moved(to)])).toBe(
          kind,
        );
      }),
      { numRuns: 200 },
    );
  });
  it("reaches as far as the section goes: corners of a square, the same all round of a round", () => {
    const [m] = two(RAIL, [
      [0, 0, 0],
      [0, 500, 0],
    ]);
    expect(reach(m, [0, 1, 0])).toBeCloseTo(20, 9);
    expect(reach(m, [0, Math.SQRT1_2, Math.SQRT1_2])).toBeCloseTo(20 * Math.SQRT2, 9);
    const [r] = two([[0, 0, 0], [1000, 0, 0], "R"], RAIL);
    for (const deg of [0, 17, 45, 88])
      expect(reach(r, [0, Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)])).toBeCloseTo(30, 9);
  });
});
