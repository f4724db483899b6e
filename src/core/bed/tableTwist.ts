/** Rock gaps of a twisted frame on a twisted table in its four positions, mm. */
interface TurnedGaps {
  asFoundMm: number;
  /** Turned end for end: a twist is handed, nothing changes. */
  halfTurnMm: number;
  /** Turned upside down: nothing changes either. */
  flippedMm: number;
  /** A quarter turn (square frame): the frame's twist changes sign against the table's. */
  quarterTurnMm: number;
}

/** @param frameMm, tableMm twist zA - zB + zC - zD of each. Source: closed form. */
export const turnedGaps = (frameMm: number, tableMm: number): TurnedGaps => {
  const same = Math.abs(frameMm - tableMm);
  return { asFoundMm: same, halfTurnMm: same, flippedMm: same, quarterTurnMm: Math.abs(-frameMm - tableMm) };
};

/**
 * Frame twist apart from table twist by a quarter turn.
 * @param asFoundMm, quarterTurnMm signed gaps: positive when A and C of the table's corners stand high.
 */
export const splitTwist = (asFoundMm: number, quarterTurnMm: number): { frameMm: number; tableMm: number } => ({
  frameMm: (asFoundMm - quarterTurnMm) / 2,
  tableMm: -(asFoundMm + quarterTurnMm) / 2,
});
