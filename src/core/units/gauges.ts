import { formatLength, type UnitPreference } from "./format";
import { GAUGES_IN } from "./gaugeTable";
import { MM_PER } from "./length";

/** Number drills, in; the first is number 1. Source: ASME B94.11M, twist drills (from memory). */
const NUMBER_DRILLS_IN = [
  0.228, 0.221, 0.213, 0.209, 0.2055, 0.204, 0.201, 0.199, 0.196, 0.1935, 0.191, 0.189, 0.185, 0.182, 0.18, 0.177,
  0.173, 0.1695, 0.166, 0.161, 0.159, 0.157, 0.154, 0.152, 0.1495, 0.147, 0.144, 0.1405, 0.136, 0.1285, 0.12, 0.116,
  0.113, 0.111, 0.11, 0.1065, 0.104, 0.1015, 0.0995, 0.098,
] as const;
/** A fraction of an inch this near is the drill that one takes, mm. */
const FRACTION_WITHIN_MM = 0.1;

/** A drill as one asks for it: millimetres; in inches a fraction, or below a quarter the number that is nearest. */
export function drillWords(mm: number, preference: UnitPreference): string {
  if (preference === "mm") return formatLength(mm, "mm", { decimals: 1, trim: true }).text;
  const fraction = formatLength(mm, "inch-fraction", { denominator: 64 });
  const nearest = NUMBER_DRILLS_IN.reduce<number>(
    (best, d, i) =>
      Math.abs(d * MM_PER.in - mm) < Math.abs((NUMBER_DRILLS_IN[best] as number) * MM_PER.in - mm) ? i : best,
    0,
  );
  const off = Math.abs((NUMBER_DRILLS_IN[nearest] as number) * MM_PER.in - mm);
  return mm < MM_PER.in / 4 && off < Math.abs(fraction.roundingMm) && Math.abs(fraction.roundingMm) > FRACTION_WITHIN_MM
    ? `#${nearest + 1} (${formatLength((NUMBER_DRILLS_IN[nearest] as number) * MM_PER.in, "inch-decimal", { decimals: 1 }).text})`
    : fraction.text;
}

/** A wall this near to a gauge is that gauge, mm. */
const GAUGE_WITHIN_MM = 0.03;

/** A wall as one says it: in inches with its gauge where it has one, `0.065 in (16 ga)`. */
export function wallWords(mm: number, preference: UnitPreference): string {
  if (preference === "mm") return formatLength(mm, "mm", { decimals: 2, trim: true }).text;
  const fraction = formatLength(mm, "inch-fraction", { denominator: 64 });
  if (Math.abs(fraction.roundingMm) < 1e-6) return fraction.text;
  const gauge = Object.entries(GAUGES_IN).find(([, inch]) => Math.abs(inch * MM_PER.in - mm) < GAUGE_WITHIN_MM)?.[0];
  const text = formatLength(mm, "inch-decimal", { decimals: 1 }).text;
  return gauge ? `${text} (${gauge} ga)` : text;
}
