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
