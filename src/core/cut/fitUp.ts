import { degrees, radians } from "../numeric";

/** How two test pieces and a square were put together. */
export type SawTestPlacing = "pieces inside square" | "square inside pieces";

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
