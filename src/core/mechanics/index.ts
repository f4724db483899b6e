export { beamStiffness, extentAlong, toGlobal } from "./beam";
export { BoxProblem } from "./boxProblem";
export { type Condensed, condense, condensing, LEAST_FITUP } from "./condensed";
export { placeOfContact, postsOf, slipsOf } from "./contacts";
export { finishedFrame } from "./finishedFrame";
export {
  fromStructure,
  type JointPoints,
  lineOfFace,
  mechanicalKind,
  type Station,
  type StructureMechanics,
} from "./fromStructure";
export { LINES } from "./heldState";
export { SUPPORT } from "./holds";
export {
  type Action,
  type Attach,
  type ChordHeat,
  type CompiledLoads,
  type Draws,
  type JointStiffness,
  NO_DRAWS,
  type Seam,
  type Spring,
  type WeldAction,
} from "./loadActions";
export { type LetGo, LowRankRun, type Snapshot } from "./lowRankRun";
export type {
  BeamJoint,
  BeamJointKind,
  BeamMaterial,
  BeamMember,
  BeamSection,
  MechanicalFrame,
} from "./mechanicalFrame";
export {
  type BeamElement,
  type JointInput,
  type MadeJoint,
  type MechanicalModel,
  type ModelJoint,
  type ModelMember,
  modelOf,
} from "./model";
export { movedFrame, placedBy } from "./movedFrame";
export { columnOf } from "./ownUnknowns";
export { PackedSymmetric } from "./packedSymmetric";
export { plainRun, startingStiffness } from "./plainRun";
export { splitWhereBranchesLand } from "./splitMembers";
export { relativeRows } from "./springs";
export { underWeight, weightLoads } from "./underWeight";
