import { bareUnit, type UnitPreference } from "./format";
import { length } from "./length";
import type { Length } from "./lengthSchema";

/** A computed length as a person would have typed it: to 0.01 mm or a tenth of a thou. */
export const stated = (mm: number, units: UnitPreference): Length =>
  bareUnit(units) === "mm" ? length(String(+mm.toFixed(2) + 0)) : length(String(+(mm / 25.4).toFixed(4) + 0), "in");

/** A computed length to the last digit that a person could mean: a nanometre. */
export const statedExactly = (mm: number, units: UnitPreference): Length =>
  bareUnit(units) === "mm" ? length(String(+mm.toFixed(6) + 0)) : length(String(+(mm / 25.4).toFixed(8) + 0), "in");

/** A length as it was typed, with its unit where a bare number would mean another one here: nothing is nothing in either. */
export function typedText(value: Length, units: UnitPreference): string {
  const bare = !/[a-zµ"']/i.test(value.text);
  return bare && value.mm !== 0 && value.unit !== bareUnit(units) ? `${value.text} ${value.unit}` : value.text;
}
