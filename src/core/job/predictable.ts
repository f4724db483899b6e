import { resolveFrame } from "../frame";
import { fromStructure } from "../mechanics";
import { fromFrame } from "../shrink";
import { frameProblems, heatJPerMm, weldProblems } from "../weld";
import { builtOf } from "./built";
import { thinnestWallMm } from "./plan";
import type { Plan } from "./planSchema";

/** What a prediction depends on: plans that share this text share their prediction. */
export const predictionKey = (plan: Plan): string => JSON.stringify([plan.free ?? plan.frame, plan.weld]);

/** Joints up to which a frame is predicted. */
const MOST_JOINTS = 90;

/** Why a plan cannot be simulated, in words; null when it can. */
export function whyNoPrediction(plan: Plan): string | null {
  const { problems, structure } = builtOf(plan);
  const wrong = [...problems, ...weldProblems(plan.weld, thinnestWallMm(plan))].find((p) => p.severity === "error");
  if (wrong || !(heatJPerMm(plan.weld) > 0)) return "No prediction while the plan has errors.";
  if (plan.free && structure && structure.joints.length > MOST_JOINTS)
    return `No prediction for this frame: it has ${structure.joints.length} joints, and over ${MOST_JOINTS} take longer than anybody waits. Predict a part of it as a job of its own.`;
  const [problem] = frameProblems(
    plan.free && structure ? fromStructure(structure).frame : fromFrame(resolveFrame(plan.frame)),
  );
  return problem ? `No prediction for this frame. ${problem.message}` : null;
}

/** Whether the order of a plan can be worked through. */
export const canPredict = (plan: Plan): boolean => whyNoPrediction(plan) === null;
