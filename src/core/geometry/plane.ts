import { conditionRatio, solveSmall, type Vec2 } from "../numeric";

/** z = a + bx x + by y, mm. */
export interface Plane {
  a: number;
  bx: number;
  by: number;
}

export const heightOf = (plane: Plane, p: Vec2): number => plane.a + plane.bx * p.x + plane.by * p.y;
/** Factor that turns a height difference into a distance square to the plane. */
export const acrossPlane = (plane: Plane): number => 1 / Math.hypot(1, plane.bx, plane.by);

const mean = (values: number[]): number => values.reduce((s, v) => s + v, 0) / values.length;

/** @returns true when the points lie on one line (or are fewer than three), so that they carry no plane. */
export function collinear(xy: Vec2[]): boolean {
  if (xy.length < 3) return true;
  const cx = mean(xy.map((p) => p.x));
  const cy = mean(xy.map((p) => p.y));
  return conditionRatio(xy.map((p) => [p.x - cx, p.y - cy])) < 1e-3;
}

/**
 * Least-squares plane through heights. Source: normal equations, centred and scaled.
 * @param xy places, mm. @param z heights, mm. @returns null for points on one line.
 */
export function fitPlane(xy: Vec2[], z: number[]): Plane | null {
  if (collinear(xy)) return null;
  const cx = mean(xy.map((p) => p.x));
  const cy = mean(xy.map((p) => p.y));
  const size = Math.max(...xy.map((p) => Math.max(Math.abs(p.x - cx), Math.abs(p.y - cy))));
  const m = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ];
  const right = [0, 0, 0];
  xy.forEach((p, k) => {
    const row = [1, (p.x - cx) / size, (p.y - cy) / size];
    row.forEach((ri, i) => {
      right[i] = (right[i] ?? 0) + ri * (z[k] ?? 0);
      row.forEach((rj, j) => {
        const line = m[i];
        if (line) line[j] = (line[j] ?? 0) + ri * rj;
      });
    });
  });
  const solved = solveSmall(m, right);
  if (!solved) return null;
  const [a = 0, b = 0, c = 0] = solved;
  const bx = b / size;
  const by = c / size;
  return { a: a - bx * cx - by * cy, bx, by };
}
