export { aimedSetUp, type Growth, growing, isNoGrowth, leanNoise, memberGrowth } from "./aimed";
export { CompileCache } from "./compileCache";
export { type CompiledSteps, compileLoads } from "./compileSteps";
export { bowWays, frameOutcomes, frameOutputs } from "./frameOutcomes";
export { type GapStiffness, gapStiffness } from "./gapStiffness";
export { largestSteps, replayed } from "./largestSteps";
export type { LikelyValue } from "./nominalRun";
export { OrderSearch } from "./orderSearch";
export { type OrderTrial, TriedFrame } from "./orderTrial";
export { type OutcomeId, outcomeKey, outcomeWords } from "./outcomeId";
export { bow } from "./outcomes";
export { type OutputPoint, type Outputs, outputsOf } from "./outputs";
export { lossOf, type PlaceTold, placesTold, predicted, type Told } from "./predicted";
export {
  type Drawn,
  type FramePrediction,
  type PredictedOutcome,
  type PredictHow,
  type Prediction,
  predictFrame,
  type Replay,
} from "./prediction";
export { KINK_RAD, moreBeads, type PullAt, remedyEffects, type UnitDeed, type UnitEffects } from "./remedyEffects";
export type { SetUpShape, SetUpTarget } from "./settingUp";
export { sharedAside } from "./sharedAside";
export { DRAWS, type SimulatedOutcome, type SimulationInput, simulate } from "./simulate";
export type { SimulationStep } from "./simulationSteps";
export { toldOutcomes } from "./toldOutcomes";
