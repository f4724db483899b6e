import { CORNERS, type Corner, ends, type Span } from "../geometry";
import { add, cross, distance, scale, sub, type Vec2 } from "../numeric";
import type { Quad } from "./shape";

const NEIGHBOURS: Record<Corner, [Corner, Corner]> = { A: ["D", "B"], B: ["A", "C"], C: ["B", "D"], D: ["C", "A"] };

const unit = (from: Vec2, to: Vec2): Vec2 => scale(sub(to, from), 1 / distance(from, to));

/**
 * A mark that lies as far inside both outer edges of its corner.
 * @param q outside corners, mm. @param inMm how far inside. Source: closed form of a point at equal distances from two lines.
 */
function markAt(q: Quad, corner: Corner, inMm: number): Vec2 {
  const [u, v] = NEIGHBOURS[corner].map((n) => unit(q[corner], q[n])) as [Vec2, Vec2];
  return add(q[corner], scale(add(u, v), inMm / Math.abs(cross(u, v))));
}

const markSpan = (q: Quad, span: Span, inMm: number): number => {
  const [from, to] = ends(span);
  return distance(markAt(q, from, inMm), markAt(q, to, inMm));
};

/** Marks further inside than this share of the shorter side say nothing of the corners. */
const DEEPEST_SHARE = 0.4;

/** Whether marks so far inside their corners still tell where those are. */
export const marksTell = (q: Quad, inMm: number): boolean =>
  inMm <
  DEEPEST_SHARE *
    Math.min(...(["AB", "BC", "CD", "DA"] as const).map((s) => distance(q[s[0] as Corner], q[s[1] as Corner])));

/** How much nearer to each other the marks of a side or diagonal lie than its corners, mm. */
export function nearerBy(q: Quad, span: Span, inMm: number): number {
  const [from, to] = ends(span);
  return distance(q[from], q[to]) - markSpan(q, span, inMm);
}

/** A lean of this is small enough to see how a length goes with it. */
const LEAN = 1e-4;

/**
 * How much more a length between corners changes when the frame leans than the one between its marks: what is read between
 * marks says so much less of the lean. 1 for sides.
 */
export function leanShare(q: Quad, span: Span, inMm: number): number {
  if (span !== "AC" && span !== "BD") return 1;
  const leant = Object.fromEntries(CORNERS.map((c) => [c, { x: q[c].x + LEAN * q[c].y, y: q[c].y }])) as Quad;
  const [from, to] = ends(span);
  const outside = distance(leant[from], leant[to]) - distance(q[from], q[to]);
  const marks = markSpan(leant, span, inMm) - markSpan(q, span, inMm);
  return Math.max(1, Math.abs(outside / marks));
}
