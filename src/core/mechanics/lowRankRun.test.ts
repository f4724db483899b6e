import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ladder, tacksThenBeads } from "../../../tests/support/ladder";
import { seeded } from "../numeric";
import { CompileCache, compileLoads } from "../shrink";
import { FACTORS, weldedModel } from "../weld";
import { condense } from "./condensed";
import { fromStructure } from "./fromStructure";
import { LowRankRun } from "./lowRankRun";
import { plainRun } from "./plainRun";

describe("a run by updates of low rank", () => {
  it("gives what the full matrix gives, for any order of tacks and beads, to 1e-9 of the largest movement", () => {
    const structure = ladder(1);
    const model = weldedModel(fromStructure(structure).frame);
    const { steps } = tacksThenBeads(structure, { mitreTacks: 2, teeTacks: 2, teeBeads: 4 });
    const rows = Array.from({ length: model.freedoms }, (_, i) => ({ at: [i], value: [1] }));
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const random = seeded(seed);
        const order = [...steps].sort(() => random() - 0.5);
        const plan = compileLoads(new CompileCache(model, FACTORS), order);
        const run = new LowRankRun(condense(plan, rows), undefined, true);
        run.forward(plan, 0, plan.actions.length);
        const full = plainRun(plan, true).movements.at(-1);
        const largest = Math.max(...(full ?? []).map(Math.abs));
        run.gather(plan.actions.length).forEach((v, i) => {
          expect(Math.abs(v - (full?.[i] ?? Number.NaN)) / largest).toBeLessThan(1e-9);
        });
      }),
      { numRuns: 5, seed: 3 },
    );
  }, 60_000);
});
