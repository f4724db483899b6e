import type { UnitPreference } from "./format";
import { fail, ok, type Result } from "./result";

export const SLANT_UNITS = ["mm/m", "deg", "%", "thou/ft", "in/ft"] as const;
export type SlantUnit = (typeof SLANT_UNITS)[number];

/** A slope or an angle as it was typed. */
export interface Slant {
  /** In `slant`. */
  value: number;
  text: string;
  slant: SlantUnit;
}

/** A slope over one metre. Source: definition; an angle by its tangent. */
export function slantMmPerM({ value, slant }: Pick<Slant, "value" | "slant">): number {
  switch (slant) {
    case "mm/m":
      return value;
    case "%":
      return 10 * value;
    case "thou/ft":
      return value / 12;
    case "in/ft":
      return (1000 * value) / 12;
    case "deg":
      return 1000 * Math.tan((value * Math.PI) / 180);
  }
}

/** What a bare slope means under a preference. */
export const bareSlope = (units: UnitPreference): SlantUnit => (units === "mm" ? "mm/m" : "thou/ft");

const UNIT_WORDS: [RegExp, SlantUnit][] = [
  [/^mm\s*\/\s*m$/i, "mm/m"],
  [/^(deg|°)$/i, "deg"],
  [/^%$/, "%"],
  [/^thou\s*\/\s*(ft|foot)$/i, "thou/ft"],
  [/^(in|")\s*\/\s*(ft|foot)$/i, "in/ft"],
];

/**
 * Reads a slope or an angle: a number, with `mm/m`, `deg`, `°` or `%` after it where it is not the bare unit.
 * @param text as typed. @param bare what a bare number means.
 */
export function readSlant(text: string, bare: SlantUnit): Result<Slant> {
  const parts = /^\s*([+-]?(?:\d+[.,]?\d*|[.,]\d+))\s*(.*?)\s*$/.exec(text.replace(/−/g, "-"));
  const wrong = fail(
    `Cannot read "${text.trim()}": give a number, for example ${bare === "deg" ? "90.1°" : bare === "thou/ft" ? "5 thou/ft" : "0.4 mm/m"}.`,
  );
  if (!parts) return wrong;
  const [, digits = "", rest = ""] = parts;
  const slant = rest === "" ? bare : UNIT_WORDS.find(([word]) => word.test(rest))?.[1];
  const value = Number(digits.replace(",", "."));
  if (!slant || !Number.isFinite(value)) return wrong;
  if (slant === "deg" ? Math.abs(value) >= 180 : Math.abs(slantMmPerM({ value, slant })) > 10_000)
    return fail(`${text.trim()} is no slope or angle of a frame. Check the unit.`);
  return ok({ value, text: text.trim(), slant });
}
