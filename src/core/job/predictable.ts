import { frameProblems, resolveFrame } from "../frame";
import { fromFrame, heatJPerMm, mechanicalProblems, weldProblems } from "../shrink";
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
