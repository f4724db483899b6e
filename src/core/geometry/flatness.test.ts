import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { flatness } from "./flatness";

const grid = (nx: number, ny: number) =>
  Array.from({ length: nx * ny }, (_, i) => ({ x: (i % nx) * 500, y: Math.floor(i / nx) * 400 }));
const heights = (n: number) => fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: n, maxLength: n });

describe("flatness", () => {
  it("does not change when the bed is tilted a little or lifted", () => {
    fc.assert(
      fc.property(
        heights(9),
        fc.double({ min: -1e-3, max: 1e-3, noNaN: true }),
        fc.double({ min: -50, max: 50, noNaN: true }),
        (z, slope, lift) => {
          const xy = grid(3, 3);
          const a = flatness(xy, z, 0.1).zoneMm ?? 0;
          const b =
            flatness(
              xy,
              z.map((h, i) => h + slope * (xy[i]?.x ?? 0) + lift),
              0.1,
            ).zoneMm ?? 0;
          expect(b).toBeCloseTo(a, 3);
        },
      ),
      { numRuns: 60 },
    );
  });
  it("is never more than peak to valley about the least-squares plane", () => {
    fc.assert(
      fc.property(heights(12), (z) => {
        const f = flatness(grid(4, 3), z, 0.1);
        expect(f.zoneMm ?? 0).toBeLessThanOrEqual((f.leastSquaresMm ?? 0) + 1e-3);
      }),
    );
  });
  it("of many points is proved: a slab of that height holds them all, and four of them need it", () => {
    fc.assert(
      fc.property(heights(49), (large) => {
        // Small against the spacing, so that the tilt of a subset's own plane does not count.
        const z = large.map((h) => h / 30);
        const xy = grid(7, 7);
        const many = flatness(xy, z, 0.1);
        const among = (list: number[]) =>
          flatness(
            list.map((i) => xy[i] as { x: number; y: number }),
            list.map((i) => z[i] as number),
            0.1,
          ).zoneMm ?? 0;
        expect(among(many.active)).toBeCloseTo(many.zoneMm ?? -1, 6);
        // Up to forty points every subset is tried: any forty of the forty-nine need no more than all of them.
        for (const skip of [0, 4, 9]) {
          const forty = xy.map((_, i) => i).filter((i) => i < skip || i >= skip + 9);
          expect(among(forty)).toBeLessThanOrEqual((many.zoneMm ?? 0) + 1e-6);
        }
        expect(many.zoneMm ?? 0).toBeLessThanOrEqual((many.leastSquaresMm ?? 0) + 1e-6);
      }),
      { numRuns: 12 },
    );
  });
  it("says when the points cannot tell", () => {
    expect(flatness(grid(2, 1), [0, 1], 0.1).status).toBe("too_few");
    expect(
      flatness(
        [
          { x: 0, y: 0 },
          { x: 1, y: 0 },
          { x: 0, y: 1 },
        ],
        [0, 1, 2],
        0.1,
      ),
    ).toMatchObject({ status: "three_points", zoneMm: 0 });
    expect(flatness(grid(5, 1), [0, 1, 0, 1, 0], 0.1)).toMatchObject({ status: "collinear", zoneMm: null });
    expect(flatness(grid(5, 1), [0, 1, 0, 1, 0], 0.1).straightnessMm).toBeCloseTo(1, 6);
  });
});
