import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, squareTube } from "../../../tests/support/drawnFrames";
import { built, ladder, simulationOf, tacksThenBeads } from "../../../tests/support/ladder";
import { rectangleProblems, resolveStructure, setJoint } from "../frame";
import { SIDES } from "../geometry";
import { newPlan, predict, predicting } from "../job";
import { fromStructure, plainRun } from "../mechanics";
import { drain, seeded } from "../numeric";
import { length } from "../units";
import { FACTORS, factorsFor, weldedModel } from "../weld";
import { CompileCache } from "./compileCache";
import { compileLoads } from "./compileSteps";
import { frameOutcomes, frameOutputs } from "./frameOutcomes";
import { outcomeKey } from "./outcomeId";
import { outcomeAt } from "./outcomes";
import { type SimulationInput, simulate } from "./simulate";

const frame = ladder(1);
const { steps, tacks } = tacksThenBeads(frame, { mitreTacks: 2, teeTacks: 2, teeBeads: 4 });
const input = (more: Partial<SimulationInput> = {}) => simulationOf(frame, steps, more);
const simulation = drain(simulate(input()));
const quantity = (id: string, of = simulation) => {
  const found = of.outcomes.find((q) => outcomeKey(q.id) === id);
  if (!found) throw new Error(`no ${id}`);
  return found;
};

