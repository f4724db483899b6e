/** The habit of sliding by half the difference, against the exact slide. */
interface HalfRule {
  exactMm: number;
  ruleMm: number;
  /** Exact over rule. */
  ratio: number;
  /** Share of the error that the habit leaves: 1 - L/D, L the side slid along. */
  leaves: number;
}

/**
 * @param lengthMm side that is slid along. @param heightMm the other side. @param differenceMm difference of diagonals.
 * Source: first order of AC^2 - BD^2 = 4 L s.
 */
export function halfRule(lengthMm: number, heightMm: number, differenceMm: number): HalfRule {
  const diagonal = Math.hypot(lengthMm, heightMm);
  const exactMm = (differenceMm * diagonal) / (2 * lengthMm);
  return { exactMm, ruleMm: differenceMm / 2, ratio: diagonal / lengthMm, leaves: 1 - lengthMm / diagonal };
}
