import { type Corner, circleCrossing, type Side } from "../geometry";
import { add, cross, degrees, dot, norm, scale, sub, type Vec2 } from "../numeric";

export type Quad = Record<Corner, Vec2>;

/** Mid-lines: m1 joins the middles of DA and BC, m2 those of AB and CD. */
function midLines(q: Quad): { m1: Vec2; m2: Vec2 } {
  return {
    m1: scale(sub(add(q.B, q.C), add(q.A, q.D)), 0.5),
    m2: scale(sub(add(q.C, q.D), add(q.A, q.B)), 0.5),
  };
}

const lengthOf = (q: Quad, from: Corner, to: Corner): number => norm(sub(q[to], q[from]));

/** Out of square, mm per metre: 1000 tan of the angle by which the mid-lines miss a right angle. Positive: AC is long. */
export function shearMmPerM(q: Quad): number {
  const { m1, m2 } = midLines(q);
  return 1000 * Math.tan(Math.asin(dot(m1, m2) / (norm(m1) * norm(m2))));
}

/** AB minus CD, mm. */
export const taperLengthMm = (q: Quad): number => lengthOf(q, "A", "B") - lengthOf(q, "C", "D");
/** BC minus DA, mm. */
export const taperWidthMm = (q: Quad): number => lengthOf(q, "B", "C") - lengthOf(q, "D", "A");
/** AC minus BD, mm. */
export const diagonalsApartMm = (q: Quad): number => lengthOf(q, "A", "C") - lengthOf(q, "B", "D");
/** AC^2 - BD^2, mm2. Equal to 4 m1.m2 for any quadrilateral. */
export const squareDifferenceMm2 = (q: Quad): number =>
  dot(sub(q.C, q.A), sub(q.C, q.A)) - dot(sub(q.D, q.B), sub(q.D, q.B));

const NEIGHBOURS: Record<Corner, [Corner, Corner]> = { A: ["D", "B"], B: ["A", "C"], C: ["B", "D"], D: ["C", "A"] };

/** Inside angle at a corner, deg. */
export function cornerAngleDeg(q: Quad, corner: Corner): number {
  const [before, after] = NEIGHBOURS[corner];
  const a = sub(q[before], q[corner]);
  const b = sub(q[after], q[corner]);
  return degrees(Math.atan2(Math.abs(cross(a, b)), dot(a, b)));
}

/** The side that a slide moves, the corner that a positive slide goes towards. */
export const SLIDES = { CD: "C", AB: "B", BC: "C", DA: "D" } as const satisfies Record<Side, Corner>;

/**
 * How far to slide each side along itself so that AC^2 - BD^2 becomes the target: exact for a side moved without turning.
 * @param q corners as they are, mm. @param targetMm2 0 for square, else from set-up corners.
 * @returns mm per side; positive towards C (CD, BC), B (AB), D (DA). Source: closed form from AC^2 - BD^2 = 4 m1.m2.
 */
export function slides(q: Quad, targetMm2 = 0): Record<Side, number> {
  const hx = add(sub(q.B, q.A), sub(q.C, q.D));
  const hy = add(sub(q.C, q.B), sub(q.D, q.A));
  const miss = targetMm2 - squareDifferenceMm2(q);
  const along = (from: Corner, to: Corner): Vec2 => scale(sub(q[to], q[from]), 1 / lengthOf(q, from, to));
  return {
    CD: miss / (2 * dot(along("D", "C"), hx)),
    AB: -miss / (2 * dot(along("A", "B"), hx)),
    BC: miss / (2 * dot(along("B", "C"), hy)),
    DA: -miss / (2 * dot(along("A", "D"), hy)),
  };
}

/** Moves of C and D for a frame that hinges at its tacks, AB held, mm. */
export interface Rack {
  cAlongMm: number;
  cAwayMm: number;
  dAlongMm: number;
  dAwayMm: number;
  /** What the diagonals read afterwards. */
  diagonalsMm: Record<"AC" | "BD", number>;
}

/**
 * Racks a hinged frame about A and B until AC^2 - BD^2 is the target, sides kept. Bisection on the direction of AD.
 * @param q corners as they are, mm. @param targetMm2 0 for square. @returns moves along and away from AB, or null when
 * the linkage cannot reach it within 0.3 rad.
 */
export function rack(q: Quad, targetMm2 = 0): Rack | null {
  const b = lengthOf(q, "B", "C");
  const c = lengthOf(q, "C", "D");
  const d = lengthOf(q, "D", "A");
  const x = scale(sub(q.B, q.A), 1 / lengthOf(q, "A", "B"));
  // Corners may be lettered either way round.
  const turn = Math.sign(cross(x, sub(q.D, q.A))) || 1;
  const y = { x: -turn * x.y, y: turn * x.x };
  const now = Math.atan2(q.D.y - q.A.y, q.D.x - q.A.x);
  const pose = (psi: number): Quad | null => {
    const D = add(q.A, { x: d * Math.cos(psi), y: d * Math.sin(psi) });
    // Seen from D to B, the side away from A.
    const C = turn > 0 ? circleCrossing(D, c, q.B, b) : circleCrossing(q.B, b, D, c);
    return C ? { ...q, C, D } : null;
  };
  const miss = (psi: number): number | null => {
    const p = pose(psi);
    return p ? squareDifferenceMm2(p) - targetMm2 : null;
  };
  let low = now - 0.3;
  let high = now + 0.3;
  const atLow = miss(low);
  const atHigh = miss(high);
  if (atLow === null || atHigh === null || atLow * atHigh > 0) return null;
  for (let i = 0; i < 200 && high - low > 1e-14; i++) {
    const mid = (low + high) / 2;
    const m = miss(mid);
    if (m === null) return null;
    if (m * atLow > 0) low = mid;
    else high = mid;
  }
  const end = pose((low + high) / 2);
  if (!end) return null;
  const moveC = sub(end.C, q.C);
  const moveD = sub(end.D, q.D);
  return {
    cAlongMm: dot(moveC, x),
    cAwayMm: dot(moveC, y),
    dAlongMm: dot(moveD, x),
    dAwayMm: dot(moveD, y),
    diagonalsMm: { AC: lengthOf(end, "A", "C"), BD: lengthOf(end, "B", "D") },
  };
}
