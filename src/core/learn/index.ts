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
export { alongAtOneMm, buttAtOneMm, type CouponKind, type CouponResult, couponFactor } from "./couponFactor";
export { type Belief, believed, expected, information, type Learned, learn, sdsOf } from "./learn";
export { type Camber, type NextPreset, nextPreset, type Trial } from "./nextPreset";
export { type Cell, forget, inCell, pooledBelief } from "./pooled";
export { type LearnedScatter, learnScatter } from "./scatter";
export { type Surprise, surprise } from "./surprise";
export { logSd, type Scatter, type Teachable, type Teaching, USUAL_SCATTER } from "./teaching";
