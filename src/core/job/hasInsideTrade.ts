import { builtOf } from "./built";
import type { Plan } from "./planSchema";

/** Whether a frame has insides of mitred corners that could be laid before or after other beads. */
export function hasInsideTrade(plan: Plan): boolean {
  const { structure, order } = builtOf(plan);
  if (!structure?.quad || !order) return false;
  const mitres = new Set(structure.joints.filter((j) => j.kind === "mitre").map((j) => j.id));
  const beads = order.steps.filter((s) => s.id.do === "bead");
  const insides = beads.filter((s) => s.line === "inside" && mitres.has(s.joint ?? ""));
  return insides.length > 0 && insides.length < beads.length;
}
