import { type Length, lengthParts } from "../units";
import type { Instrument } from "./instrument";

/** u of a reading rounded to steps of r: r / sqrt(12) (rectangular distribution; JCGM 100:2008, 4.3.7). */
export const uOfResolution = (stepMm: number): number => stepMm / Math.sqrt(12);

/** u of a quantity known to lie within +-a: a / sqrt(3) (rectangular distribution; JCGM 100:2008, 4.3.7). */
export const uOfLimit = (limitMm: number): number => limitMm / Math.sqrt(3);

/** Independent parts combine as the root of their squares (JCGM 100:2008, 5.1.2). */
const combineIndependent = (...parts: number[]): number => Math.hypot(...parts);

export const INSTRUMENT_KINDS = [
  "tape",
  "rule",
  "calliper",
  "feeler",
  "optical level",
  "height gauge",
  "spirit level",
  "angle gauge",
  "straightedge",
  "string line",
  "surface plate",
] as const;
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number];

/** What a tape is read to. */
export const READ_TO = ["edge", "scribe line", "marker line"] as const;
/** How far a line of that kind may be off where it is read, +-mm (common practice, no source). */
const LINE_LIMIT_MM: Record<(typeof READ_TO)[number], number> = {
  edge: 0,
  "scribe line": 0.1,
  "marker line": 0.5,
};

/** Tests that a shop makes of its own instruments. */
export const SELF_TESTS = ["hook", "known length", "reversal", "two pegs", "leaves", "turned over"] as const;
export type SelfTest = (typeof SELF_TESTS)[number];

/** What can be tested of each kind. */
export const TESTS_OF: Record<InstrumentKind, readonly SelfTest[]> = {
  tape: ["hook", "known length"],
  rule: ["known length"],
  calliper: ["known length"],
  feeler: ["leaves"],
  "optical level": ["two pegs"],
  "height gauge": ["known length"],
  "spirit level": ["reversal"],
  "angle gauge": ["reversal"],
  straightedge: ["turned over"],
  "string line": [],
  "surface plate": ["turned over"],
};

/** How far instruments of a kind usually reach, mm (common practice, no source). */
const REACH_MM: Record<InstrumentKind, number> = {
  tape: Number.POSITIVE_INFINITY,
  rule: 1000,
  calliper: 300,
  feeler: 2500,
  "optical level": Number.POSITIVE_INFINITY,
  "height gauge": 3000,
  "spirit level": Number.POSITIVE_INFINITY,
  "angle gauge": Number.POSITIVE_INFINITY,
  straightedge: 2500,
  "string line": Number.POSITIVE_INFINITY,
  "surface plate": 1000,
};

/** How far an instrument reaches, mm: a straightedge spans, a plate carries, a level is stepped or sighted on. */
export const reachOf = (i: Pick<Instrument, "kind" | "reachMm">): number => i.reachMm ?? REACH_MM[i.kind];

/** Instruments that show a slope: known by what they show over one metre. */
export const readsSlopes = (kind: InstrumentKind): boolean => kind === "spirit level" || kind === "angle gauge";

/** What one reading of an instrument is uncertain by. `uMm` is new each time; the other two are shared by its readings. */
interface ReadingUncertainty {
  uMm: number;
  uZeroMm: number;
  /** Dimensionless: mm per mm. */
  uScale: number;
}

/** A tape or rule is read at both ends, anything else once. */
const bothEnds = (kind: InstrumentKind): boolean => kind === "tape" || kind === "rule";

/**
 * Standard uncertainties of one reading of an instrument (1 sigma); of a slope: of the height over one metre.
 * @param instrument the instrument with its limits in mm. @returns independent and shared parts.
 */
export function readingUncertainty(instrument: Instrument): ReadingUncertainty {
  const ends = bothEnds(instrument.kind) ? Math.SQRT2 : 1;
  const line = LINE_LIMIT_MM[instrument.readTo ?? "edge"];
  return {
    uMm: combineIndependent(
      ends * uOfResolution(instrument.resolutionMm),
      uOfLimit(instrument.handlingMm),
      ends * uOfLimit(line),
    ),
    uZeroMm: uOfLimit(instrument.zeroMm),
    uScale: uOfLimit(instrument.scaleMmPerM) / 1000,
  };
}

/** @returns the standard uncertainty of a single reading of `mm` with everything, shared or not, combined. */
export const fullUncertainty = (u: ReadingUncertainty, mm: number): number =>
  combineIndependent(u.uMm, u.uZeroMm, u.uScale * mm);

/** A length as it was typed, with what a bare number means. */
type Typed = Pick<Length, "text" | "unit">;

/** Leaves count as the ones marked so within this, mm. */
const SAME_LEAF_MM = 0.0006;

/** A stack as it was typed, `0.5 + 0.05`, by the true thickness of its leaves; null when one of them is none of the set. */
function trueStack(typed: Typed, leaves: NonNullable<Instrument["leaves"]>): number | null {
  const parts = lengthParts(typed.text, typed.unit).map((mm) =>
    leaves.find((l) => Math.abs(l.markedMm - mm) < SAME_LEAF_MM),
  );
  return parts.length > 0 ? parts.reduce<number | null>((s, l) => (s === null || !l ? null : s + l.trueMm), 0) : null;
}

/**
 * A reading with everything taken off that is known of its instrument: the mark that it was read from, the zero and the
 * scale that a test found, the true thickness of its leaves.
 * @param readMm as it was read. @param typed as it was typed, for stacks of leaves.
 */
export function correctedMm(instrument: Instrument, readMm: number, typed: Typed | null = null): number {
  const stack = instrument.leaves && typed ? trueStack(typed, instrument.leaves) : null;
  const zeroed = (stack ?? readMm) - (instrument.fromMarkMm ?? 0) - (instrument.foundZeroMm ?? 0);
  // The collimation of an optical level goes with the sight, not with what the rod shows.
  return instrument.kind === "optical level" ? zeroed : zeroed / (1 + (instrument.foundScaleMmPerM ?? 0) / 1000);
}
