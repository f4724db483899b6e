export { asWorked, without, withRepeat } from "./asWorked";
export { clampedMechanics } from "./clamps";
export { additionsTo, withAdded, withMoved } from "./editOrder";
export { GATES, type Gate, laterGates } from "./gates";
export { likeRun } from "./likeRun";
export { loadSteps } from "./loadSteps";
export {
  type OrderChoice,
  orderChoiceSchema,
  type SchoolId,
  TACK_SCHOOLS,
  type TackSchoolId,
  USUAL_ORDER,
  WELD_SCHOOLS,
  type WeldSchoolId,
} from "./orderSchema";
export { facesLeft, ownOrderProblems } from "./ownOrder";
export { canCutAndSet, chosenOrder, notForFrame, type Order, orderKey, orderOfWork } from "./schools";
export { orderWords, SCHOOL_NAMES, schoolWords } from "./schoolWords";
export { seamKind, seamPosition } from "./seam";
export { type LiesOn, type Step, stepKey, type Up } from "./step";
export { type StepId, stepIdSchema } from "./stepSchema";
export { faceWords, jointWords, type StepWords, stepIdWords, stepWords } from "./stepWords";
export {
  coolsFor,
  HANDLING_S,
  type Handling,
  interpassWait,
  type Timeline,
  timelineOf,
  timeWords,
  type Warmth,
  warmthOf,
} from "./timeline";
export { allJoints, upWhenFacing, type Workpiece, workpiece } from "./workpiece";
