import { fromStructure } from "../mechanics";
import { orderKey, USUAL_ORDER } from "../plan";
import { frameProblems, heatJPerMm, weldProblems } from "../weld";
import { builtOf } from "./built";
import { usuallyLies } from "./held";
import type { Plan } from "./planSchema";
import { materialOf, thinnestWallMm, weldOf } from "./settings";

/** What every order of a plan's frame depends on. */
export function frameKey(plan: Plan): string {
  const { members, on } = builtOf(plan);
  // Where stops stand counts only where they hold.
  const { held, fixture, found } = plan;
  const stops = held?.stops ? [fixture?.side, fixture?.moved, fixture?.without] : null;
  const bearers = fixture?.bearers?.map(({ from, to }) => [from, to].map(({ x, y }) => [x.mm, y.mm]));
  const by = [held, stops, bearers, usuallyLies(plan)];
  return JSON.stringify([members, weldOf(plan), on, plan.units === "mm", by, found, plan.learned]);
}

/** What a prediction depends on: plans that share this text share their prediction. */
export function predictionKey(plan: Plan): string {
  // The usual order is the same whether it was chosen or not.
  const order = plan.order ?? USUAL_ORDER;
  return `${frameKey(plan)} ${orderKey(order)}`;
}

/** Joints up to which a frame is predicted: at so many its likely values take a minute or two, their bands a quarter of an hour. */
const MOST_JOINTS = 400;

/** How many joints a plan's frame has; none while it has errors. */
export const jointsOf = (plan: Plan): number => builtOf(plan).structure?.joints.length ?? 0;

/** Why a plan cannot be simulated, in words; null when it can. */
export function whyNoPrediction(plan: Plan): string | null {
  const { problems, structure } = builtOf(plan);
  const wrong = [...problems, ...weldProblems(weldOf(plan), thinnestWallMm(plan), materialOf(plan), plan.units)].find(
    (p) => p.severity === "error",
  );
  if (wrong || !structure || !(heatJPerMm(weldOf(plan)) > 0)) return "No prediction while the plan has errors.";
  if (structure.joints.length > MOST_JOINTS)
    return `No prediction for this frame: it has ${structure.joints.length} joints, and over ${MOST_JOINTS} take longer than anybody waits. Predict a part of it as a job of its own.`;
  const [problem] = frameProblems(fromStructure(structure).frame);
  return problem ? `No prediction for this frame. ${problem.message}` : null;
}

/** Whether the order of a plan can be worked through. */
export const canPredict = (plan: Plan): boolean => whyNoPrediction(plan) === null;
