import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { sized, withDrawn } from "../../../tests/support/plans";
import { length } from "../units";
import { following } from "./following";
import { newPlan } from "./plan";

const plan = newPlan("Bed", "mm");
const far = (p: typeof plan): number => Math.max(...p.bed.rests.map((r) => r.x.mm));

describe("rests under a frame that changes", () => {
  it("follow it while nobody placed them and nothing was surveyed", () => {
    const longer = sized(plan, { length: length("2400") });
    expect(far(following(plan, longer, false))).toBeCloseTo(far(plan) + 1400, 1);
    const drawn = withDrawn(plan, started("ladder", { length: 3000, width: 900 }));
    expect(far(following(plan, drawn, false))).toBeCloseTo(far(plan) + 2000, 1);
    expect(following(plan, longer, true)).toBe(longer);
  });
  it("stay where somebody placed them, and where the change is their own", () => {
    const hand = { ...plan, bed: { ...plan.bed, laid: undefined } };
    const longer = sized(hand, { length: length("2400") });
    expect(following(hand, longer, false)).toBe(longer);
    const moved = { ...plan, bed: { ...plan.bed, rests: plan.bed.rests.slice(1) } };
    expect(following(plan, moved, false)).toBe(moved);
  });
  it("stay while the frame has errors", () => {
    const broken = sized(plan, { length: length("1") });
    expect(following(plan, broken, false)).toBe(broken);
  });
});
