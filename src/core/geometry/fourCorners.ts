import type { Corner } from "./corners";

/** Twist of four corners of a rectangle. */
export interface FourCorners {
  /** zA - zB + zC - zD, mm. Positive: A and C high. */
  twistMm: number;
  uTwistMm: number;
  flatnessMm: number;
  uFlatnessMm: number;
  /** Gap under the fourth corner when three touch, mm. */
  rockMm: number;
  highPair: "AC" | "BD" | "none";
}

/**
 * Four corners of a rectangle: flatness is half the rock gap. Source: closed form.
 * @param z heights, mm. @param uMm standard uncertainty of each.
 */
export function fourCorners(z: Record<Corner, number>, uMm: number): FourCorners {
  const twistMm = z.A - z.B + z.C - z.D;
  return {
    twistMm,
    uTwistMm: 2 * uMm,
    flatnessMm: Math.abs(twistMm) / 2,
    uFlatnessMm: uMm,
    rockMm: Math.abs(twistMm),
    highPair: twistMm > 0 ? "AC" : twistMm < 0 ? "BD" : "none",
  };
}
