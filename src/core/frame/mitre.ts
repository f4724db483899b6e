import { add3, cross3, dot3, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { type Placed, reach } from "./meeting";

/** Two tubes whose faces are turned against each other by less than this go round a bend as one, degrees. */
const MATCHED_DEG = 15;
/** Outlines that differ by less are one section, mm. */
const SAME_MM = 0.01;
/** Cosine from which an axis of a section counts as square to the plane of the bend. */
const IN_PLANE = Math.cos(Math.PI / 1800);

/** Whether a section's walls stand aslant to the plane of a bend. @param square to that plane. */
export const isAslant = (m: Placed, square: Vec3): boolean =>
  !m.round && m.axes.slice(1).every((axis) => Math.abs(dot3(axis, square)) <= IN_PLANE);

/** Whether two members are of one section. */
export const sameSection = (m: Placed, n: Placed): boolean =>
  m.round === n.round &&
  m.outline.length === n.outline.length &&
  m.outline.every((p, i) => {
    const q = n.outline[i];
    return q !== undefined && Math.abs(p.x - q.x) < SAME_MM && Math.abs(p.y - q.y) < SAME_MM;
  });

/** A direction taken round a bend, from along `from` to along `to`, without turning about either. Source: Rodrigues' formula. */
function carried(v: Vec3, from: Vec3, to: Vec3): Vec3 {
  const axis = cross3(from, to);
  const c = dot3(from, to);
  const k = dot3(axis, v) / (1 + c);
  return add3(add3(scale3(v, c), cross3(axis, v)), scale3(axis, k));
}

/**
 * How far the faces of the second of two equal members are turned from those of the first, taken round the bend, degrees:
 * 0 where every wall meets its like. A rectangle is alike after half a turn, a square after a quarter, a round always.
 * @param a, b directions from the joint into each.
 */
export function turnedByDeg(m: Placed, n: Placed, a: Vec3, b: Vec3): number {
  if (m.round) return 0;
  const y = carried(m.axes[1], scale3(a, -1), b);
  const quarters = reach(m, m.axes[1]) - reach(m, m.axes[2]);
  const deg = (Math.atan2(Math.abs(dot3(y, n.axes[2])), Math.abs(dot3(y, n.axes[1]))) * 180) / Math.PI;
  return Math.abs(quarters) < SAME_MM ? Math.min(deg, 90 - deg) : deg;
}

/** Whether two members go round their bend as one tube would: of one section, walls on walls. */
export const goesRound = (m: Placed, n: Placed, a: Vec3, b: Vec3): boolean =>
  sameSection(m, n) && turnedByDeg(m, n, a, b) < MATCHED_DEG;

/**
 * How much of their heights two ends share that are mitred, square to the plane of their bend, mm: all of the lower one where they lie
 * flush or in one plane. @param at, atB on the line of each.
 */
export function sharedHeightMm(m: Placed, n: Placed, square: Vec3, at: Vec3, atB: Vec3): number {
  const [rm, rn] = [reach(m, square), reach(n, square)];
  const off = Math.abs(dot3(square, sub3(atB, at)));
  return Math.max(0, Math.min(2 * rm, 2 * rn, rm + rn - off));
}

/**
 * Where two mitred ends are taken to meet whose lines pass each other: half way between. Null where less than half of the lower one's height
 * stands against the other (own judgement). @param a, b directions from the joint into each. @param at, atB on the line of each.
 */
export function mitredAt(m: Placed, n: Placed, a: Vec3, b: Vec3, at: Vec3, atB: Vec3): Vec3 | null {
  const square = unit3(cross3(a, b));
  const least = Math.min(reach(m, square), reach(n, square));
  return sharedHeightMm(m, n, square, at, atB) < least ? null : scale3(add3(at, atB), 0.5);
}

/**
 * How far each of two mitred members reaches to the side in the plane of their bend, mm; from these the mitre's line runs
 * from the inner to the outer corner. Equal members that go round as one share the plane through the bisector whichever way
 * their sections are turned, so both reach alike.
 * @param a, b directions from the joint into each, not along one line.
 */
export function mitreReaches(m: Placed, n: Placed, a: Vec3, b: Vec3): [number, number] {
  const w = unit3(cross3(a, b));
  const own: [number, number] = [reach(m, unit3(cross3(w, a))), reach(n, unit3(cross3(w, b)))];
  const flat = [m, n].every((x) => !isAslant(x, w));
  if (!sameSection(m, n) || (flat && !goesRound(m, n, a, b))) return own;
  const both = (own[0] + own[1]) / 2;
  return [both, both];
}
