import type { Row } from "./knots";

/** How a joint looks in a mirror; twice is the joint itself. */
export interface Mirror {
  /** Signs of the six directions, as they stand in the mirror. */
  signs: Row;
  /** Which face is which in the mirror. */
  faces: readonly [number, number, number, number];
  /** Sign of a chord's kink besides: ends change places in a mirror across the chord. */
  kink: 1 | -1;
}

/** About the plane through both members: the last two faces change places. */
export const OVER: Mirror = { signs: [1, 1, -1, -1, -1, 1], faces: [0, 1, 3, 2], kink: 1 };
/** Across that plane: the first two change places. A tee's and a straight butt's. */
export const ALONG: Mirror = { signs: [-1, 1, 1, 1, -1, -1], faces: [1, 0, 2, 3], kink: -1 };

/** Digits of a joint's faces as a mirror shows them. */
export const codeIn = ({ faces }: Mirror, code: string): string => faces.map((face) => code[face]).join("");

/** Between the members of a straight butt, degrees. */
export const STRAIGHT_DEG = 180;

/** What a table of mitres holds, how it looks in a mirror, and how several are made one. */
export interface MitreTable<F, T> {
  /** Widest mitre of the table, degrees. */
  widestDeg: number;
  /** By the table, no wider than that, or straight. */
  at: (code: string, form: F) => T;
  seen: (made: T, mirror: Mirror) => T;
  /** @param shares of them, together 1. */
  blended: (made: readonly T[], shares: readonly number[]) => T;
}

/**
 * A mitre or straight butt by a table. A straight butt is the mean of what it is seen from both of its sides: its outside and its inside are names
 * only, but what height, tacks and strips change was worked out on mitres, where they are not. Wider mitres than the table's lie between its widest and it.
 * @param code digits of the outside, the inside and the other two faces.
 */
export function mitreOrButt<F extends { angleDeg: number }, T>(
  code: string,
  form: F,
  { widestDeg, at, seen, blended }: MitreTable<F, T>,
): T {
  if (form.angleDeg <= widestDeg) return at(code, form);
  const straight = { ...form, angleDeg: STRAIGHT_DEG };
  const butts = [at(code, straight), seen(at(codeIn(ALONG, code), straight), ALONG)];
  const share = Math.min(1, (form.angleDeg - widestDeg) / (STRAIGHT_DEG - widestDeg));
  const shares = butts.map(() => share / butts.length);
  if (share === 1) return blended(butts, shares);
  return blended([...butts, at(code, { ...form, angleDeg: widestDeg })], [...shares, 1 - share]);
}

/** Numbers that mean the same, each by its share. */
export const byShares = (parts: readonly Float64Array[], shares: readonly number[]): Float64Array =>
  parts[0].map((_, at) => parts.reduce((sum, part, i) => sum + shares[i] * part[at], 0));
