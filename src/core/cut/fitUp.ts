import { degrees, radians } from "../numeric";
import { type Problem, plainLength, rangeWords, type UnitPreference } from "../units";

/** How two test pieces and a square were put together. */
type SawTestPlacing = "pieces inside square" | "square inside pieces";

/** What a test of two mitred pieces says of the saw. Degrees. */
export interface SawTest {
  /** Of the angle that the two cuts make together; negative: too sharp. */
  includedErrorDeg: number;
  perCutErrorDeg: number;
  /** Add this to the saw's setting from square. */
  addToSettingDeg: number;
}

/**
 * Two test mitres put together and held against a square: the gap shows double the saw's error.
 * @param gapMm gap seen. @param legMm distance from the corner at which it was seen, > 0.
 * @param gapAt whether it opens at the toe (far from the corner) or at the heel.
 * Source: closed form, atan of gap over leg.
 */
export function sawTest(gapMm: number, legMm: number, placing: SawTestPlacing, gapAt: "toe" | "heel"): SawTest {
  const size = degrees(Math.atan2(gapMm, legMm));
  const sharp = (placing === "pieces inside square") === (gapAt === "toe");
  const includedErrorDeg = sharp ? -size : size;
  return { includedErrorDeg, perCutErrorDeg: includedErrorDeg / 2, addToSettingDeg: includedErrorDeg / 2 };
}

/**
 * Gap at a mitre when each piece is off by an angle. Four mitres at e each close with 8 e at the last corner.
 * @param widthMm width of the tube. @param errorDeg of one piece. @param cutToAxisDeg cut to the tube's axis.
 * @param pieces how many errors add up at this joint.
 */
export function jointGap(
  widthMm: number,
  errorDeg: number,
  cutToAxisDeg: number,
  pieces: number,
): { faceMm: number; gapMm: number } {
  const faceMm = widthMm / Math.sin(radians(cutToAxisDeg));
  return { faceMm, gapMm: faceMm * Math.tan(radians(errorDeg * pieces)) };
}

/** A slope as it is stated in the shop. @param riseMm, @param runMm lengths, run not zero with rise. */
export const riseRun = (riseMm: number, runMm: number) => ({
  angleDeg: degrees(Math.atan2(riseMm, runMm)),
  lengthMm: Math.hypot(riseMm, runMm),
  percent: (100 * riseMm) / runMm,
  mmPerM: (1000 * riseMm) / runMm,
});

/** What is wrong with the reading of a saw test, at its field. @param gapMm, @param legMm as typed. */
export function sawTestProblems(gapMm: number, legMm: number, units: UnitPreference = "mm"): Problem[] {
  const found: Problem[] = [];
  const error = (path: string, message: string) => found.push({ path: `saw.${path}`, message, severity: "error" });
  if (legMm < 20 || legMm > 2000)
    error(
      "leg",
      `The gap was seen ${plainLength(legMm, units)} from the corner: outside ${rangeWords(20, 2000, units)}. Check the unit.`,
    );
  if (gapMm < 0) error("gap", "A gap is not negative: say where it opens, at the toe or at the heel.");
  else if (gapMm > 0.2 * legMm)
    error(
      "gap",
      `A gap of ${plainLength(gapMm, units)} over ${plainLength(legMm, units)} is more than 11°: no saw is off by that. Check the unit.`,
    );
  return found;
}
