import type { Instrument } from "./instrument";

/** u of a reading rounded to steps of r: r / sqrt(12) (rectangular distribution; JCGM 100:2008, 4.3.7). */
export const uOfResolution = (stepMm: number): number => stepMm / Math.sqrt(12);

/** u of a quantity known to lie within +-a: a / sqrt(3) (rectangular distribution; JCGM 100:2008, 4.3.7). */
export const uOfLimit = (limitMm: number): number => limitMm / Math.sqrt(3);

/** Independent parts combine as the root of their squares (JCGM 100:2008, 5.1.2). */
export const combineIndependent = (...parts: number[]): number => Math.hypot(...parts);

/** An estimate that a person may act on: the value with the band that holds about nine in ten. Units as its name says. */
export interface Estimate {
  value: number;
  low: number;
  high: number;
}

export const INSTRUMENT_KINDS = ["tape", "rule", "calliper", "feeler", "optical level", "height gauge"] as const;

/** What one reading of an instrument is uncertain by. `uMm` is new each time; the other two are shared by its readings. */
export interface ReadingUncertainty {
  uMm: number;
  uZeroMm: number;
  /** Dimensionless: mm per mm. */
  uScale: number;
}

/** A tape or rule is read at both ends, anything else once. */
const ENDS: Record<Instrument["kind"], number> = {
  tape: 2,
  rule: 2,
  calliper: 1,
  feeler: 1,
  "optical level": 1,
  "height gauge": 1,
};

/**
 * Standard uncertainties of one reading of an instrument (1 sigma).
 * @param instrument the instrument with its limits in mm. @returns independent and shared parts.
 */
export function readingUncertainty(instrument: Instrument): ReadingUncertainty {
  const ends = Math.sqrt(ENDS[instrument.kind]);
  return {
    uMm: combineIndependent(ends * uOfResolution(instrument.resolutionMm), uOfLimit(instrument.handlingMm)),
    uZeroMm: uOfLimit(instrument.zeroMm),
    uScale: uOfLimit(instrument.scaleMmPerM) / 1000,
  };
}

/** @returns the standard uncertainty of a single reading of `mm` with everything, shared or not, combined. */
export const fullUncertainty = (u: ReadingUncertainty, mm: number): number =>
  combineIndependent(u.uMm, u.uZeroMm, u.uScale * mm);
