export { chordLoad } from "./chordLoad";
export { CHORD_EFFECT, FACTORS, type FactorName, factorsFor, type ShrinkFactors } from "./factors";
export { frameProblems } from "./frameProblems";
export { filletOfHeat, heatFromFillet, heatJPerMm, PROCESSES, type ProcessName, weldProblems } from "./heat";
export { type LineState, OPEN, type RingState } from "./jointKind";
export { lineIndex } from "./jointKinds";
export { rigidModel } from "./rigidModel";
export { beadBirth, ringStiffness, tackBirth } from "./ring";
export { SEAM_SHARES, type SeamKind, type SeamPosition, seamShare, startingSettings, unsureHeat } from "./starting";
export {
  NOMINAL_STIFFNESS,
  type StiffnessFactors,
  type WeldedJoint,
  type WeldedModel,
  weldedModel,
} from "./weldedModel";
export { type Weld, weldSchema } from "./weldSchema";
