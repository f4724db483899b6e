import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { drawnPlan } from "../../../tests/support/plans";
import type { Structure } from "../frame";
import { builtOf, type Plan } from "../job";
import { heldOf } from "../job/held";
import { weldOf } from "../job/settings";
import { heldMechanics, loadSteps } from "../plan";
import { CompileCache, compileLoads, type SimulationStep } from "../shrink";
import { FACTORS, NOMINAL_JOINTS, weldedModel } from "../weld";
import { condense } from "./condensed";
import { NO_DRAWS } from "./loadActions";
import { LowRankRun } from "./lowRankRun";
import { plainRun } from "./plainRun";

const FULL = 1e-9;

/** Two rings, the second on the first, worked one after the other: where the second turns on its tacks, it is put back alone. */
function stacked(
  held: Plan["held"],
  fields: Record<string, string> = {},
  mm = 40,
  how: Partial<SimulationStep> = {},
  tacks?: (structure: Structure) => (s: SimulationStep) => SimulationStep,
) {
  const plan = { ...drawnPlan(started("two frames stacked", fields, squareTube(mm, 2))), held };
  const { structure, order, on } = builtOf(plan);
  if (!structure || !order) throw new Error("no frame");
  const { mechanics, by } = heldMechanics(structure, on, heldOf(structure, plan));
  const steps = loadSteps(structure, weldOf(plan), order.steps, by)
    .map((s): SimulationStep => (s.do === "square up" && s.members ? ({ ...s, ...how } as SimulationStep) : s))
    .map(tacks?.(structure) ?? ((s) => s));
  const model = weldedModel(mechanics.frame, { ...NOMINAL_JOINTS, gapMm: 0.2 });
  const loads = compileLoads(new CompileCache(model, FACTORS, steps), steps);
  const squared = steps.findIndex((s) => s.do === "square up" && s.members !== undefined);
  const square = steps[squared];
  return { model, steps, loads, squared, members: square?.do === "square up" ? (square.members ?? []) : [] };
}

/** Tacks within some members, without heat. */
const coldTacks =
  (members: readonly string[]) =>
  ({ joints }: Structure) =>
  (s: SimulationStep): SimulationStep => {
    const joint = s.do === "tack" ? joints.find((j) => j.id === s.joint) : undefined;
    const isIn = joint !== undefined && [joint.a, joint.b].every((m) => members.includes(m));
    return isIn ? ({ ...s, heatJPerMm: 0 } as SimulationStep) : s;
  };

/** Movement of every freedom after each step. */
function movedBy({ model, loads }: Pick<ReturnType<typeof stacked>, "model" | "loads">): Float64Array[] {
  const rows = Array.from({ length: model.freedoms }, (_, i) => ({ at: [i], value: [1] }));
  const run = new LowRankRun(condense(loads, rows), NO_DRAWS, true);
  const after: Float64Array[] = [];
  run.forward(loads, 0, loads.actions.length, (a) => {
    if (loads.stepOf[a + 1] !== loads.stepOf[a]) after[loads.stepOf[a] ?? 0] = run.gather().slice();
  });
  return after;
}

describe("a part that is put back while the rest is welded", () => {
  it("gives what the full matrix gives, to 1e-9 of the largest movement", () => {
    for (const how of [{}, { residualShare: 0.3 }, { residualShare: 0.25, holds: true }]) {
      const frame = stacked({}, {}, 40, how);
      const full = plainRun(frame.loads, true).movements;
      movedBy(frame).forEach((moved, s) => {
        const largest = Math.max(1e-3, ...(full[s] ?? []).map(Math.abs));
        moved.forEach((v, i) => {
          expect(Math.abs(v - (full[s]?.[i] ?? Number.NaN)) / largest).toBeLessThan(FULL);
        });
      });
    }
  }, 600_000);
  it("goes back by what it moved, in its plane, and the rest stays where it is, whatever holds them", () => {
    const sizes = fc.record({ length: fc.integer({ min: 700, max: 1800 }), width: fc.integer({ min: 500, max: 900 }) });
    const held = fc.constantFrom<Plan["held"]>({}, { lies: "weight" }, { stops: true }, { lies: "loose" });
    fc.assert(
      fc.property(sizes, fc.constantFrom(30, 40, 50), held, fc.constantFrom(0, 0.3), (size, mm, by, residualShare) => {
        const fields = { length: String(size.length), width: String(size.width) };
        const frame = stacked(by, fields, mm, { residualShare });
        const { model, squared, members } = frame;
        expect(squared).toBeGreaterThan(0);
        const moved = movedBy(frame);
        // As if its tacks had drawn nothing: there it is put back to.
        const cold = movedBy(stacked(by, fields, mm, { residualShare }, coldTacks(members)));
        const inPlane = (of: Float64Array | undefined, isIn: boolean): number[] =>
          model.nodes.flatMap(({ member }, n) =>
            members.includes(member) === isIn ? [of?.[6 * n] ?? Number.NaN, of?.[6 * n + 1] ?? Number.NaN] : [],
          );
        const drawn = (isIn: boolean): number[] => {
          const base = inPlane(cold[squared - 1], isIn);
          return inPlane(moved[squared - 1], isIn).map((v, i) => v - (base[i] ?? Number.NaN));
        };
        const most = Math.max(...drawn(true).map(Math.abs));
        expect(most).toBeGreaterThan(0.01);
        for (const isIn of [true, false]) {
          const [now, base, tacked] = [inPlane(moved[squared], isIn), inPlane(cold[squared], isIn), drawn(isIn)];
          now.forEach((v, i) => {
            const left = isIn ? residualShare * (tacked[i] ?? 0) : 0;
            expect(Math.abs(v - (base[i] ?? Number.NaN) - left)).toBeLessThan(0.05 * most);
          });
        }
      }),
      { numRuns: 12 },
    );
  }, 600_000);
});
