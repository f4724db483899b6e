import { straightness } from "./flatness";

/** Heights along a line under a straightedge. */
export type StraightedgeSurvey =
  | { status: "ok"; zMm: number[]; zoneMm: number }
  /** Gaps that cannot be: the edge would be inside the bed there. */
  | { status: "invalid"; bad: number[] };

/**
 * Heights of a surface from gaps under a straightedge that rests on two blocks (or on the surface).
 * @param xMm places along the edge. @param gapMm gap at each, >= 0. @param supports places and heights of the two blocks.
 * @param edgeErrorMm how far the edge bulges down at each place; leave out for a true edge. Source: closed form.
 */
export function straightedge(
  xMm: readonly number[],
  gapMm: readonly number[],
  supports: readonly [{ xMm: number; heightMm: number }, { xMm: number; heightMm: number }],
  edgeErrorMm: readonly number[] = [],
): StraightedgeSurvey {
  const bad = gapMm.flatMap((g, i) => (g < 0 ? [i] : []));
  if (bad.length > 0) return { status: "invalid", bad };
  const [p, q] = supports;
  const slope = (q.heightMm - p.heightMm) / (q.xMm - p.xMm);
  const zMm = xMm.map((x, i) => p.heightMm + slope * (x - p.xMm) - (gapMm[i] as number) - (edgeErrorMm[i] ?? 0));
  return { status: "ok", zMm, zoneMm: straightness([...xMm], zMm) };
}

/** An edge turned over about its length: surface and edge told apart. @param first, second gaps seen before and after. */
export const turnedEdge = (first: readonly number[], second: readonly number[]) => ({
  surfaceMm: first.map((m, i) => (m + (second[i] as number)) / 2),
  edgeMm: first.map((m, i) => (m - (second[i] as number)) / 2),
});

/** How far a tested edge bulges down at a place along it, mm; nought where nothing is known. Between places: straight. */
export function bulgeAt(edge: readonly { xMm: number; bulgeMm: number }[] | undefined, xMm: number): number {
  if (!edge || edge.length === 0) return 0;
  const after = edge.findIndex((p) => p.xMm >= xMm);
  const [first, last] = [edge[0], edge.at(-1)] as [{ xMm: number; bulgeMm: number }, { xMm: number; bulgeMm: number }];
  if (after === 0) return first.bulgeMm;
  if (after < 0) return last.bulgeMm;
  const [p, q] = [edge[after - 1], edge[after]] as [typeof first, typeof first];
  return p.bulgeMm + ((q.bulgeMm - p.bulgeMm) * (xMm - p.xMm)) / (q.xMm - p.xMm);
}
