import { type Condensed, condensing, LowRankRun, type MechanicalFrame } from "../mechanics";
import { sparseRows } from "../numeric";
import { type JointFactors, type ShrinkFactors, type WeldedModel, weldedModel } from "../weld";
import { CompileCache } from "./compileCache";
import { type CompiledSteps, compilingLoads } from "./compileSteps";
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

/** A frame that is ready to be worked through in an order. */
export interface Ready {
  model: WeldedModel;
  cache: CompileCache;
  plan: CompiledSteps;
  outputs: Outputs;
  condensed: Condensed;
}

/** A frame as it was condensed last: what is worked through on it again, or in another order of the same steps, begins from there. */
interface Kept extends Pick<Ready, "model" | "cache" | "condensed"> {
  key: string;
}

/** Frames that are kept: as drawn, for whatever order comes next; as set up, for its bands. */
export type KeepAs = "drawn" | "set up";
const kept = new Map<KeepAs, Kept>();
/** Entries of a condensed frame up to which it is kept: sixteen megabytes. */
const KEPT_ENTRIES = 2e6;

/**
 * Makes a frame ready for an order: its model, its loads, the frame condensed to what the steps touch.
 * @param keepAs under which it is kept; not at all when left out.
 */
export function* readied(
  frame: MechanicalFrame,
  steps: readonly SimulationStep[],
  factors: ShrinkFactors,
  joints: JointFactors,
  outputsOf: (model: WeldedModel) => Outputs,
  keepAs: KeepAs | null = null,
): Generator<number, Ready> {
  const key = keepAs ? JSON.stringify([frame, factors, joints, steps.filter((s) => s.do === "stop on")]) : "";
  const known = keepAs ? [...kept.values()].find((k) => k.key === key) : undefined;
  if (known) {
    const { model, cache, condensed } = known;
    const plan = yield* compilingLoads(cache, steps);
    const outputs = outputsOf(model);
    // What no step needed before was not condensed.
    const isWhole = plan.loads.length === condensed.loadColumns && plan.springs.length === condensed.springs.length;
    if (isWhole) return { model, cache, plan, outputs, condensed: { ...condensed, outputs: sparseRows(outputs.rows) } };
  }
  const model = weldedModel(frame, joints);
  yield 0;
  const cache = new CompileCache(model, factors, steps);
  const plan = yield* compilingLoads(cache, steps);
  const outputs = outputsOf(model);
  const condensed = yield* condensing(plan, outputs.rows);
  // A large one takes more room than it saves time.
  if (condensed.start.length > KEPT_ENTRIES) kept.clear();
  else if (keepAs) kept.set(keepAs, { key, model, cache, condensed });
  return { model, cache, plan, outputs, condensed };
}

/** Works through the steps of the nominal frame alone: neither bands nor what came on the way. See `readied`. */
export function* nominalRun(...how: Parameters<typeof readied>): Generator<number, NominalRun> {
  const { model, outputs, condensed, plan } = yield* readied(...how);
  const run = new LowRankRun(condensed);
  const out = yield* run.whole(plan);
  run.done();
  return { model, outputs, out };
}

/** Likely values of a run; those of which only draws can tell (a flatness) are not among them. */
export const likelyValues = (
  { model, outputs, out }: NominalRun,
  outcomes: (model: WeldedModel, outputs: Outputs) => Outcome[],
): LikelyValue[] =>
  outcomes(model, outputs)
    .filter((q) => !q.unsigned)
    .map((q) => ({ id: q.id, unit: q.unit, nominal: outcomeAt(q, out, 0) }));
