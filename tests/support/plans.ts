import type { DrawnFrame, Rectangle } from "@/core/frame";
import { newPlan, type Plan } from "@/core/job";
import type { UnitPreference } from "@/core/units";

/** A rectangle by its sizes: those of a new job, some of them changed. */
export const rectangle = (change: Partial<Rectangle> = {}, units: UnitPreference = "mm"): Rectangle => ({
  ...newPlan("x", units).frame.sizes,
  ...change,
});

/** A new job's plan with other sizes. */
export const sizesPlan = (change: Partial<Rectangle> = {}, units: UnitPreference = "mm"): Plan => ({
  ...newPlan("x", units),
  frame: { by: "sizes", sizes: rectangle(change, units) },
});

/** A new job's plan with a drawn frame. */
export function drawnPlan(drawn: DrawnFrame, units: UnitPreference = "mm"): Plan {
  const plan = newPlan("x", units);
  return { ...plan, frame: { by: "members", sizes: plan.frame.sizes, drawn } };
}

/** A plan with other sizes. */
export const sized = (plan: Plan, change: Partial<Rectangle>): Plan => ({
  ...plan,
  frame: { by: "sizes", sizes: { ...plan.frame.sizes, ...change } },
});

/** A plan with a drawn frame in place of its sizes. */
export const withDrawn = (plan: Plan, drawn: DrawnFrame): Plan => ({
  ...plan,
  frame: { by: "members", sizes: plan.frame.sizes, drawn },
});
