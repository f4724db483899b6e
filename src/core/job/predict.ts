import { drain } from "../numeric";
import { heldMechanics, laterGates, loadSteps } from "../plan";
import {
  type DrawnRun,
  type FramePrediction,
  type PredictHow,
  predictElsewhere,
  predictFrame,
  type WeldedFrame,
} from "../shrink";
import { withHeatShare } from "../weld";
import { builtOf } from "./built";
import { factorsOf } from "./factorsOf";
import { heldOf } from "./held";
import type { Plan } from "./planSchema";
import { canPredict } from "./predictable";
import { weldOf } from "./settings";

/** A plan's frame, and how it is predicted. */
function askedOf(plan: Plan, heatShare = 1): { frame: WeldedFrame; how: Pick<PredictHow, "units" | "gates"> } {
  const { structure, order, on } = builtOf(plan);
  if (!structure || !order) throw new RangeError("The frame has errors.");
  const { mechanics, by } = heldMechanics(structure, on, heldOf(structure, plan));
  const weld = withHeatShare(weldOf(plan), heatShare);
  const steps = loadSteps(structure, weld, order.steps, by);
  return {
    frame: { structure, mechanics, weld, steps, factors: factorsOf(plan) },
    how: { units: plan.units, gates: laterGates(order.steps) },
  };
}

/**
 * Predicts the plan's frame in the plan's order. A generator: yields the share done and may be left at any point.
 * @param how a share of the heat as planned, early values, draws that are not the usual ones or are worked through elsewhere; the units
 * are the plan's.
 * @throws RangeError when the plan has errors: ask canPredict first.
 */
export function* predicting(
  plan: Plan,
  { heatShare, ...more }: Omit<PredictHow, "units" | "gates"> & { heatShare?: number } = {},
): Generator<number, FramePrediction> {
  const { frame, how } = askedOf(plan, heatShare);
  return yield* predictFrame(frame, { ...more, ...how });
}

/** Draws of a plan's prediction after the first `own`, for somebody who works through those at the same time. */
export function* predictingElsewhere(plan: Plan, own: number): Generator<number, DrawnRun> {
  const { frame, how } = askedOf(plan);
  return yield* predictElsewhere(frame, how, own);
}

/** Predicts in one go. @returns null while the plan has errors. */
export const predict = (plan: Plan): FramePrediction | null => (canPredict(plan) ? drain(predicting(plan)) : null);
