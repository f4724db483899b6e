import { resolveFrame } from "../frame";
import { drain } from "../numeric";
import { simulationSteps, structureSteps } from "../plan";
import { type FramePrediction, predictFrame, predictStructure } from "../shrink";
import { builtOf } from "./built";
import { orderOf } from "./orderOf";
import type { Plan } from "./planSchema";
import { canPredict } from "./predictable";

/**
 * Predicts the plan's frame in the plan's order. A generator: yields the share done and may be left at any point.
 * @throws RangeError when the plan has errors: ask canPredict first.
 */
export function* predicting(plan: Plan): Generator<number, FramePrediction> {
  if (plan.free) {
    const { structure, frame } = builtOf(plan);
    if (!structure) throw new RangeError("The frame has errors.");
    return yield* predictStructure(structure, frame, plan.weld, structureSteps(structure, plan.weld, orderOf(plan)));
  }
  const frame = resolveFrame(plan.frame);
  return yield* predictFrame(frame, plan.weld, simulationSteps(frame, plan.weld, orderOf(plan)));
}

/** Predicts in one go. @returns null while the plan has errors. */
export const predict = (plan: Plan): FramePrediction | null => (canPredict(plan) ? drain(predicting(plan)) : null);
