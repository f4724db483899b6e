import { formatLength, formatSmall, physical, type UnitPreference } from "../units";
import type { Limit } from "./limits";

/** A departure in a limit's own unit, or for a size the size itself. */
export const limitValueWords = (limit: Pick<Limit, "kind" | "unit">, value: number, units: UnitPreference): string =>
  limit.kind === "size" ? formatLength(value, units, { decimals: 2 }).text : limitSmallWords(limit, value, units);

/** A departure or an uncertainty in a limit's own unit. */
export const limitSmallWords = ({ unit }: Pick<Limit, "unit">, value: number, units: UnitPreference): string =>
  unit === "mm/m" ? physical("slope", value, units) : formatSmall(value, units, { decimals: 2 });

/** What a limit allows. */
export function allowedWords(limit: Limit, units: UnitPreference): string {
  const { lower, upper } = limit;
  const size = (x: number): string => limitValueWords(limit, x, units);
  return lower !== null && upper !== null
    ? `${size(lower)} to ${size(upper)}`
    : upper !== null
      ? `at most ${size(upper)}`
      : `at least ${size(lower ?? 0)}`;
}