describe("a simulation", () => {
  it("adds up: what the steps did is the final change, for every quantity", () => {
    for (const q of simulation.outcomes) {
      const sum = q.byStep.reduce((a, b) => a + b, 0);
      expect(sum).toBeCloseTo(q.nominal, 9);
      expect(q.after.at(-1)).toBeCloseTo(q.nominal, 9);
    }
    expect(simulation.outcomes.length).toBeGreaterThan(20);
  });
  it("shortens the frame, and gives every change a band that holds it", () => {
    for (const s of SIDES) {
      const { estimate } = quantity(s);
      expect(estimate.value).toBeLessThan(-0.05);
      expect(estimate.low).toBeLessThan(estimate.value);
      expect(estimate.high).toBeGreaterThan(estimate.value);
      expect(estimate.high).toBeLessThan(0);
    }
    // A flatness can only be added to by scatter: its likely value is above the nominal one.
    const flat = quantity("flat");
    expect(flat.estimate.value).toBeGreaterThan(flat.nominal);
    expect(flat.estimate.low).toBeGreaterThanOrEqual(0);
  });
  it("agrees with the full matrix in its quantities", () => {
    const { frame: beams, joints } = fromStructure(frame);
    const model = weldedModel(beams);
    const outputs = frameOutputs(frame, joints)(model);
    const u = plainRun(compileLoads(new CompileCache(model, FACTORS), steps)).movements.at(-1) as Float64Array;
    const out = Float64Array.from(outputs.rows, (r) =>
      r.at.reduce((s, f, i) => s + (r.value[i] as number) * (u[f] as number), 0),
    );
    for (const q of frameOutcomes(frame, joints)(model, outputs))
      expect(outcomeAt(q, out)).toBeCloseTo(quantity(outcomeKey(q.id)).nominal, 9);
  });
  it("is the same every time, and without draws is the nominal frame", () => {
    const again = drain(simulate(input()));
    expect(again.outcomes.map((q) => q.estimate)).toEqual(simulation.outcomes.map((q) => q.estimate));
    const bare = drain(simulate(input({ draws: 0 })));
    const { value, low, high } = quantity("AB", bare).estimate;
    for (const v of [value, low, high]) expect(v).toBeCloseTo(quantity("AB").nominal, 9);
  });
  it("narrows when a shop has learned its factors, and widens for another material", () => {
    const square = ladder(0);
    const plan = tacksThenBeads(square, { mitreTacks: 4, teeTacks: 0, teeBeads: 0 });
    const width = (factors: typeof FACTORS) => {
      const result = drain(simulate(simulationOf(square, plan.steps, { factors })));
      const { low, high } = quantity("AB", result).estimate;
      return high - low;
    };
    const mild = factorsFor(true) as typeof FACTORS;
    const learned = {
      ...mild,
      transverse: { ...mild.transverse, cv: 0.05 },
      perBead: { ...mild.perBead, cv: 0.1 },
    } as unknown as typeof FACTORS;
    expect(width(learned)).toBeLessThan(0.7 * width(mild));
    expect(width(factorsFor(false) as typeof FACTORS)).toBeGreaterThan(width(mild));
  });
  it("doubles what it does with double heat while nothing yields or touches", () => {
    const { frame: beams } = fromStructure(frame);
    const soft = { ...beams, material: { ...beams.material, yieldMPa: 1e6 } };
    const run = (heat: number) =>
      quantity(
        "AC",
        drain(
          simulate({
            ...input({
              draws: 0,
              factors: { ...FACTORS, gap: { ...FACTORS.gap, value: 50 } } as unknown as typeof FACTORS,
            }),
            frame: soft,
            steps: tacksThenBeads(frame, { mitreTacks: 2, teeTacks: 2, teeBeads: 4 }, heat).steps,
          }),
        ),
      ).nominal;
    expect(run(400)).toBeCloseTo(2 * run(200), 9);
  });
  it("bends two tubes that cross away from each other alike, whichever of them is said to run through", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(30, 40, 60),
        fc.constantFrom(2, 3, 4),
        fc.integer({ min: 300, max: 900 }),
        (face, wall, arm) => {
          const drawnTwo = drawn(
            {
              LOW: [
                [-arm, 0, face / 2],
                [arm, 0, face / 2],
              ],
              HIGH: [
                [0, -arm, 1.5 * face],
                [0, arm, 1.5 * face],
              ],
            },
            [squareTube(face, wall)],
          );
          const lifts = ["LOW", "HIGH"].map((through) => {
            const { structure } = resolveStructure(setJoint(drawnTwo, "LOW", "HIGH", { through }));
            expect(structure.joints).toMatchObject([{ a: through, kind: "lap" }]);
            const welds = tacksThenBeads(structure, { mitreTacks: 0, teeTacks: 4, teeBeads: 4 }, 300).steps;
            const of = drain(simulate(simulationOf(structure, welds, { draws: 0 })));
            return ["LOW", "HIGH"].map((m) => quantity(outcomeKey({ kind: "lift", member: m }), of).nominal);
          });
          for (const [low = 0, high = 0] of lifts) {
            // Seams above the one and below the other: its middle goes down, the other's up.
            expect(low).toBeLessThan(0);
            expect(-high / low).toBeGreaterThan(0.85);
            expect(-high / low).toBeLessThan(1.15);
          }
          expect((lifts[0]?.[0] ?? 0) / (lifts[1]?.[0] ?? 1)).toBeCloseTo(1, 0);
        },
      ),
      { numRuns: 12 },
    );
  });
  it("says which joints lie beyond the tables, and is less sure of them", () => {
    const deep = (depth: string) => drain(simulate(simulationOf(ladder(1, { size: "50", wall: "3", depth }), steps)));
    const [within, beyond] = [deep("99"), deep("101")];
    expect(beyond.notes.join()).toMatch(/All joints: tube more than twice as wide as high.*band is wider/);
    expect(within.notes).toEqual([]);
    const relative = (of: typeof simulation) => {
      const { value, low, high } = quantity("AB", of).estimate;
      return (high - low) / Math.abs(value);
    };
    expect(relative(beyond)).toBeGreaterThan(1.05 * relative(within));
  });
  it("says which tacks gave way, how hard clamps were pulled, and what tacks still hold", () => {
    const plan = predict(newPlan("x", "mm"));
    const thin = ladder(1, { size: "25", wall: "1.5", depth: "" });
    const hot = drain(
      simulate(simulationOf(thin, tacksThenBeads(thin, { mitreTacks: 2, teeTacks: 2, teeBeads: 4 }, 700).steps)),
    );
    expect(hot.yielded.length).toBeGreaterThan(0);
    expect(Math.max(...(plan?.replay.clampForces.flat().map((c) => Math.abs(c.forceN)) ?? []))).toBeGreaterThan(50);
    const open = drain(simulate(input({ draws: 0, steps: steps.slice(0, tacks) })));
    expect(open.tackForces).toHaveLength(tacks);
    expect(simulation.tackForces).toEqual([]);
  });
  it("yields often, so that it can be left at any time", () => {
    const work = predicting(newPlan("x", "mm"));
    let parts = 0;
    let last = -1;
    for (let step = work.next(); !step.done; step = work.next()) {
      expect(step.value).toBeGreaterThanOrEqual(0);
      expect(step.value).toBeLessThanOrEqual(1);
      last = step.value;
      parts++;
    }
    expect(parts).toBeGreaterThan(100);
    expect(last).toBeGreaterThan(0.8);
  });
});

