import { describe, expect, it } from "vitest";
import { ladder, tacksThenBeads } from "../../../tests/support/ladder";
import { condense, fromStructure, plainRun } from "../mechanics";
import { seeded } from "../numeric";
import { FACTORS, weldedModel } from "../weld";
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
    const cache = new CompileCache(model, FACTORS, steps);
    const search = new OrderSearch(cache, condense(compileLoads(cache, steps), outputs.rows));
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
});
