import { builtOf, type Plan, weldOf } from "@/core/job";
import { heldOf } from "@/core/job/held";
import { drain } from "@/core/numeric";
import { heldMechanics, loadSteps } from "@/core/plan";
import { frameOutcomes, frameOutputs, outcomeKey, simulate } from "@/core/shrink";
import { FACTORS } from "@/core/weld";

/** What each outcome of a frame changes by from where it is put right on, by its key, when all heat is so many times the tables'. */
export function changesWhenHotter(plan: Plan, times: number): Record<string, number> {
  const { structure, order, on } = builtOf(plan);
  if (!structure || !order) throw new Error("no frame");
  const { mechanics, by } = heldMechanics(structure, on, heldOf(structure, plan));
  const steps = loadSteps(structure, weldOf(plan), order.steps, by);
  const { outcomes } = drain(
    simulate({
      frame: mechanics.frame,
      steps,
      outputs: frameOutputs(structure, mechanics.joints),
      outcomes: frameOutcomes(structure, mechanics.joints),
      factors: { ...FACTORS, transverse: { ...FACTORS.transverse, value: FACTORS.transverse.value * times } },
      draws: 0,
    }),
  );
  const gate = steps.findLastIndex((s) => s.do === "square up");
  return Object.fromEntries(
    outcomes.map((o) => [outcomeKey(o.id), o.nominal - (gate >= 0 ? (o.after[gate] ?? 0) : 0)]),
  );
}
