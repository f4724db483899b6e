import { type Condensed, condensing, LowRankRun, type MechanicalFrame } from "../mechanics";
import { type JointFactors, type ShrinkFactors, type WeldedModel, weldedModel } from "../weld";
import { CompileCache } from "./compileCache";
import { compilingLoads } from "./compileSteps";
import { type Outcome, outcomeAt } from "./outcomes";
import type { Outputs } from "./outputs";
import type { SimulatedOutcome } from "./simulate";
import type { SimulationStep } from "./simulationSteps";

/** The nominal frame after all steps. */
export interface NominalRun {
  model: WeldedModel;
  outputs: Outputs;
  /** Movements, as the outputs ask for them, mm. */
  out: Float64Array;
}

/** A likely value that is known before its band is. */
export type LikelyValue = Pick<SimulatedOutcome, "id" | "unit" | "nominal">;

/** A frame as it was condensed last: another order of the same steps begins from it. */
interface Kept {
  key: string;
  model: WeldedModel;
  cache: CompileCache;
  /** What was asked of it, as a text. */
  rows: string;
  condensed: Condensed;
}
let kept: Kept | null = null;

/**
 * Works through the steps of the nominal frame alone: neither bands nor what came on the way.
 * @param keep whether the frame is condensed once for whatever order comes next.
 */
export function* nominalRun(
  frame: MechanicalFrame,
  steps: readonly SimulationStep[],
  factors: ShrinkFactors,
  joints: JointFactors,
  outputsOf: (model: WeldedModel) => Outputs,
  keep = false,
): Generator<number, NominalRun> {
  const key = keep ? JSON.stringify([frame, factors, joints, steps.filter((s) => s.do === "stop on")]) : "";
  if (kept && kept.key === key && key !== "") {
    const { model, cache, rows, condensed } = kept;
    const plan = yield* compilingLoads(cache, steps);
    const outputs = outputsOf(model);
    // What no step needed before, or nobody asked for, was not condensed.
    const isWhole = plan.loads.length === condensed.loadColumns && plan.springs.length === condensed.springs.length;
    if (isWhole && rows === JSON.stringify(outputs.rows))
      return { model, outputs, out: yield* new LowRankRun(condensed).whole(plan) };
  }
  const model = weldedModel(frame, joints);
  yield 0;
  const cache = new CompileCache(model, factors, steps);
  const plan = yield* compilingLoads(cache, steps);
  const outputs = outputsOf(model);
  const condensed = yield* condensing(plan, outputs.rows);
  if (keep) kept = { key, model, cache, rows: JSON.stringify(outputs.rows), condensed };
  return { model, outputs, out: yield* new LowRankRun(condensed).whole(plan) };
}

/** Likely values of a run; those of which only draws can tell (a flatness) are not among them. */
export const likelyValues = (
  { model, outputs, out }: NominalRun,
  outcomes: (model: WeldedModel, outputs: Outputs) => Outcome[],
): LikelyValue[] =>
  outcomes(model, outputs)
    .filter((q) => !q.unsigned)
    .map((q) => ({ id: q.id, unit: q.unit, nominal: outcomeAt(q, out, 0) }));
