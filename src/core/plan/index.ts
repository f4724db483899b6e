export { clampedMechanics } from "./clamps";
export { GATES, type Gate } from "./gates";
export { loadSteps } from "./loadSteps";
export { type Order, orderOfWork } from "./schools";
export { type LiesOn, type Step, stepKey } from "./step";
export { type StepId, stepIdSchema } from "./stepSchema";
export { faceWords, SCHOOL_WORDS, type StepWords, stepIdWords, stepWords } from "./stepWords";
