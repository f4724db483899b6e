import { frameProblems, resolveFrame } from "../frame";
import { drain } from "../numeric";
import { orderOfWork, simulationSteps } from "../plan";
import { type FramePrediction, fromFrame, heatJPerMm, mechanicalProblems, predictFrame, weldProblems } from "../shrink";
import type { Plan } from "./planSchema";

/** What a prediction depends on: plans that share this text share their prediction. */
export const predictionKey = (plan: Plan): string => JSON.stringify([plan.frame, plan.weld]);

/** Why a plan cannot be simulated, in words; null when it can. */
export function whyNoPrediction(plan: Plan): string | null {
  const wrong = [...frameProblems(plan.frame), ...weldProblems(plan.weld, plan.frame.section.wall.mm)].find(
    (p) => p.severity === "error",
  );
  if (wrong || !(heatJPerMm(plan.weld) > 0)) return "No prediction while the plan has errors.";
  const [problem] = mechanicalProblems(fromFrame(resolveFrame(plan.frame)));
  return problem ? `No prediction for this frame. ${problem.message}` : null;
}

/** Whether the order of a plan can be worked through. */
export const canPredict = (plan: Plan): boolean => whyNoPrediction(plan) === null;

/**
 * Predicts the plan's frame in the plan's order. A generator: yields the share done and may be left at any point.
 * @throws RangeError when the plan has errors: ask canPredict first.
 */
export function* predicting(plan: Plan): Generator<number, FramePrediction> {
  const frame = resolveFrame(plan.frame);
  return yield* predictFrame(frame, plan.weld, simulationSteps(frame, plan.weld, orderOfWork(frame)));
}

/** Predicts in one go. @returns null while the plan has errors. */
export const predict = (plan: Plan): FramePrediction | null => (canPredict(plan) ? drain(predicting(plan)) : null);

/** The order of work of a plan: key and words of every step; empty while the frame cannot be built. */
export const orderKeys = (plan: Plan): { key: string; say: string }[] =>
  frameProblems(plan.frame).some((p) => p.severity === "error")
    ? []
    : orderOfWork(resolveFrame(plan.frame)).map(({ key, say }) => ({ key, say }));
