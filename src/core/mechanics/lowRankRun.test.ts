import fc from "fast-check";
import { describe, expect, it, vi } from "vitest";
import { drawn } from "../../../tests/support/drawnFrames";
import { ladder, tacksThenBeads } from "../../../tests/support/ladder";
import { resolveStructure } from "../frame";
import { seeded } from "../numeric";
import { CompileCache, compileLoads, type SimulationStep } from "../shrink";
import { drawsOf } from "../shrink/draws";
import { scatteredOf } from "../shrink/simulate";
import { FACTORS, NOMINAL_JOINTS, weldedModel } from "../weld";
import { condense } from "./condensed";
import { fromStructure } from "./fromStructure";
import { MOST_UNITS } from "./kernel/heldKernel";
import type { Draws } from "./loadActions";
import { LowRankRun } from "./lowRankRun";
import { PackedSymmetric } from "./packedSymmetric";
import { plainRun } from "./plainRun";

/** Some of the draws, as draws of their own. */
function pickedFrom(draws: Draws, picked: readonly number[]): Draws {
  const some = (all: Float64Array): Float64Array => Float64Array.from(picked, (d) => all[d] as number);
  return {
    count: picked.length,
    shared: (names) => some(draws.shared(names)),
    bead: (id, besides) => some(draws.bead(id, besides)),
    joint: (id) => some(draws.joint(id)),
    gap: (joint) => some(draws.gap(joint)),
  };
}

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
        run.gather().forEach((v, i) => {
          expect(Math.abs(v - (full?.[i] ?? Number.NaN)) / largest).toBeLessThan(1e-9);
        });
      }),
      { numRuns: 5, seed: 3 },
    );
  }, 600_000);
  it("does so with seams along two members, and where one crosses over another: both are bent by a bead there", () => {
    const frame = drawn({
      RAIL: [
        [0, 0, 20],
        [700, 0, 20],
      ],
      BAR: [
        [50, 0, 60],
        [600, 0, 60],
      ],
      OVER: [
        [660, -200, 60],
        [660, 250, 60],
      ],
    });
    const { structure } = resolveStructure(frame);
    const model = weldedModel(fromStructure(structure).frame);
    const { steps } = tacksThenBeads(structure, { mitreTacks: 2, teeTacks: 2, teeBeads: 4 });
    const plan = compileLoads(new CompileCache(model, FACTORS), steps);
    const rows = Array.from({ length: model.freedoms }, (_, i) => ({ at: [i], value: [1] }));
    const run = new LowRankRun(condense(plan, rows), undefined, true);
    run.forward(plan, 0, plan.actions.length);
    const full = plainRun(plan, true).movements.at(-1);
    const largest = Math.max(...(full ?? []).map(Math.abs));
    expect(steps.length).toBeGreaterThan(8);
    run.gather().forEach((v, i) => {
      expect(Math.abs(v - (full?.[i] ?? Number.NaN)) / largest).toBeLessThan(1e-9);
    });
  });
  it("gives each of many draws what it gives a few of them by themselves", () => {
    const structure = ladder(2);
    const model = weldedModel(fromStructure(structure).frame);
    const { steps: welds, tacks } = tacksThenBeads(structure, { mitreTacks: 2, teeTacks: 2, teeBeads: 4 });
    const squareUp: SimulationStep = { do: "square up", id: "square", residualShare: 0.2 };
    const rows = Array.from({ length: model.freedoms }, (_, i) => ({ at: [i], value: [1] }));
    for (const seed of [1, 2, 3]) {
      const random = seeded(seed);
      const beads = welds.slice(tacks).sort(() => random() - 0.5);
      const steps = [...welds.slice(0, tacks), squareUp, ...beads];
      const plan = compileLoads(new CompileCache(model, FACTORS), steps);
      const condensed = condense(plan, rows);
      const all = drawsOf(FACTORS, 24, seed, scatteredOf(model, steps));
      const outputsOf = (draws: Draws): Float64Array => {
        const run = new LowRankRun(condensed, draws);
        run.forward(plan, 0, plan.actions.length);
        return run.gather();
      };
      const whole = outputsOf(all);
      const largest = Math.max(...whole.map(Math.abs));
      expect(largest).toBeGreaterThan(0.1);
      // Draw 0 is the nominal frame in every part.
      for (const picked of [
        [0, 1, 2, 3, 4, 5, 6, 7],
        [0, 8, 9, 10, 11, 12, 13, 14, 15],
        [0, 16, 17, 18, 19, 20, 21, 22, 23],
      ]) {
        const few = outputsOf(pickedFrom(all, picked));
        picked.forEach((d, k) => {
          for (let o = 0; o < rows.length; o++)
            expect(
              Math.abs((few[k * rows.length + o] ?? 0) - (whole[d * rows.length + o] ?? 1)) / largest,
            ).toBeLessThan(1e-9);
        });
      }
    }
  }, 600_000);
  it("does so, too, where more gives way in a step than rows have room for", () => {
    // Thin and hot: in all draws together some 140 lines and seams are asked about in a step, in one draw a few dozen.
    const structure = ladder(12, { size: "25", wall: "1.5", depth: "" });
    const model = weldedModel(fromStructure(structure).frame, { ...NOMINAL_JOINTS, gapMm: 0.1 });
    const { steps } = tacksThenBeads(structure, { mitreTacks: 4, teeTacks: 4, teeBeads: 4 }, 900);
    const plan = compileLoads(new CompileCache(model, FACTORS), steps);
    const rows = Array.from({ length: model.freedoms }, (_, i) => ({ at: [i], value: [1] }));
    const condensed = condense(plan, rows);
    const all = drawsOf(FACTORS, 64, 1, scatteredOf(model, steps));
    // Those find the room taken by others.
    const late = [60, 61, 62, 63];
    // What is asked about is asked of the frame once in a step.
    const reached = vi.spyOn(PackedSymmetric.prototype, "reach");
    const outputsOf = (draws: Draws): { out: Float64Array; asked: number } => {
      const run = new LowRankRun(condensed, draws);
      let asked = 0;
      run.forward(plan, 0, plan.actions.length, () => {
        asked = Math.max(asked, reached.mock.calls.length);
        reached.mockClear();
      });
      return { out: run.gather(), asked };
    };
    const { out: whole, asked } = outputsOf(all);
    expect(asked).toBeGreaterThan(MOST_UNITS);
    const { out: few, asked: fewer } = outputsOf(pickedFrom(all, [0, ...late]));
    expect(fewer).toBeLessThan(MOST_UNITS);
    reached.mockRestore();
    const largest = Math.max(...whole.map(Math.abs));
    late.forEach((d, k) => {
      for (let o = 0; o < rows.length; o++)
        expect(
          Math.abs((few[(k + 1) * rows.length + o] ?? 0) - (whole[d * rows.length + o] ?? 1)) / largest,
        ).toBeLessThan(1e-9);
    });
  }, 60_000);
});
