export type { Estimate } from "./estimate";
export {
  bareUnit,
  fixed,
  formatLength,
  formatSmall,
  fraction,
  plainMm,
  roundedLength,
  UNIT_PREFERENCES,
  type UnitPreference,
} from "./format";
export { type BareUnit, length, lengthParts, parseLength, readLength } from "./length";
export { type Length, lengthSchema } from "./lengthSchema";
export { fail, ok, type Problem, type Result } from "./result";
export { readSlant, type Slant, type SlantUnit, slantMmPerM } from "./slant";
export { slantSchema } from "./slantSchema";
export { stated, statedExactly, typedText } from "./stated";
