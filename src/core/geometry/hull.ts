import type { Vec2 } from "../numeric";

/** Convex hull of points in a plane, anticlockwise. Source: monotone chain (Andrew 1979, from memory). */
export function hull(points: readonly Vec2[]): Vec2[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const turn = (o: Vec2, a: Vec2, b: Vec2): number => (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);
  const half = (list: readonly Vec2[]): Vec2[] => {
    const out: Vec2[] = [];
    for (const q of list) {
      while (out.length > 1 && turn(out.at(-2) as Vec2, out.at(-1) as Vec2, q) <= 1e-9) out.pop();
      out.push(q);
    }
    return out.slice(0, -1);
  };
  return [...half(sorted), ...half([...sorted].reverse())];
}
