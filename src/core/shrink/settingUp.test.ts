import { describe, expect, it, vi } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { drawnPlan, sized } from "../../../tests/support/plans";
import { newPlan, predict, predicting } from "../job";
import { drain, norm3 } from "../numeric";
import { length } from "../units";
import { outcomeKey } from "./outcomeId";
import * as simulating from "./simulate";

describe("set-up targets", () => {
  it("land the nominal frame on nominal: built off by them, the order brings it home", () => {
    const plan = newPlan("x", "mm");
    const found = predict(plan);
    if (!found) throw new Error("no prediction");
    const { setUp } = found.prediction;
    expect(setUp.leftMm).toBeLessThan(5e-3);
    for (const s of ["AB", "BC", "CD", "DA", "AC", "BD"]) {
      const target = setUp.targets.find((t) => outcomeKey(t.id) === s);
      const change = found.prediction.outcomes.find((q) => outcomeKey(q.id) === s);
      // Movement is linear in the corners to a few thousandths of itself.
      expect((target?.target.value ?? 0) + (change?.nominal ?? 0)).toBeCloseTo(target?.nominal ?? 0, 3);
      expect(target?.target.low).toBeLessThan(target?.target.value ?? 0);
    }
    expect(setUp.targets.find((t) => outcomeKey(t.id) === "AB")?.target.value).toBeGreaterThan(1000.1);
    const bow = found.prediction.outcomes.find((q) => outcomeKey(q.id) === "bow AB")?.nominal ?? 0;
    expect(setUp.targets.find((t) => outcomeKey(t.id) === "bow AB")?.target.value).toBeCloseTo(-bow, 12);
  });
  it("are set anew where a hot frame does not land on nominal by the first, until it does", () => {
    const plan = sized(newPlan("x", "mm"), { length: length("600"), width: length("500") });
    const weld = { ...plan.weld, volts: 30, amps: 250, travelMmPerS: 2, from: "machine" as const };
    const setUp = predict({ ...plan, weld })?.prediction.setUp;
    expect(setUp?.beyondMm).toBeNull();
    expect(setUp?.rounds).toBeGreaterThan(2);
    expect(setUp?.leftMm).toBeLessThan(5e-3);
  });
  it("stand still before bands are worked out where corners go far: draws of a gate leaf are worked through once", () => {
    const plan = drawnPlan(started("gate leaf", {}, squareTube(25, 2)));
    const moved = vi.spyOn(simulating, "simulate");
    const { setUp } = drain(predicting(plan, { draws: 2 })).prediction;
    expect(moved).toHaveBeenCalledTimes(1);
    moved.mockRestore();
    expect(setUp.rounds).toBeGreaterThan(2);
    expect(setUp.leftMm).toBeLessThan(5e-3);
    expect(Math.max(...Object.values(setUp.offsetsMm).map(norm3))).toBeGreaterThan(1);
  });
});