describe("random frames", () => {
  const anyFrame = fc.record({
    side: fc.integer({ min: 300, max: 3000 }),
    width: fc.integer({ min: 300, max: 2000 }),
    face: fc.integer({ min: 20, max: 80 }),
    depth: fc.integer({ min: 20, max: 80 }),
    wall: fc.constantFrom(1.5, 2, 3, 4),
    rungs: fc.integer({ min: 0, max: 3 }),
    seed: fc.integer({ min: 1, max: 1e6 }),
    heat: fc.integer({ min: 100, max: 700 }),
  });
  it("are symmetric and positive definite, give numbers, and their steps add up", () => {
    fc.assert(
      fc.property(anyFrame, ({ side, width, face, depth, wall, rungs, seed, heat }) => {
        const size = { face: length(String(face)), depth: length(String(depth)), wall: length(String(wall)) };
        const plan = newPlan("p", "mm");
        const sizes = {
          ...plan.frame.sizes,
          length: length(String(side)),
          width: length(String(width)),
          section: { profile: null, ...size },
          cross: Array.from({ length: rungs }, (_, i) => ({
            id: `M${i + 1}`,
            at: length(String((side * (i + 1)) / (rungs + 1))),
          })),
        };
        fc.pre(rectangleProblems(sizes).length === 0);
        const resolved = built(sizes);
        const plans = tacksThenBeads(resolved, { mitreTacks: 2, teeTacks: 1, teeBeads: 2 }, heat);
        const random = seeded(seed);
        const order = [...plans.steps].sort(() => random() - 0.5);
        const result = drain(simulate(simulationOf(resolved, order, { draws: 4 })));
        for (const q of result.outcomes) {
          expect(Number.isFinite(q.nominal)).toBe(true);
          expect(Number.isFinite(q.estimate.low) && Number.isFinite(q.estimate.high)).toBe(true);
          expect(q.byStep.reduce((a, b) => a + b, 0)).toBeCloseTo(q.nominal, 6);
        }
        for (const out of result.history) expect(out.every(Number.isFinite)).toBe(true);
        const model = weldedModel(fromStructure(resolved).frame);
        const shop = new CompileCache(model, FACTORS);
        for (const state of [
          [0, 0, 0, 0],
          [10, 0, 0, 0],
          ["welded", 10, 0, 10],
          ["welded", "welded", "welded", "welded"],
        ] as const)
          for (const [j] of model.joints.entries()) {
            const { k: kj } = shop.jointAt(j, state);
            for (let a = 0; a < 6; a++) for (let b = 0; b < 6; b++) expect(kj[a * 6 + b]).toBe(kj[b * 6 + a]);
            // Any movement of the ring takes work.
            const d = Array.from({ length: 6 }, (_, i) => (random() - 0.5) / (i < 3 ? 1 : 50));
            let work = 0;
            for (let a = 0; a < 6; a++)
              for (let b = 0; b < 6; b++) work += (d[a] as number) * (kj[a * 6 + b] as number) * (d[b] as number);
            expect(work).toBeGreaterThan(0);
          }
      }),
      { numRuns: 25, seed: 5 },
    );
  }, 120_000);
});
