import { formatLength, formatSmall, physical, statedLength, type UnitPreference } from "../units";
import type { Limit } from "./limits";

/** A departure in a limit's own unit, or for a size the size itself. */
export const limitValueWords = (limit: Pick<Limit, "kind" | "unit">, value: number, units: UnitPreference): string =>
  limit.kind === "size" ? formatLength(value, units, { decimals: 2 }).text : limitSmallWords(limit, value, units);

/** A departure or an uncertainty in a limit's own unit. */
export const limitSmallWords = ({ unit }: Pick<Limit, "unit">, value: number, units: UnitPreference): string =>
  unit === "mm/m" ? physical("slope", value, units) : formatSmall(value, units, { decimals: 2 });

/**
 * A bound of a limit exactly as the job says it: never rounded into another bound.
 * @param bare without its unit, for a table that names it.
 */
export const boundWords = (
  { kind, unit }: Pick<Limit, "kind" | "unit">,
  bound: number,
  units: UnitPreference,
  bare = false,
): string =>
  unit === "mm/m"
    ? physical("slope", bound, units, undefined, bare)
    : statedLength(bound, kind === "size" || units === "mm" ? units : "inch-decimal", bare);

/** What a limit allows. */
export function allowedWords(limit: Limit, units: UnitPreference): string {
  const { lower, upper } = limit;
  const bound = (x: number): string => boundWords(limit, x, units);
  return lower !== null && upper !== null
    ? `${bound(lower)} to ${bound(upper)}`
    : upper !== null
      ? `at most ${bound(upper)}`
      : `at least ${bound(lower ?? 0)}`;
}
