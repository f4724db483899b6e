import { nice, ticks } from "d3";
import { asKept, asShown, type PhysicalKind, type UnitPreference } from "@/core/units";

type Domain = readonly [low: number, high: number];

/** Round figures of an axis, round in the unit that is shown: as they are kept. @param domain as it is kept. @param count about how many. */
export const shownTicks = ([low, high]: Domain, count: number, kind: PhysicalKind, units: UnitPreference): number[] =>
  ticks(asShown(kind, low, units), asShown(kind, high, units), count).map((t) => asKept(kind, t, units));

/** The domain of an axis widened to round figures of the unit that is shown; all of it as it is kept. */
export const niceShown = (
  [low, high]: Domain,
  count: number,
  kind: PhysicalKind,
  units: UnitPreference,
): [number, number] => {
  const [from, to] = nice(asShown(kind, low, units), asShown(kind, high, units), count);
  return [asKept(kind, from, units), asKept(kind, to, units)];
};
