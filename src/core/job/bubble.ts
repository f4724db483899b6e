import { asShown, bareSlope, readSlant, type Slant, type UnitPreference } from "../units";
import type { Taken } from "./entrySchema";

type Bubble = NonNullable<Taken["bubble"]>;
type Packer = NonNullable<Taken["packer"]>;

/**
 * The slope that a bubble says, mm/m, up from where one steps to where one steps: the bubble goes to the high end.
 * Source: slope = divisions x sensitivity.
 */
export const bubbleMmPerM = ({ divisions, toward, perDivisionMmPerM }: Bubble): number =>
  (toward === "to" ? 1 : -1) * divisions * perDivisionMmPerM;

/** The slope that packers say which bring the bubble to the middle, mm/m: they lie under the low end. Source: 1000 t / base. */
export const packerMmPerM = ({ thick, base, under }: Packer): number =>
  ((under === "from" ? 1 : -1) * 1000 * thick.mm) / base.mm;

/** A slope that was worked out, as it would have been typed: to a thousandth. */
export function statedSlope(mmPerM: number, units: UnitPreference = "mm"): Slant {
  const read = readSlant(String(+asShown("slope", mmPerM, units).toFixed(3) + 0), bareSlope(units));
  if (!read.ok) throw new Error(read.message);
  return read.value;
}

/**
 * A level read, turned end for end and read again at the same place, each time as the bench lies.
 * @returns how the bench slopes and how far the level itself is out, mm/m. Source: closed form of the reversal.
 */
export const turnedLevel = (first: number, turned: number): { slope: number; zero: number } => ({
  slope: (first + turned) / 2,
  zero: (first - turned) / 2,
});
