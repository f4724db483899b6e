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
 * @param measured, @param wanted places by the same names, mm.
 */
export function bestFit(measured: Record<string, Vec2>, wanted: Record<string, Vec2>): BestFit {
  const names = Object.keys(measured).filter((n) => wanted[n]);
  if (names.length === 0) return { turnRad: 0, moves: {}, worst: null };
  const mean = (of: Record<string, Vec2>): Vec2 => ({
    x: names.reduce((s, n) => s + of[n].x, 0) / names.length,
    y: names.reduce((s, n) => s + of[n].y, 0) / names.length,
  });
  const [pm, qm] = [mean(measured), mean(wanted)];
  let [c, s] = [0, 0];
  for (const n of names) {
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
