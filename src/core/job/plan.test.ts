import { describe, expect, it } from "vitest";
import { length } from "../units";
import { newPlan, planProblems, restsGrid, restsUnder } from "./plan";
import { type Plan, planSchema } from "./planSchema";

const plan = newPlan("Test frame", "mm");
const OVER = { lengthMm: 1000, widthMm: 600, insetMm: 20 };

describe("a new plan", () => {
  it("lays rests in the unit that one works in, exactly", () => {
    for (const units of ["inch-fraction", "inch-decimal"] as const) {
      const { bed } = newPlan("Inch", units);
      expect(bed.rests.map((r) => `${r.x.text} ${r.y.text} ${r.x.unit}`)).toEqual([
        "1 1 in",
        "39 1 in",
        "1 23 in",
        "39 23 in",
      ]);
      // A grid closes on itself to the last digit, whatever the size.
      const grid = restsGrid({ lengthMm: 25.4 * 37.3125, widthMm: 25.4 * 23.1875 }, 8, 5, units);
      expect(grid.every((r) => r.x.unit === "in")).toBe(true);
      expect(Math.max(...grid.map((r) => r.x.mm))).toBeCloseTo(25.4 * 37.3125, 6);
    }
  });
  it("is whole and without problems, in every unit", () => {
    for (const units of ["mm", "inch-fraction", "inch-decimal"] as const) {
      const p = newPlan("x", units);
      expect(planSchema.safeParse(p).success).toBe(true);
      expect(planProblems(p)).toEqual([]);
      expect(p.bed.rests).toHaveLength(4);
    }
    expect(restsUnder(OVER, 6, "mm").map((r) => [r.x.mm, r.y.mm])).toEqual([
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
      rests: [...plan.bed.rests, { ...restsUnder(OVER, 4, "mm")[0], id: "R9" } as Plan["bed"]["rests"][number]],
    };
    expect(planProblems({ ...plan, bed: twice })[0]).toMatchObject({ path: "bed.rests.4.x" });
    expect(planSchema.safeParse({ ...plan, name: "  " }).error?.issues[0]?.message).toMatch(/name/);
  });
});
