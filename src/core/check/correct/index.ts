export { beadAcross, beadAlong, type HeatEffect, heatSpot, heatWedge, threeBar } from "./byHeat";
export { type Go, type NextAmount, type NextPush, nextAmount, nextPush, type Pushed } from "./nextTry";
export {
  evenPress,
  footWedge,
  momentCurvature,
  type PlainRectangle,
  type Push,
  pressesToStraighten,
  pressMidspan,
  pressOverhang,
  rackByDiagonal,
  twistFrame,
  twistTube,
} from "./pastYield";
export {
  type CorrectionChoice,
  type CorrectionSteps,
  chanceAfter,
  EQUAL_CHANCE,
  planCorrection,
  type RemedyOption,
  type Stands,
} from "./planCorrection";
export {
  type BentMaterial,
  type BentSection,
  jackPad,
  plasticSection,
  wallClass,
  weldRingMoment,
} from "./plasticSection";
export { type RemedyId, remedyIdSchema } from "./remedyId";
export { remedyKey } from "./remedyKey";
