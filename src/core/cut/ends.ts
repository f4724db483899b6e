import { degrees, radians } from "../numeric";
import { fail, ok, type Result } from "../units";

/** The true mitre between two members that leave a joint at an angle. */
export interface Mitre {
  /** Angle between the cut and each member's own axis, deg. */
  cutToAxisDeg: [number, number];
  /** What to set on the saw, from a square cut, deg. Negative: the long point is on the inner edge. */
  sawFromSquareDeg: [number, number];
  /** Length of the cut face in plan, mm. */
  faceMm: number;
}

/**
 * True mitre for equal or unequal widths. Source: closed form (law of sines on the joint's rhomb).
 * @param includedDeg angle between the members, 0 to 180 exclusive. @param width1Mm, @param width2Mm widths in plan.
 */
export function mitre(includedDeg: number, width1Mm: number, width2Mm: number): Result<Mitre> {
  if (!(includedDeg > 0 && includedDeg < 180))
    return fail("The angle between the members must lie between 0 and 180 degrees.");
  if (!(width1Mm > 0 && width2Mm > 0)) return fail("Both widths must be more than zero.");
  const th = radians(includedDeg);
  const first = Math.atan2(width1Mm * Math.sin(th), width2Mm + width1Mm * Math.cos(th));
  const f: [number, number] = [degrees(first), includedDeg - degrees(first)];
  return ok({ cutToAxisDeg: f, sawFromSquareDeg: [90 - f[0], 90 - f[1]], faceMm: width1Mm / Math.sin(first) });
}

/** Lengths of a piece along its outer edge, its inner edge and its centre line, and the stock it takes, mm. */
export interface EndLengths {
  outerMm: number;
  innerMm: number;
  centreMm: number;
  blankMm: number;
}

/**
 * @param outerMm length along the outer edge. @param widthMm width in plan.
 * @param saw1Deg, @param saw2Deg saw settings from square; positive makes the outer edge the longer one.
 * Source: closed form.
 */
export function endLengths(outerMm: number, widthMm: number, saw1Deg: number, saw2Deg: number): EndLengths {
  const t1 = Math.tan(radians(saw1Deg));
  const t2 = Math.tan(radians(saw2Deg));
  const k = (widthMm / 2) * (t1 + t2);
  const centreMm = outerMm - k;
  return {
    outerMm,
    innerMm: centreMm - k,
    centreMm,
    blankMm: centreMm + (widthMm / 2) * (Math.abs(t1) + Math.abs(t2)),
  };
}
