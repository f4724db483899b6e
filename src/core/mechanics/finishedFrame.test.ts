import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ladder, tacksThenBeads } from "../../../tests/support/ladder";
import { CompileCache, compileLoads, type SimulationStep } from "../shrink";
import { FACTORS, weldedModel } from "../weld";
import { finishedFrame } from "./finishedFrame";
import { fromStructure } from "./fromStructure";
import { plainRun } from "./plainRun";

describe("a finished frame", () => {
  it("moves by a bead or a load as the full matrix says, whatever the frame and its walls", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 2 }),
        fc.constantFrom("2", "3", "5"),
        fc.constantFrom("50", "80"),
        fc.nat(100),
        (rungs, wall, depth, pick) => {
          const structure = ladder(rungs, { size: "50", wall, depth });
          const model = weldedModel(fromStructure(structure).frame);
          const { steps: order } = tacksThenBeads(structure, { mitreTacks: 1, teeTacks: 2, teeBeads: 4 });
          const beads = order.filter((s) => s.do === "bead");
          const again = beads[pick % beads.length] as Extract<SimulationStep, { do: "bead" }>;
          const [member] = [...model.members.values()];
          const load: SimulationStep = {
            ...{ id: "load", do: "load", member: member?.id ?? "" },
            ...{ point: model.nodes[member?.nodes[0] ?? 0]?.point ?? "", wrench: [3, -2, 1, 100, 50, -70] },
          };
          const more: SimulationStep[] = [{ ...again, id: "again" }, load];
          const plan = compileLoads(new CompileCache(model, FACTORS), [...order, ...more]);
          const movedBy = finishedFrame(plan, order.length);
          const { movements } = plainRun(plan, false);
          for (const i of more.keys()) {
            const [before, after] = [movements[order.length + i - 1], movements[order.length + i]];
            const largest = Math.max(...(after ?? []).map((v, k) => Math.abs(v - (before?.[k] ?? 0))));
            expect(largest).toBeGreaterThan(0);
            movedBy(order.length + i).forEach((v, k) => {
              expect(Math.abs(v - ((after?.[k] ?? 0) - (before?.[k] ?? 0))) / largest).toBeLessThan(1e-7);
            });
          }
        },
      ),
      { numRuns: 6 },
    );
  });
  it("refuses what would change its stiffness", () => {
    const structure = ladder(0);
    const model = weldedModel(fromStructure(structure).frame);
    const { steps } = tacksThenBeads(structure, { mitreTacks: 0, teeTacks: 0, teeBeads: 0 });
    const plan = compileLoads(new CompileCache(model, FACTORS), steps);
    expect(() => finishedFrame(plan, 3)(3)).toThrow(RangeError);
  });
});
