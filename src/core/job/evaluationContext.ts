import { type Limit, resolveLimits } from "../check";
import { footprint, MATERIALS, type ResolvedFrame, type Structure } from "../frame";
import type { Step } from "../plan";
import type { Prediction } from "../shrink";
import { type Places, placesOf, type SetUp, setUp } from "../square";
import type { Problem } from "../units";
import { builtOf } from "./built";
import type { Job } from "./jobSchema";
import { orderOf } from "./orderOf";
import { planProblems } from "./plan";
import { type Round, roundsOf } from "./rounds";

/** What every part of an evaluation starts from. */
export interface EvaluationContext {
  job: Job;
  problems: Problem[];
  structure: Structure | null;
  frame: ResolvedFrame | null;
  footprint: ResolvedFrame | null;
  places: Places | null;
  alphaPerK: number;
  prediction: Prediction | null;
  target: SetUp | null;
  limits: Limit[];
  rounds: Round[];
  steps: Step[];
  ticked: Set<string>;
}

export function evaluationContext(job: Job, predicted: Prediction | null): EvaluationContext {
  const { plan } = job;
  const problems = planProblems(plan);
  const broken = (area: string) => problems.some((p) => p.severity === "error" && p.path.startsWith(area));
  const { structure, frame } = builtOf(plan);
  const places = structure && placesOf(frame, structure);
  const over = frame ?? (structure && footprint(structure));
  const prediction = structure && !broken("weld") ? predicted : null;
  const ticked = new Set<string>();
  for (const entry of job.entries) {
    if (entry.kind !== "tick") continue;
    if (entry.done) ticked.add(entry.step);
    else ticked.delete(entry.step);
  }
  return {
    job,
    problems,
    structure,
    frame,
    footprint: over,
    places,
    alphaPerK: MATERIALS[over?.material ?? "mild steel"].alphaPerK,
    prediction,
    target: frame && prediction?.cornerMovesMm ? setUp(frame.corners, prediction.cornerMovesMm) : null,
    limits: over && !broken("limits") ? resolveLimits(plan.limits, over, frame !== null) : [],
    rounds: roundsOf(job.entries),
    steps: orderOf(plan),
    ticked,
  };
}
