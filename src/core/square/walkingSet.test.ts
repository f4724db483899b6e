import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { aroundMiddle, comb, FREE_FRAMES, ring } from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { resolveStructure } from "../frame";
import { distance, type Vec2 } from "../numeric";
import { length } from "../units";
import { adjustNetwork } from "./network";
import { placesOf } from "./places";
import { walkingSet } from "./walkingSet";

describe("tapes along members and across", () => {
  it("name every place, each pair once, none twice the same way", () => {
    const places = placesOf(built(rectangle({ cross: [{ id: "M1", at: length("400") }] })));
    const set = walkingSet(places);
    const pairs = set.map(([p, q]) => [p, q].sort().join());
    expect(new Set(pairs).size).toBe(pairs.length);
    expect(new Set(set.flat())).toEqual(new Set(Object.keys(places.nodes)));
    // As many as fix the shape: two for every place but three of the whole.
    expect(set.length).toBeGreaterThanOrEqual(2 * Object.keys(places.nodes).length - 3);
  });
  it("show any of them misread by an inch, on any frame of four places and more", () => {
    const frames = fc.oneof(
      fc.constantFrom(...Object.values(FREE_FRAMES)),
      fc.array(fc.integer({ min: 350, max: 600 }), { minLength: 4, maxLength: 9 }).map((r) => ring(aroundMiddle(r))),
      fc
        .record({ teeth: fc.integer({ min: 2, max: 5 }), mm: fc.integer({ min: 200, max: 600 }) })
        .map(({ teeth, mm }) => comb(teeth, 200, mm)),
    );
    // A tape to half a millimetre between pencil marks.
    const U_MM = 0.3;
    const INCH_MM = 25.4;
    fc.assert(
      fc.property(frames, (frame) => {
        const places = placesOf(resolveStructure(frame).structure);
        const { nodes } = places;
        fc.pre(Object.keys(nodes).length >= 4);
        const readings = walkingSet(places).map(([from, to]) => ({
          kind: "distance" as const,
          id: `${from}-${to}`,
          from,
          to,
          valueMm: distance(nodes[from] as Vec2, nodes[to] as Vec2),
          uMm: U_MM,
        }));
        const fit = adjustNetwork({ nodes, readings, tapes: {} });
        expect(fit.status).toBe("ok");
        for (const r of fit.readings) expect(r.detectable ?? Number.POSITIVE_INFINITY, r.id).toBeLessThan(INCH_MM);
      }),
      { numRuns: 60 },
    );
  });
});
