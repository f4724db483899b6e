import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, squareTube } from "../../../tests/support/drawnFrames";
import { drawnPlan } from "../../../tests/support/plans";
import type { Structure } from "../frame";
import { builtOf } from "../job";
import { dot3, sub3 } from "../numeric";
import { heldMechanics } from "../plan";
import { weldedModel } from "../weld";
import { BaseSolver } from "./baseSolver";

describe("points of a member", () => {
  it("keep their order and some length between them, wherever a short stub is held: it can always be worked out", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 45, max: 260 }),
        fc.constantFrom(25.4, 40, 50.8, 80),
        fc.constantFrom(2, 3.175, 4),
        (stub, tube, wall) => {
          const frame = drawn(
            {
              M1: [
                [0, 0, tube / 2],
                [1016, 0, tube / 2],
              ],
              M2: [
                [508, 0, tube / 2],
                [508, tube / 2 + stub, tube / 2],
              ],
            },
            [squareTube(tube, wall)],
          );
          const { structure, on } = builtOf(drawnPlan(frame));
          const { mechanics } = heldMechanics(structure as Structure, on);
          const model = weldedModel(mechanics.frame);
          for (const { nodes, axes } of model.members.values()) {
            const at = nodes.map((n) => dot3(model.nodes[n]?.at ?? [0, 0, 0], axes[0]));
            at.forEach((s, i) => {
              if (i > 0) expect(s - (at[i - 1] ?? 0)).toBeGreaterThan(0.9);
            });
          }
          // What a N along the stub moves its free end by is what the stub and its joint give: no digits are lost.
          const solver = new BaseSolver(model);
          const own = model.members.get("M2")?.nodes ?? [];
          const [first, end] = [own[0] ?? 0, own.at(-1) ?? 0];
          const load = { at: [6 * end + 1, 6 * first + 1], value: [1, -1] };
          const moved = solver.solve(load);
          const long = dot3(sub3(model.nodes[end]?.at ?? [0, 0, 0], model.nodes[first]?.at ?? [0, 0, 0]), [0, 1, 0]);
          const areaMm2 = structure?.members[1]?.properties.areaMm2 ?? 1;
          const stretch = (moved[6 * end + 1] ?? 0) - (moved[6 * first + 1] ?? 0);
          expect(stretch / (long / (210_000 * areaMm2))).toBeCloseTo(1, 6);
        },
      ),
      { numRuns: 30, seed: 5 },
    );
  });
});
