export { type AdjustStep, adjustStep } from "./adjustStep";
export { type Aim, aimOf } from "./aim";
export { BED_SHARE, type BedHeights, type BedVerdict, bedVerdict, type RestAdvice } from "./bedVerdict";
export { chanceWithin, HALF_BAND } from "./chance";
export { conformity } from "./conformity";
export {
  angleLimit,
  FLAT_CLASSES,
  type FlatClass,
  flatLimitMm,
  LINEAR_CLASSES,
  type LinearClass,
  linearLimitMm,
} from "./iso13920";
export { type Limit, limitName, limitProblems, resolveLimits } from "./limits";
export { type FlatBy, type Limits, limitsSchema } from "./limitsSchema";
export { type Proof, type Provable, provable, slipsThatShow } from "./provable";
export { tubeFits } from "./tubeTolerance";
export { type LimitVerdict, type Overall, overall, verdicts } from "./verdicts";
