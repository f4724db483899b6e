import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FRAMES_THAT_REACH_BEYOND, FREE_FRAMES } from "../../../tests/support/drawnFrames";
import { resolveStructure } from "../frame";
import { CORNERS } from "../geometry";
import { fromStructure } from "../mechanics";
import type { Vec2 } from "../numeric";
import { bestFit, laidBy, placesOf } from "../square";
import { weldedModel } from "../weld";
import { frameOutcomes, frameOutputs } from "./frameOutcomes";
import { outcomeAt } from "./outcomes";

describe("where places of a frame end up", () => {
  it("is what is left of their movement when the whole, or its corners, are laid over the drawing, as the check lays it, on any frame", () => {
    const withCorners = Object.entries(FRAMES_THAT_REACH_BEYOND).map(([name, { frame }]) => [name, frame] as const);
    for (const [name, frame] of [...Object.entries(FREE_FRAMES), ...withCorners]) {
      const { structure } = resolveStructure(frame);
      expect(structure.quad === null, name).toBe(name in FREE_FRAMES);
      const mechanics = fromStructure(structure);
      const model = weldedModel(mechanics.frame);
      const outputs = frameOutputs(structure, mechanics.joints)(model);
      const outcomes = frameOutcomes(structure, mechanics.joints)(model, outputs).filter((o) => o.id.kind === "place");
      const places = placesOf(structure);
      const names = structure.quad ? [...CORNERS, ...places.beyond] : Object.keys(places.nodes);
      expect(names.length, name).toBeGreaterThanOrEqual(3);
      expect(outcomes, name).toHaveLength(2 * names.length);
      const number = fc.double({ min: -1, max: 1, noNaN: true });
      fc.assert(
        fc.property(fc.array(number, { minLength: outputs.rows.length, maxLength: outputs.rows.length }), (moves) => {
          const out = Float64Array.from(moves, (v) => 1e-3 * v);
          const told = (place: string, way: "right" | "up"): number => {
            const found = outcomes.find((o) => o.id.kind === "place" && o.id.place === place && o.id.way === way);
            return found ? outcomeAt(found, out) : Number.NaN;
          };
          // The points that the outcomes follow, found by their own weights: a place moves as its point does.
          const moved: Record<string, Vec2> = {};
          for (const n of names) {
            const at = places.nodes[n] as Vec2;
            const own = outcomes.filter((o) => o.id.kind === "place" && o.id.place === n);
            const [x, y] = own.map(({ weights }) => {
              const { at: rows, value } = weights(out, 0);
              // The heaviest weight is the place's own.
              return out[rows[value.indexOf(Math.max(...value))] as number] as number;
            }) as [number, number];
            moved[n] = { x: at.x + x, y: at.y + y };
          }
          const { moves: left } = bestFit(moved, places.nodes, laidBy(places.beyond));
          for (const n of names) {
            const is = left[n] as Vec2;
            expect(told(n, "right")).toBeCloseTo(-is.x, 6);
            expect(told(n, "up")).toBeCloseTo(-is.y, 6);
          }
        }),
        { numRuns: 20 },
      );
    }
  });
});
