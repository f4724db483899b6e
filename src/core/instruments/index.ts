export { combine } from "./combine";
export { type Instrument, instrumentSchema } from "./instrument";
export { levelReversal } from "./levelReversal";
export { isMarkedIn, markedFirst } from "./markedIn";
export { oddOne } from "./oddOne";
export { selfTest, type TestReadings } from "./selfTests";
export { SHELF } from "./shelf";
export { bulgeAt, turnedEdge } from "./straightedge";
export { TAPE_CLASSES, type TapeClass, tapeLimitMm } from "./tapeLimit";
export { collimationMmPerM } from "./twoPeg";
export {
  correctedMm,
  fullUncertainty,
  INSTRUMENT_KINDS,
  type InstrumentKind,
  READ_TO,
  reachOf,
  readingUncertainty,
  readsSlopes,
  type SelfTest,
  TESTS_OF,
  uOfLimit,
  uOfResolution,
} from "./uncertainty";
