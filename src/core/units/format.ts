import { MM_PER } from "./length";

/** How a person wants lengths shown. */
export type UnitPreference = "mm" | "inch-fraction" | "inch-decimal";
export const UNIT_PREFERENCES: readonly UnitPreference[] = ["mm", "inch-fraction", "inch-decimal"];

/** What a bare number means under a preference. */
export const bareUnit = (preference: UnitPreference): "mm" | "in" => (preference === "mm" ? "mm" : "in");

/** A number rounded to the nearest n-th, as text, with what the rounding did. */
interface Fraction {
  text: string;
  value: number;
  /** value - exact */
  error: number;
}

const EDGE = 1e-9;

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}

/**
 * Nearest 1/den, ties away from zero, carried and reduced. Source: closed form (long division).
 * @param x the number. @param den denominator, a whole number >= 1.
 */
export function fraction(x: number, den: number): Fraction {
  const n = Math.floor(Math.abs(x) * den + 0.5 + EDGE);
  const negative = x < 0 && n > 0;
  const whole = Math.floor(n / den);
  const top = n - whole * den;
  const divisor = gcd(top, den) || 1;
  const parts: string[] = [];
  if (whole > 0 || top === 0) parts.push(String(whole));
  if (top > 0) parts.push(`${top / divisor}/${den / divisor}`);
  const value = ((negative ? -1 : 1) * n) / den;
  return { text: (negative ? "-" : "") + parts.join(" "), value, error: value - x };
}

/** A length as shown, with what the rounding did to it. */
interface ShownLength {
  /** With its unit, for example `47 1/4 in`. */
  text: string;
  /** Shown minus exact, mm. */
  roundingMm: number;
}

interface FormatOptions {
  /** Decimals of millimetres, default 1. Decimal inches get two more. */
  decimals?: number;
  /** Denominator of inch fractions, default 32. */
  denominator?: number;
  /** Write a plus before positive numbers (movements, margins). */
  signed?: boolean;
  /** Leave the unit out (table with the unit in its head). */
  bare?: boolean;
  /** Leave out zeros that end a decimal: `1200 mm`. */
  trim?: boolean;
}

const MINUS = "\u2212";
const plainDigits = (text: string): string => text.replace(MINUS, "-");
const typographic = (text: string): string => text.replace(/^-/, MINUS);

/** @param x a number. @param decimals places. @returns fixed places, a real minus sign and never a negative zero. */
export function fixed(x: number, decimals: number): string {
  // A value on the edge of rounding must not depend on the last bit: two engines differ there, and so would two screens.
  const text = (x + Math.sign(x) * EDGE).toFixed(decimals);
  return typographic(Number(text) === 0 ? text.replace("-", "") : text);
}

/**
 * Shows a length in the unit that a person chose.
 * @param mm the length. @param preference the unit. @param options see {@link FormatOptions}.
 */
export function formatLength(mm: number, preference: UnitPreference, options: FormatOptions = {}): ShownLength {
  const { decimals = 1, denominator = 32, signed = false, bare = false, trim = false } = options;
  let digits: string;
  let shownMm: number;
  let unit: string;
  if (preference === "mm") {
    digits = fixed(mm, decimals);
    shownMm = Number(plainDigits(digits));
    unit = "mm";
  } else if (preference === "inch-decimal") {
    const inches = mm / MM_PER.in;
    digits = fixed(inches, decimals + 2);
    shownMm = Number(plainDigits(digits)) * MM_PER.in;
    unit = "in";
  } else {
    const f = fraction(mm / MM_PER.in, denominator);
    digits = typographic(f.text);
    shownMm = f.value * MM_PER.in;
    unit = "in";
  }
  if (trim && digits.includes(".")) digits = digits.replace(/\.?0+$/, "");
  if (signed && shownMm > 0) digits = `+${digits}`;
  return { text: bare ? digits : `${digits} ${unit}`, roundingMm: shownMm - mm };
}

/**
 * Small lengths (shims, nudges, shrinkage): a fraction of an inch is too coarse for them, so inches are decimal here.
 * @param mm the length. @param preference the unit. @param options see {@link FormatOptions}; default two decimals of mm.
 */
