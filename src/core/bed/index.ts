export { type Footprint, footprint, hasSidesAlong } from "./footprint";
export { type Lying, lying, type OnThree, onThreeRests, type RestPlace } from "./lying";
export { risersOver } from "./risers";
export { GRAVITY_N_PER_KG } from "./sagOnRests";
export {
  COMMON_LEAVES_MM,
  COMMON_THOU_MM,
  type FootTurn,
  footTurn,
  SHIM_MODES,
  type ShimMode,
  type ShimStack,
  shimStack,
  shims,
} from "./shims";
export { bestThree, footModes, fourFootLoads, fourPointRock, restOn, tipForceN } from "./support";
export { type Survey, type SurveyFit, type SurveyReading, survey } from "./survey";
export { splitTwist, turnedGaps } from "./tableTwist";
export { tubeSags } from "./tubeSags";
export { walkRests } from "./walkRests";
