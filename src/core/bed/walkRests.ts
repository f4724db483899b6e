import { hull, nearestOnStretch } from "../geometry";
import { distance, type Vec2 } from "../numeric";

/** Off the outline by no more than this share of its size counts as on it. */
const ON_OUTLINE = 0.02;

/**
 * Steps of a level from rest to rest: round the outline and back to the first where all rests lie on it, so that no step goes
 * across; else in the order that they have, which a grid has to and fro.
 * @returns pairs of indices, from and to.
 */
export function walkRests(rests: readonly Vec2[]): [number, number][] {
  const inOrder = rests.slice(1).map((_, i): [number, number] => [i, i + 1]);
  if (rests.length < 4) return inOrder;
  const outline = hull([...rests]);
  const size = Math.max(...outline.map((p) => distance(p, outline[0] as Vec2)));
  const on = (p: Vec2): boolean =>
    outline.some((q, i) => nearestOnStretch(p, q, outline[(i + 1) % outline.length] as Vec2).offMm < ON_OUTLINE * size);
  if (outline.length < 3 || !rests.every(on)) return inOrder;
  const centre = {
    x: outline.reduce((s, p) => s + p.x, 0) / outline.length,
    y: outline.reduce((s, p) => s + p.y, 0) / outline.length,
  };
  const bearing = (i: number): number => Math.atan2((rests[i] as Vec2).y - centre.y, (rests[i] as Vec2).x - centre.x);
  const round = rests.map((_, i) => i).sort((a, b) => bearing(a) - bearing(b));
  const start = round.indexOf(0);
  const path = [...round.slice(start), ...round.slice(0, start)];
  return path.map((from, i): [number, number] => [from, path[(i + 1) % path.length] as number]);
}
