import { cross, norm, sub, type Vec2 } from "../numeric";

/** Crossing of two lines through a point along a direction each; null when they are parallel (sine under 1e-9). */
export function lineCrossing(p: Vec2, u: Vec2, q: Vec2, v: Vec2): Vec2 | null {
  const sine = cross(u, v);
  if (Math.abs(sine) < 1e-9 * norm(u) * norm(v)) return null;
  const t = cross(sub(q, p), v) / sine;
  return { x: p.x + t * u.x, y: p.y + t * u.y };
}

/** Nearest place of a stretch to a point. @returns its share of the way from `from` to `to`, and how far off it lies, mm. */
export function nearestOnStretch(p: Vec2, from: Vec2, to: Vec2): { share: number; offMm: number } {
  const d = sub(to, from);
  const square = d.x ** 2 + d.y ** 2;
  const share = square === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - from.x) * d.x + (p.y - from.y) * d.y) / square));
  return { share, offMm: Math.hypot(from.x + share * d.x - p.x, from.y + share * d.y - p.y) };
}

/**
 * Crossing of two circles that lies left of the way from `p` to `q`; null when they miss each other.
 * Source: closed form, two triangles on the line of centres.
 */
export function circleCrossing(p: Vec2, rp: number, q: Vec2, rq: number): Vec2 | null {
  const d = sub(q, p);
  const n = norm(d);
  const a = (n * n + rp * rp - rq * rq) / (2 * n);
  const h2 = rp * rp - a * a;
  if (h2 < 0) return null;
  const h = Math.sqrt(h2);
  return { x: p.x + (a * d.x - h * d.y) / n, y: p.y + (a * d.y + h * d.x) / n };
}
