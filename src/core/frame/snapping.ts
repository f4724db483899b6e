import { add3, scale3, sub3, type Vec3 } from "../numeric";
import { type Placed, reach } from "./meeting";
import type { ViewAxes } from "./viewAxes";

/** What a point was drawn to. */
export interface Snap {
  at: Vec3;
  what: "end" | "middle" | "on the line" | "face" | "equal gap" | "grid";
  /** Member that it belongs to, if any. */
  of: string | null;
}

const ORDER: readonly Snap["what"][] = ["end", "middle", "equal gap", "face", "on the line"];

/**
 * Draws a point in a view to what is near: ends, middles, lines, faces, places that leave equal gaps, else to the grid.
 * @param p the point, its depth as it is. @param withinMm how near on the screen. @param gridMm step of the grid.
 * @param leave members that are being moved.
 * @returns the nearest of the best kind; ends take their own depth, so that corners meet.
 */
export function snap(
  members: Iterable<Placed>,
  p: Vec3,
  view: ViewAxes,
  withinMm: number,
  gridMm: number,
  leave: ReadonlySet<string> = new Set(),
): Snap {
  const { right, up, depth } = view;
  const flat = (a: Vec3, b: Vec3): number => Math.hypot(a[right] - b[right], a[up] - b[up]);
  const found: { snap: Snap; far: number }[] = [];
  const take = (at: Vec3, what: Snap["what"], of: string) => {
    const far = flat(at, p);
    if (far <= withinMm) found.push({ snap: { at, what, of }, far });
  };
  const levels: number[][] = [[], [], []];
  for (const m of members) {
    if (leave.has(m.id)) continue;
    take(m.from, "end", m.id);
    take(m.to, "end", m.id);
    take(scale3(add3(m.from, m.to), 0.5), "middle", m.id);
    const u = m.axes[0];
    const seen = Math.hypot(u[right], u[up]);
    if (seen > 0.1) {
      const w = sub3(p, m.from);
      const s = (w[right] * u[right] + w[up] * u[up]) / (seen * seen);
      if (s > 0 && s < m.lengthMm) {
        const on = add3(m.from, scale3(u, s));
        take(on, "on the line", m.id);
        // Faces as seen in this view: square to the line, in the plane of the view.
        const across: [number, number, number] = [0, 0, 0];
        across[right] = -u[up] / seen;
        across[up] = u[right] / seen;
        const r = reach(m, across);
        for (const side of [-1, 1]) take(add3(on, scale3(across, side * r)), "face", m.id);
      }
      if (Math.abs(u[right]) < 0.02) levels[right]?.push(m.from[right]);
      if (Math.abs(u[up]) < 0.02) levels[up]?.push(m.from[up]);
    }
  }
  // Half way between two members that run side by side leaves equal gaps.
  for (const k of [right, up]) {
    const at = [...new Set(levels[k])].sort((a, b) => a - b);
    at.slice(1).forEach((v, i) => {
      const half = (v + (at[i] as number)) / 2;
      if (Math.abs(half - p[k]) <= withinMm) {
        const q = [...p] as [number, number, number];
        q[k] = half;
        found.push({ snap: { at: q, what: "equal gap", of: null }, far: Math.abs(half - p[k]) });
      }
    });
  }
  if (found.length > 0) {
    const rank = (s: Snap): number => ORDER.indexOf(s.what);
    found.sort((a, b) => rank(a.snap) - rank(b.snap) || a.far - b.far);
    return (found[0] as { snap: Snap }).snap;
  }
  const g = [...p] as [number, number, number];
  for (const k of [right, up]) g[k] = Math.round(p[k] / gridMm) * gridMm;
  g[depth] = p[depth];
  return { at: g, what: "grid", of: null };
}
