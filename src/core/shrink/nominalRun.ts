import { condensing, LowRankRun, type MechanicalFrame } from "../mechanics";
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

/** Works through the steps of the nominal frame alone: neither bands nor what came on the way. */
export function* nominalRun(
  frame: MechanicalFrame,
  steps: readonly SimulationStep[],
  factors: ShrinkFactors,
  joints: JointFactors,
  outputsOf: (model: WeldedModel) => Outputs,
): Generator<number, NominalRun> {
  const model = weldedModel(frame, joints);
  yield 0;
  const plan = yield* compilingLoads(new CompileCache(model, factors), steps);
  const outputs = outputsOf(model);
  const condensed = yield* condensing(plan, outputs.rows);
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
