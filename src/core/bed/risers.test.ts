import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fitPlane, heightOf } from "../geometry";
import { risersOver } from "./risers";

const rests = [
  { x: 0, y: 0, z: 0 },
  { x: 1000, y: 0, z: 0.5 },
  { x: 500, y: 800, z: 1 },
];

const of = (spots: typeof rests) => {
  const plane = fitPlane(
    spots,
    spots.map((q) => q.z),
  );
  if (!plane) throw new Error("a plane expected");
  return plane;
};

describe("risers over a high spot", () => {
  it("carry the work level: plane of the highest spot and the clearance (closed form)", () => {
    const found = risersOver([{ x: 500, y: 400, z: 3.2 }], rests, 2, true);
    expect(found?.mm).toEqual([5.2, 4.7, 4.2].map((v) => expect.closeTo(v, 9)));
    expect(found?.highest).toBe(0);
  });
  it("leave every spot below the work by the clearance, one of them by no more", () => {
    const spot = fc.record({
      x: fc.double({ min: 0, max: 1000, noNaN: true }),
      y: fc.double({ min: 0, max: 800, noNaN: true }),
      z: fc.double({ min: -4, max: 6, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(spot, { minLength: 1, maxLength: 8 }), fc.boolean(), (spots, level) => {
        const found = risersOver(spots, rests, 2, level);
        if (!found) throw new Error("risers expected");
        const raised = rests.map((r, i) => ({ ...r, z: r.z + (found.mm[i] as number) }));
        const plane = fitPlane(
          raised,
          raised.map((r) => r.z),
        );
        if (!plane) throw new Error("a plane expected");
        const room = spots.map((s) => heightOf(plane, s) - s.z);
        expect(Math.min(...room)).toBeGreaterThan(2 - 1e-6);
        expect(Math.min(...found.mm)).toBeGreaterThanOrEqual(0);
        if (Math.min(...found.mm) > 1e-9 && !level) expect(Math.min(...room)).toBeCloseTo(2, 6);
        // Sloped as it likes, it never takes more than the same under every rest.
        const alike = Math.max(0, Math.max(...spots.map((q) => q.z - heightOf(of(rests), q))) + 2);
        if (!level) expect(found.mm.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(3 * alike + 1e-6);
        if (level) expect(Math.hypot(plane.bx, plane.by)).toBeLessThan(1e-9);
      }),
    );
  });
  it("are nothing where nothing was read between", () => {
    expect(risersOver([], rests, 2, true)).toBeNull();
  });
});
