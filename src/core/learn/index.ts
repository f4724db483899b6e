export {
  type Book,
  bookOf,
  couponPower,
  type FactorLine,
  factorLines,
  type LessonLine,
  type Rightness,
  type ScoredReading,
} from "./book";
export {
  type Calibration,
  type Coverage,
  calibration,
  coverage,
  type Drift,
  drift,
  frameChi2,
  framesNeeded,
  type Scored,
  TOO_FEW,
} from "./calibration";
export { cellOf, METALS, type Metal, metalOf, type ShopCell, WALL_CLASSES } from "./cells";
export { alongAtOneMm, buttAtOneMm, type CouponKind, type CouponResult, couponFactor } from "./couponFactor";
export { type Belief, believed, expected, information, type Learned, learn, sdsOf } from "./learn";
export { LEARNABLE, type Learnable } from "./learnable";
export { beliefIn, learnedFactors, scatterOf, taughtBy } from "./learnedFactors";
export { lessonProblem } from "./lessonProblem";
export {
  addedLessonSchema,
  type CouponLesson,
  type FrameLesson,
  type Lesson,
  lessonSchema,
  type ShopLearned,
  shopLearnedSchema,
} from "./lessonSchema";
export { type Camber, type NextPreset, nextPreset, type Trial } from "./nextPreset";
export { type Cell, forget, inCell, pooledBelief } from "./pooled";
export { type LearnedScatter, learnScatter } from "./scatter";
export { couponAtOneMm, couponTeaching, learnShop, type ShopState, standingLessons, type Told } from "./shop";
export { type Surprise, surprise } from "./surprise";
export { logSd, type Scatter, type Teachable, type Teaching, USUAL_SCATTER } from "./teaching";
