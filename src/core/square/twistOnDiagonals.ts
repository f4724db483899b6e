/** What a twist does to the diagonals of a rectangle whose sides keep their length, mm. */
interface TwistOnDiagonals {
  flatMm: number;
  /** Change of both diagonals of a square, limp frame: their difference stays nought. */
  symmetricMm: number;
  /** Change of one diagonal when one corner's angle is held. */
  oneCornerMm: number;
  /** Distance of the two diagonals where they cross. */
  crossingGapMm: number;
}

/**
 * Diagonals cannot show twist: it changes them by next to nothing. Source: closed form in space.
 * @param twistMm zA - zB + zC - zD.
 */
export function twistOnDiagonals(lengthMm: number, widthMm: number, twistMm: number): TwistOnDiagonals {
  const flatMm = Math.hypot(lengthMm, widthMm);
  return {
    flatMm,
    symmetricMm: Math.sqrt(flatMm ** 2 - twistMm ** 2 / 2) - flatMm,
    oneCornerMm: Math.sqrt(flatMm ** 2 - twistMm ** 2) - flatMm,
    crossingGapMm: Math.abs(twistMm) / 2,
  };
}
