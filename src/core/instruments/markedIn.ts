import { bareUnit, MM_PER, type UnitPreference } from "../units";
import type { Instrument } from "./instrument";

/** Kinds that are read at printed marks: what shows digits shows them in either unit. */
const MARKED: readonly Instrument["kind"][] = ["tape", "rule"];
/** Inches are divided in sixty-fourths or in thousandths. */
const DIVISIONS = [64, 1000] as const;

const isWhole = (x: number): boolean => Math.abs(x - Math.round(x)) < 1e-6;

/** Whether an instrument's marks are of the unit that somebody reads in; one that shows digits is of both. */
export function isMarkedIn({ kind, resolutionMm }: Pick<Instrument, "kind" | "resolutionMm">, units: UnitPreference) {
  if (!MARKED.includes(kind)) return true;
  const inches = DIVISIONS.some((n) => isWhole((resolutionMm / MM_PER.in) * n));
  return inches === (bareUnit(units) === "in");
}

/** Instruments in their order, those in front whose marks are of the unit that somebody reads in. */
export const markedFirst = <I extends Pick<Instrument, "kind" | "resolutionMm">>(
  all: readonly I[],
  units: UnitPreference,
): I[] => [...all].sort((a, b) => Number(isMarkedIn(b, units)) - Number(isMarkedIn(a, units)));
