export { kinkLoad } from "./chordLoad";
export { consumed, consumedWords, discWords, fedWords } from "./consumables";
export {
  COLD_RISE_K,
  type CoolingJoint,
  coolingJoint,
  type HeatPulse,
  interpassRiseK,
  riseK,
  secondsUntil,
  TOUCH_RISE_K,
} from "./cooling";
export { lineLengthMm } from "./faces";
export { FACTORS, type FactorName, factorsFor, type ShrinkFactors, TOGETHER } from "./factors";
export { frameProblems } from "./frameProblems";
export {
  closingPerGap,
  filletOfHeat,
  heatFromFillet,
  heatJPerMm,
  heatOfFilling,
  PROCESSES,
  type ProcessName,
  weldProblems,
} from "./heat";
export { type ChordPlace, type LineState, OPEN, type WeldState } from "./jointKind";
export { lineIndex } from "./jointKinds";
export { rigidModel } from "./rigidModel";
export {
  type ArcSettings,
  isUnsure,
  processesOf,
  processOf,
  seamHow,
  seamId,
  settingsBy,
  type WeldPlace,
  withHeatShare,
  withSeamHow,
} from "./seamHow";
export {
  SEAM_KINDS,
  SEAM_POSITIONS,
  SEAM_SHARES,
  type SeamKind,
  type SeamPosition,
  seamShare,
  startingSettings,
  startingTackMm,
  unsureHeat,
} from "./starting";
export { chordHeat, jointStiffness } from "./stateOfJoint";
export { BEAD_RESULTS, type BeadOn, beadsOn, provenOn } from "./testBead";
export { type TestBead, testBeadSchema } from "./testBeadSchema";
export {
  type JointFactors,
  NOMINAL_JOINTS,
  type WeldedJoint,
  type WeldedModel,
  weldedModel,
} from "./weldedModel";
export { type SeamHow, type Weld, weldSchema } from "./weldSchema";
