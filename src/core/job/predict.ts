import { drain } from "../numeric";
import { heldMechanics, laterGates, loadSteps } from "../plan";
import { type FramePrediction, type PredictHow, predictFrame } from "../shrink";
import { withHeatShare } from "../weld";
import { builtOf } from "./built";
import { factorsOf } from "./factorsOf";
import { heldOf } from "./held";
import type { Plan } from "./planSchema";
import { canPredict } from "./predictable";
import { weldOf } from "./settings";

/**
 * Predicts the plan's frame in the plan's order. A generator: yields the share done and may be left at any point.
 * @param how a share of the heat as planned, early values, and draws that are not the usual ones; the units are the plan's.
 * @throws RangeError when the plan has errors: ask canPredict first.
 */
export function* predicting(
  plan: Plan,
  { heatShare = 1, ...how }: Omit<PredictHow, "units" | "gates"> & { heatShare?: number } = {},
): Generator<number, FramePrediction> {
  const { structure, order, on } = builtOf(plan);
  if (!structure || !order) throw new RangeError("The frame has errors.");
  const held = heldOf(structure, plan);
  const { mechanics, by } = heldMechanics(structure, on, held);
  const planned = weldOf(plan);
  const weld = withHeatShare(planned, heatShare);
  const steps = loadSteps(structure, weld, order.steps, by);
  return yield* predictFrame(structure, mechanics, weld, steps, factorsOf(plan), {
    ...how,
    units: plan.units,
    gates: laterGates(order.steps),
  });
}

/** Predicts in one go. @returns null while the plan has errors. */
export const predict = (plan: Plan): FramePrediction | null => (canPredict(plan) ? drain(predicting(plan)) : null);
