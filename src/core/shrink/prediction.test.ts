import { describe, expect, it } from "vitest";
import { sizesPlan } from "../../../tests/support/plans";
import { newPlan, predict, whyNoPrediction } from "../job";
import { length } from "../units";
import { outcomeKey } from "./outcomeId";

describe("beyond the model", () => {
  const plan = newPlan("x", "mm");
  it("a frame that would move by more than two hundredths of itself is not set off, and that is said first", () => {
    const limp = {
      ...plan.frame.sizes,
      width: length("120"),
      section: { profile: null, face: length("8"), depth: length("100"), wall: length("3") },
      cross: [{ id: "M1", at: length("500") }],
    };
    const hot = {
      ...plan,
      frame: { by: "sizes" as const, sizes: limp },
      weld: { ...plan.weld, volts: 50, amps: 600, travelMmPerS: 0.5, from: "machine" as const },
    };
    const found = predict(hot)?.prediction;
    expect(found?.reasons[0]).toMatch(/more than this model can say/);
    expect(found?.setUp.targets.find((t) => outcomeKey(t.id) === "AB")?.target.value).toBe(1000);
    for (const q of found?.outcomes ?? []) expect(Number.isFinite(q.nominal)).toBe(true);
    expect(predict(plan)?.prediction.reasons[0]).not.toMatch(/more than this model/);
  });
  it("a plan with errors has no prediction and says why", () => {
    const wrong = sizesPlan({ length: length("10") });
    expect(predict(wrong)).toBeNull();
    expect(whyNoPrediction(wrong)).toMatch(/while the plan has errors/);
    expect(whyNoPrediction(plan)).toBeNull();
  });
});
