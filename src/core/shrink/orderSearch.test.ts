import { describe, expect, it } from "vitest";
import { ladder, tacksThenBeads } from "../../../tests/support/ladder";
import { fromStructure, plainRun } from "../mechanics";
import { seeded } from "../numeric";
import { FACTORS, NOMINAL_JOINTS, weldedModel } from "../weld";
import { CompileCache } from "./compileCache";
import { compileLoads } from "./compileSteps";
import { frameOutputs } from "./frameOutcomes";
import { OrderSearch } from "./orderSearch";
import type { SimulationStep } from "./simulationSteps";

const frame = ladder(1);
const { steps, tacks } = tacksThenBeads(frame, { mitreTacks: 2, teeTacks: 2, teeBeads: 4 });

describe("searching over orders", () => {
  const beams = fromStructure(frame);
  const model = weldedModel(beams.frame);
  const outputs = frameOutputs(frame, beams.joints)(model);
  const random = seeded(3);
  const shuffle = (list: readonly SimulationStep[], from: number) => {
    const out = [...list];
    for (let i = out.length - 1; i > from; i--) {
      const j = from + Math.floor(random() * (i - from + 1));
      [out[i], out[j]] = [out[j] as SimulationStep, out[i] as SimulationStep];
    }
    return out;
  };
  const exactly = (order: readonly SimulationStep[]) => {
    const u = plainRun(compileLoads(new CompileCache(model, FACTORS), order)).movements.at(-1) as Float64Array;
    return outputs.rows.map((r) => r.at.reduce((s, f, i) => s + (r.value[i] as number) * (u[f] as number), 0));
  };
  it("gives the full matrix's answer to 1e-9 for any order, with and without a shared start", () => {
    const search = new OrderSearch(model, FACTORS, steps, outputs);
    let order: readonly SimulationStep[] = steps;
    for (let trial = 0; trial < 6; trial++) {
      order = shuffle(order, [tacks, 20, 30, tacks, 34, 0][trial] as number);
      const want = exactly(order);
      search.exact(order).forEach((v, o) => {
        expect(Math.abs(v - (want[o] as number))).toBeLessThan(1e-9);
      });
      const kept = search.exact(order, true).slice();
      expect([...search.exact(order, false)]).toEqual([...kept]);
    }
  });
  it("order matters, and the frozen screen leans the way of the exact answer", () => {
    const search = new OrderSearch(model, FACTORS, steps, outputs);
    const screen = search.screen(steps, tacks);
    const twist = outputs.points.filter((p) => p.member === null).map((p) => p.first + 2);
    const of = (out: Float64Array) => twist.reduce((s, o, i) => s + (i % 2 === 0 ? 1 : -1) * (out[o] as number), 0);
    const pairs = Array.from({ length: 24 }, () => {
      const order = shuffle(steps, tacks);
      return [of(search.exact(order)), of(screen.evaluate(order))] as const;
    });
    const mean = (i: 0 | 1) => pairs.reduce((s, p) => s + p[i], 0) / pairs.length;
    const [mx, my] = [mean(0), mean(1)];
    const sum = (f: (x: number, y: number) => number) => pairs.reduce((s, [x, y]) => s + f(x - mx, y - my), 0);
    const r = sum((x, y) => x * y) / Math.sqrt(sum((x) => x * x) * sum((_, y) => y * y));
    expect(Math.sqrt(sum((x) => x * x) / pairs.length)).toBeGreaterThan(0.01);
    // Weakly: what beads elsewhere stiffen is frozen, and that is most of a ladder's answer.
    expect(r).toBeGreaterThan(0.35);
  });
  it("the screen refuses an order that starts otherwise than what it froze", () => {
    const search = new OrderSearch(model, FACTORS, steps, outputs);
    const screen = search.screen(steps, tacks);
    expect(() => screen.evaluate([...steps].reverse())).toThrow(/other steps than the frozen/);
  });
  it("the screen is exact for the first joint welded while no seam elsewhere touches", () => {
    const apart = weldedModel(beams.frame, { ...NOMINAL_JOINTS, gapMm: null });
    const search = new OrderSearch(apart, FACTORS, steps, outputs);
    const order = steps.slice(0, tacks + 1);
    const exact = search.exact(order).slice();
    search
      .screen(order, tacks)
      .evaluate(order)
      .forEach((v, o) => {
        expect(v).toBeCloseTo(exact[o] as number, 9);
      });
  });
});
