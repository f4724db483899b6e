import { type Footprint, footprint } from "../bed";
import { type Limit, resolveLimits } from "../check";
import { MATERIALS, type Structure, seenAt } from "../frame";
import { CORNERS, type Corner } from "../geometry";
import type { Vec2 } from "../numeric";
import type { Order } from "../plan";
import type { Prediction } from "../shrink";
import { type Places, placesOf, type SetUp, setUp } from "../square";
import type { Problem } from "../units";
import { builtOf } from "./built";
import type { Job } from "./jobSchema";
import { planProblems } from "./plan";
import { type Round, roundsOf } from "./rounds";
import { tickKey } from "./tickId";

/** What every part of an evaluation starts from. */
export interface EvaluationContext {
  job: Job;
  problems: Problem[];
  structure: Structure | null;
  footprint: Footprint | null;
  places: Places | null;
  alphaPerK: number;
  prediction: Prediction | null;
  /** Corners to set up, for a frame that has them. */
  target: SetUp | null;
  limits: Limit[];
  rounds: Round[];
  order: Order | null;
  /** Keys of what stands ticked. */
  ticked: Set<string>;
}

/** Corners of a structure set off by what its prediction says; null without corners or prediction. */
function targetOf({ quad }: Structure, prediction: Prediction): SetUp | null {
  if (!quad) return null;
  const { offsetsMm } = prediction.setUp;
  const offset = (c: Corner): Vec2 => seenAt(offsetsMm[quad.joints[c]] ?? [0, 0, 0], quad.view);
  return setUp(quad.corners, Object.fromEntries(CORNERS.map((c) => [c, offset(c)])) as Record<Corner, Vec2>);
}

export function evaluationContext(job: Job, predicted: Prediction | null): EvaluationContext {
  const { plan } = job;
  const problems = planProblems(plan);
  const broken = (area: string) => problems.some((p) => p.severity === "error" && p.path.startsWith(area));
  const { structure, order } = builtOf(plan);
  const over = structure && footprint(structure);
  const prediction = structure && !broken("weld") ? predicted : null;
  const ticked = new Set<string>();
  for (const entry of job.entries) {
    if (entry.kind !== "tick") continue;
    const key = tickKey(entry.step);
    if (entry.done) ticked.add(key);
    else ticked.delete(key);
  }
  return {
    job,
    problems,
    structure,
    footprint: over,
    places: structure && placesOf(structure),
    alphaPerK: MATERIALS[structure?.members[0]?.material ?? "mild steel"].alphaPerK,
    prediction,
    target: structure && prediction && targetOf(structure, prediction),
    limits: structure && over && !broken("limits") ? resolveLimits(plan.limits, over, structure.quad) : [],
    rounds: roundsOf(job.entries),
    order,
    ticked,
  };
}
