import { orderOfWork, type Step, structureOrder } from "../plan";
import { builtOf } from "./built";
import type { Plan } from "./planSchema";

/** The order of work of what a plan builds; empty while its frame has errors. */
export function orderOf(plan: Plan): Step[] {
  const { structure, frame } = builtOf(plan);
  if (plan.free) return structure ? structureOrder(structure) : [];
  return frame ? orderOfWork(frame) : [];
}
