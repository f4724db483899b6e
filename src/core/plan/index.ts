export { clampedMechanics } from "./clamps";
export { GATES, type Gate } from "./gates";
export { likeRun } from "./likeRun";
export { loadSteps } from "./loadSteps";
export { type Order, orderOfWork } from "./schools";
export { SCHOOL_NAMES, schoolWords } from "./schoolWords";
export { type LiesOn, type Step, stepKey } from "./step";
export { type StepId, stepIdSchema } from "./stepSchema";
export { faceWords, jointWords, type StepWords, stepIdWords, stepWords } from "./stepWords";