export function formatSmall(mm: number, preference: UnitPreference, options: FormatOptions = {}): string {
  const decimals = options.decimals ?? 1;
  return formatLength(mm, preference === "mm" ? "mm" : "inch-decimal", { ...options, decimals }).text;
}

/** Rounding under this is not worth a word, mm. */
const ROUNDING_SAID_MM = 0.06;

/** A length to cut or set to: the mark, and what lies beyond or short of it: `32 in and 0.015 in more`, `47 9/32 in less 0.010 in`. */
export function roundedLength(mm: number, preference: UnitPreference): string {
  const shown = formatLength(mm, preference);
  if (Math.abs(shown.roundingMm) < ROUNDING_SAID_MM) return shown.text;
  const beyond = formatSmall(Math.abs(shown.roundingMm), preference);
  return shown.roundingMm > 0 ? `${shown.text} less ${beyond}` : `${shown.text} and ${beyond} more`;
}

/** A length to read: the mark nearest to it, said to be near where it is not on it: `≈ 12 21/32 in`. */
export function nearLength(mm: number, preference: UnitPreference, options: FormatOptions = {}): string {
  const { text, roundingMm } = formatLength(mm, preference, options);
  return Math.abs(roundingMm) < ROUNDING_SAID_MM ? text : `≈ ${text}`;
}

/** A length for a message: two decimals of a millimetre at most, or the inch fraction that it is, or thousandths. */
export function plainLength(mm: number, preference: UnitPreference): string {
  if (preference === "mm") return plainMm(mm);
  const asFraction = formatLength(mm, "inch-fraction", { denominator: 64 });
  return Math.abs(asFraction.roundingMm) < 1e-6
    ? asFraction.text
    : formatLength(mm, "inch-decimal", { decimals: 1, trim: true }).text;
}

/** Decimals of millimetres (two more of inches) that tell whatever was stated, and those of a sixty-fourth of an inch. */
const STATED_DECIMALS = 2;
const SIXTY_FOURTH_DECIMALS = 4;

/** What a tape is read to where nothing closer is asked for, mm: a millimetre, or a sixteenth of an inch. */
export const tapeStepMm = (preference: UnitPreference): number => (bareUnit(preference) === "mm" ? 1 : 25.4 / 16);

/**
 * A length that somebody stated, as exactly as it was: the fraction of an inch that it is, in decimals to the last of its digits, else four
 * places; hundredths of a millimetre.
 * @param mm the length. @param preference the unit. @param bare without its unit.
 */
export function statedLength(mm: number, preference: UnitPreference, bare = false): string {
  const asFraction = formatLength(mm, "inch-fraction", { denominator: 64, bare });
  const isFraction = Math.abs(asFraction.roundingMm) < 1e-6;
  if (preference === "inch-fraction" && isFraction) return asFraction.text;
  const decimals = preference !== "mm" && isFraction ? SIXTY_FOURTH_DECIMALS : STATED_DECIMALS;
  return formatLength(mm, preference === "mm" ? "mm" : "inch-decimal", { decimals, trim: true, bare }).text;
}

/** Leaves to be laid together: `0.5 + 0.1 mm`, in inches as thousandths: `20 + 4 thou`. */
export const leavesWords = (mm: readonly number[], preference: UnitPreference): string =>
  preference === "mm"
    ? `${mm.map((x) => +x.toFixed(3)).join(" + ")} mm`
    : `${mm.map((x) => +((1000 * x) / MM_PER.in).toFixed(1)).join(" + ")} thou`;

/** A long way, for a message: metres, or feet. */
export const farLength = (mm: number, preference: UnitPreference): string =>
  preference === "mm" ? `${+(mm / 1000).toFixed(1)} m` : `${+(mm / MM_PER.ft).toFixed(1)} ft`;

/** From one length to another, for a message: `8 to 400 mm`. */
export function rangeWords(fromMm: number, toMm: number, preference: UnitPreference): string {
  const unit = preference === "mm" ? "mm" : "in";
  const bare = (mm: number): string => plainLength(mm, preference).replace(` ${unit}`, "");
  return `${bare(fromMm)} to ${bare(toMm)} ${unit}`;
}

/** Millimetres for a message: two decimals at most. */
export const plainMm = (mm: number): string => formatLength(mm, "mm", { decimals: 2, trim: true }).text;
