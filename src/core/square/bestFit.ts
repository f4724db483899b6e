import { cross, dot, norm, sub, type Vec2 } from "../numeric";

/** How measured places would have to move to be where they belong, once the whole is laid over the drawing. */
export interface BestFit {
  /** Turn of what was measured onto the drawing, rad. */
  turnRad: number;
  /** Move of each place, mm, in the drawing's axes. */
  moves: Record<string, Vec2>;
  /** Largest move, and whose. */
  worst: { place: string; mm: number } | null;
}

/**
 * Rigid best fit of places onto where they belong. Source: least squares in closed form, th = atan2(sum p x q, sum p.q) over
 * centred places.
 * @param measured, @param wanted places by the same names, mm. @param by places by which it is laid over, where two at least are
 * measured; all without them.
 */
export function bestFit(
  measured: Record<string, Vec2>,
  wanted: Record<string, Vec2>,
  by: readonly string[] = [],
): BestFit {
  const names = Object.keys(measured).filter((n) => wanted[n]);
  if (names.length === 0) return { turnRad: 0, moves: {}, worst: null };
  const chosen = names.filter((n) => by.includes(n));
  const laidBy = chosen.length < 2 ? names : chosen;
  const mean = (of: Record<string, Vec2>): Vec2 => ({
    x: laidBy.reduce((s, n) => s + of[n].x, 0) / laidBy.length,
    y: laidBy.reduce((s, n) => s + of[n].y, 0) / laidBy.length,
  });
  const [pm, qm] = [mean(measured), mean(wanted)];
  let [c, s] = [0, 0];
  for (const n of laidBy) {
    const p = sub(measured[n], pm);
    const q = sub(wanted[n], qm);
    s += cross(p, q);
    c += dot(p, q);
  }
  const turnRad = Math.atan2(s, c);
  const [co, si] = [Math.cos(turnRad), Math.sin(turnRad)];
  const moves = Object.fromEntries(
    names.map((n) => {
      const p = sub(measured[n], pm);
      const laid = { x: qm.x + co * p.x - si * p.y, y: qm.y + si * p.x + co * p.y };
      return [n, sub(wanted[n], laid)];
    }),
  );
  const worst = names.reduce((w, n) => (norm(moves[n]) > norm(moves[w]) ? n : w), names[0]);
  return { turnRad, moves, worst: { place: worst, mm: norm(moves[worst]) } };
}
