/** What a cold-formed tube may be off by, mm. */
interface TubeTolerance {
  sideMm: number;
  wallMm: number;
  concaveConvexMm: number;
  squarenessDeg: number;
  twistMm: number;
  straightnessMm: number;
}

/**
 * Tolerances of a square or rectangular tube after EN 10219-2 (from memory; confirm against the text).
 * @param largeMm larger side. @param wallMm wall. @param lengthMm length of the piece.
 */
export function en10219Tolerance(largeMm: number, wallMm: number, lengthMm: number): TubeTolerance {
  const share = largeMm < 100 ? 0.01 : largeMm <= 200 ? 0.008 : 0.006;
  return {
    sideMm: largeMm < 100 ? Math.max(0.5, share * largeMm) : share * largeMm,
    wallMm: wallMm <= 5 ? 0.1 * wallMm : 0.5,
    concaveConvexMm: Math.max(0.5, 0.008 * largeMm),
    squarenessDeg: 1,
    twistMm: 2 + 0.5 * (lengthMm / 1000),
    straightnessMm: 0.0015 * lengthMm,
  };
}

const A500_SIDE_IN = [
  [2.5, 0.02],
  [3.5, 0.025],
  [5.5, 0.03],
] as const;
const A500_TWIST_IN_PER_3FT = [
  [1.5, 0.05],
  [2.5, 0.062],
  [4, 0.075],
  [6, 0.087],
  [8, 0.1],
  [Number.POSITIVE_INFINITY, 0.112],
] as const;

/**
 * Tolerances of a square or rectangular tube after ASTM A500 (from memory; confirm against the text). Inches and feet, as the
 * standard states them.
 */
export function a500Tolerance(
  largestIn: number,
  lengthFt: number,
): { sideIn: number; straightnessIn: number; twistIn: number } {
  const side = A500_SIDE_IN.find(([up]) => largestIn <= up)?.[1] ?? 0.01 * largestIn;
  const twist = A500_TWIST_IN_PER_3FT.find(([up]) => largestIn <= up)?.[1] ?? 0;
  return { sideIn: side, straightnessIn: (0.125 * lengthFt) / 5, twistIn: (twist * lengthFt) / 3 };
}
