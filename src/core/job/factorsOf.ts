import { cellOf, learnedFactors, type ShopCell } from "../learn";
import { FACTORS, isUnsure, type ShrinkFactors, unsureHeat } from "../weld";
import type { Plan } from "./planSchema";
import { materialOf, thinnestWallMm, weldOf } from "./settings";

/** Where a plan's factors are the same: its process, its thinnest wall, its metal. */
export const cellOfPlan = (plan: Plan): ShopCell => cellOf(plan.weld.process, thinnestWallMm(plan), materialOf(plan));

/** Factors of the shrinkage model that a plan is predicted with: what its shop had learned, heat that nobody read off a machine wider. */
export function factorsOf(plan: Plan): ShrinkFactors {
  const own = learnedFactors(FACTORS, plan.learned, cellOfPlan(plan));
  return isUnsure(weldOf(plan)) ? unsureHeat(own) : own;
}
