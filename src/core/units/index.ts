export type { Estimate } from "./estimate";
export {
  bareUnit,
  farLength,
  fixed,
  formatLength,
  formatSmall,
  fraction,
  leavesWords,
  nearLength,
  plainLength,
  plainMm,
  rangeWords,
  roundedLength,
  statedLength,
  tapeStepMm,
  UNIT_PREFERENCES,
  type UnitPreference,
} from "./format";
export { drillWords, wallWords } from "./gauges";
export { type BareUnit, length, lengthParts, MM_PER, parseLength, readLength } from "./length";
export { type Length, lengthSchema } from "./lengthSchema";
export { asKept, asShown, inField, type Kind as PhysicalKind, physical, unitOf } from "./physical";
export { fail, ok, type Problem, type Result } from "./result";
export { bareSlope, readSlant, SLANT_UNITS, type Slant, type SlantUnit, slantMmPerM } from "./slant";
export { slantSchema } from "./slantSchema";
export { spokenText } from "./spoken";
export { stated, statedExactly, typedText } from "./stated";
export { isVisible } from "./visible";
export { visibleName } from "./visibleName";
