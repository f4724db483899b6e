export { type AdjustStep, adjustStep } from "./adjustStep";
export { type Aim, aimOf } from "./aim";
export { BED_SHARE, type BedHeights, type BedVerdict, bedVerdict, type RestAdvice } from "./bedVerdict";
export { chanceWithin, HALF_BAND, normalBelow } from "./chance";
export { conformity } from "./conformity";
export {
  type BentMaterial,
  type BentSection,
  beadAcross,
  beadAlong,
  type CorrectionChoice,
  type CorrectionSteps,
  chanceAfter,
  EQUAL_CHANCE,
  evenPress,
  footWedge,
  type Go,
  type HeatEffect,
  heatSpot,
  heatWedge,
  jackPad,
  momentCurvature,
  type NextAmount,
  type NextPush,
  nextAmount,
  nextPush,
  type PlainRectangle,
  type Push,
  type Pushed,
  planCorrection,
  plasticSection,
  pressesToStraighten,
  pressMidspan,
  pressOverhang,
  type RemedyId,
  type RemedyOption,
  rackByDiagonal,
  remedyIdSchema,
  remedyKey,
  type Stands,
  threeBar,
  twistFrame,
  twistTube,
  wallClass,
  weldRingMoment,
} from "./correct";
export {
  angleLimit,
  FLAT_CLASSES,
  type FlatClass,
  flatLimitMm,
  LINEAR_CLASSES,
  type LinearClass,
  linearLimitMm,
} from "./iso13920";
export { type Limit, limitName, limitProblems, type Mouth, resolveLimits } from "./limits";
export { type FlatBy, type Limits, limitsSchema } from "./limitsSchema";
export { allowedWords, boundWords, limitSmallWords, limitValueWords } from "./limitWords";
export { type Proof, type Provable, provable, slipsThatShow } from "./provable";
export { steelTubes } from "./steelTubes";
export { tubeFits } from "./tubeTolerance";
export { type LimitVerdict, type Overall, overall, verdicts } from "./verdicts";
