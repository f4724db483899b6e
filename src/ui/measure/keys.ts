import { formatLength, formatSmall, type UnitPreference } from "@/core/units";

/** Keys of the pad, three in a row, as a reading of these units is typed; a fraction key adds what it says. */
export function keysFor(units: UnitPreference, isSlant: boolean): readonly (readonly string[])[] {
  const digits = [
    ["7", "8", "9"],
    ["4", "5", "6"],
    ["1", "2", "3"],
  ];
  if (units === "inch-fraction" && !isSlant)
    return [...digits, ["space", "0", "/"], ["'", "-", "1/2"], ["1/4", "1/8", "1/16"]];
  return [...digits, [units === "mm" ? "," : ".", "0", "-"]];
}

/** A text with a key pressed at its end. A fraction stands one space behind the whole number. */
export function pressed(text: string, key: string): string {
  if (key === "space") return text === "" || text.endsWith(" ") ? text : `${text} `;
  if (/^1\/\d+$/.test(key))
    return text === "" || text.endsWith(" ") || text.endsWith("-") ? text + key : `${text} ${key}`;
  return text + key;
}

const INCH_MM = 25.4;
/** Marks of an inch rule, parts of an inch. */
const MARKS = [64, 32, 16];
/** So near a mark, parts of a step, a value is on it: what was shown was rounded. */
const ON_MARK = 0.05;

/** What one press moves a reading by: the instrument's step, in fractions the finest mark that is no finer than it. */
export function markMm(resolutionMm: number, units: UnitPreference): number {
  if (units !== "inch-fraction") return resolutionMm;
  return INCH_MM / (MARKS.find((n) => INCH_MM / n >= resolutionMm) ?? 16);
}

/** What one press moves a reading by, in words. */
export const markWords = (stepMm: number, units: UnitPreference): string =>
  units === "inch-fraction" ? formatLength(stepMm, units, { denominator: 64 }).text : formatSmall(stepMm, units);

/**
 * A reading one step of its instrument more or less, as it is typed in these units.
 * @param fromMm what stands in the field, or what is expected. @param stepMm the instrument's step.
 */
export function stepped(fromMm: number, stepMm: number, by: 1 | -1, units: UnitPreference): string {
  // To the next mark of the instrument: from between two marks one press reaches the nearer one in that direction.
  const marks = fromMm / stepMm;
  const next = (by > 0 ? Math.floor(marks + 1 + ON_MARK) : Math.ceil(marks - 1 - ON_MARK)) * stepMm;
  const mm = Math.abs(next) < stepMm / 1e6 ? 0 : next;
  if (units === "mm") return String(Number(mm.toFixed(4)));
  // A bare number is inches here.
  return formatLength(mm, units, { denominator: 64, decimals: 4, trim: true }).text.replace(/ in$/, "");
}
