import { describe, expect, it } from "vitest";
import { newPlan, predict } from "../job";
import { outcomeKey } from "./outcomeId";

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
});
