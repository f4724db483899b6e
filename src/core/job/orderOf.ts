import { orderOfWork, type Step, structureOrder } from "../plan";
import { builtOf } from "./built";
import type { Plan } from "./planSchema";

const KNOWN = new WeakMap<object, Step[]>();

/** The order of work of what a plan builds, worked out once for every frame; empty while it has errors. */
export function orderOf(plan: Plan): Step[] {
  const key = plan.free ?? plan.frame;
  const known = KNOWN.get(key) ?? order(plan);
  KNOWN.set(key, known);
  return known;
}

function order(plan: Plan): Step[] {
  const { structure, frame } = builtOf(plan);
  if (plan.free) return structure ? structureOrder(structure) : [];
  return frame ? orderOfWork(frame) : [];
}
