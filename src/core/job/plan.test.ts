import { describe, expect, it } from "vitest";
import { length } from "../units";
import { newPlan, planProblems, restsUnder } from "./plan";
import { type Plan, planSchema } from "./planSchema";

const plan = newPlan("Test frame", "mm");
const OVER = { lengthMm: 1000, widthMm: 600, insetMm: 20 };

describe("a new plan", () => {
  it("is whole and without problems, in every unit", () => {
    for (const units of ["mm", "inch-fraction", "inch-decimal"] as const) {
      const p = newPlan("x", units);
      expect(planSchema.safeParse(p).success).toBe(true);
      expect(planProblems(p)).toEqual([]);
      expect(p.bed.rests).toHaveLength(4);
    }
    expect(restsUnder(OVER, 6).map((r) => [r.x.mm, r.y.mm])).toEqual([
      [20, 20],
      [500, 20],
      [980, 20],
      [20, 580],
      [500, 580],
      [980, 580],
    ]);
  });
  it("is refused with the field that is wrong", () => {
    expect(planProblems({ ...plan, bed: { ...plan.bed, pitch: length("0") } })[0]?.path).toBe("bed.pitch");
    const twice = {
      ...plan.bed,
      rests: [...plan.bed.rests, { ...restsUnder(OVER, 4)[0], id: "R9" } as Plan["bed"]["rests"][number]],
    };
    expect(planProblems({ ...plan, bed: twice })[0]).toMatchObject({ path: "bed.rests.4.x" });
    expect(planSchema.safeParse({ ...plan, name: "  " }).error?.issues[0]?.message).toMatch(/name/);
  });
});
