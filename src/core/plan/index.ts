export { asWorked, without, withRepeat } from "./asWorked";
export { withBars } from "./bars";
export { additionsTo, withAdded, withMoved } from "./editOrder";
export { GATES, type Gate, laterGates } from "./gates";
export {
  BAR_KINDS,
  type Bar,
  type BarKind,
  type Held,
  type HeldBy,
  type HeldStop,
  heldMechanics,
  LIES,
  type Lies,
  PUT_ON,
  type PutOn,
  TAKEN_OFF,
  type TakenOff,
  USUALLY_HELD,
} from "./held";
export { type HeldWeld, type Hold, holdSchema } from "./holdSchema";
export {
  brokenHolds,
  circleOf,
  heldBack,
  holdOf,
  holdProblems,
  holdUntilWords,
  holdWords,
} from "./holds";
export { HOLD_UNTIL, type HoldUntil } from "./holdUntil";
export { lengthsOf, type SeamRun, seamRun } from "./laying";
export { type LaidBy, layEnd, layWelds, type WeldId } from "./layWelds";
export { likeRun } from "./likeRun";
export { loadSteps, putBackIn } from "./loadSteps";
export { type OrderChoice, orderChoiceSchema } from "./orderSchema";
export { coveredProblems, facesLeft, ownOrderProblems, uprightProblems } from "./ownOrder";
export { isOfWhole, measuredParts, type PartOfStep, partsOfSteps } from "./partOfStep";
export { type SchoolId, TACK_SCHOOLS, type TackSchoolId, WELD_SCHOOLS, type WeldSchoolId } from "./schoolIds";
export {
  canCutAndSet,
  canLieBottomUp,
  chosenOrder,
  notForFrame,
  type Order,
  orderKey,
  orderOfWork,
  ownChoice,
} from "./schools";
export { orderWords, SCHOOL_NAMES, schoolWords } from "./schoolWords";
export { seamKind, seamPosition } from "./seam";
export { seamCaution } from "./seamCaution";
export { type LiesOn, type Step, stepKey, turned, type Up } from "./step";
export { type StepId, stepIdSchema } from "./stepSchema";
export {
  ALONG_WORDS,
  barName,
  barWords,
  faceAlone,
  faceWords,
  jointWords,
  type StepWords,
  stepIdWords,
  stepsInWords,
  stepWords,
  weldWords,
} from "./stepWords";
export { hangingTogether, stillTurns } from "./stillTurns";
export {
  coolsFor,
  HANDLING_S,
  type Handling,
  type Hands,
  interpassWait,
  type Timeline,
  timelineOf,
  timelineWords,
  timeParts,
  timeWords,
  type Warmth,
  type Welder,
  warmthOf,
} from "./timeline";
export { USUAL_ORDER } from "./usualOrder";
export { allJoints, upWhenFacing, type Workpiece, workpiece } from "./workpiece";
