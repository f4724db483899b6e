import type { Vec2 } from "../numeric";
import { MinimumZone } from "./minimumZone";
import { acrossPlane, collinear, fitPlane, heightOf, type Plane } from "./plane";

/** Four points that decide the zone, with how much each counts. */
interface Active {
  zone: number;
  points: number[];
  /** d(zone)/dz at each of `points`. */
  gradient: number[];
}

export interface Flatness {
  status: "ok" | "too_few" | "three_points" | "collinear";
  /** Height of the minimum zone of all points, mm; null when the points cannot say. */
  zoneMm: number | null;
  uZoneMm: number | null;
  /** Peak to valley about the least-squares plane, mm. */
  leastSquaresMm: number | null;
  /** Points that decide the zone. */
  active: number[];
  /** How the zone grows with the height of each of `active`. */
  gradient: number[];
  plane: Plane | null;
  /** Slope of the least-squares plane, mm per metre along x and y. */
  slopeMmPerM: { x: number; y: number } | null;
  /** When the points lie on one line: how straight it is, mm. */
  straightnessMm: number | null;
}

const at = <T>(list: readonly T[], i: number): T => {
  const value = list[i];
  if (value === undefined) throw new Error(`No item ${i}`);
  return value;
};

/** Twice the signed area of the triangle i, j, k. */
function area2(xy: Vec2[], i: number, j: number, k: number): number {
  const p = at(xy, i);
  const q = at(xy, j);
  const r = at(xy, k);
  return (q.x - p.x) * (r.y - p.y) - (r.x - p.x) * (q.y - p.y);
}

/** Weights of four points whose combination is blind to every plane. */
export function fourWeights(
  xy: Vec2[],
  [a, b, c, d]: [number, number, number, number],
): [number, number, number, number] {
  return [area2(xy, b, c, d), -area2(xy, a, c, d), area2(xy, a, b, d), -area2(xy, a, b, c)];
}

function zone4(xy: Vec2[], z: number[], four: [number, number, number, number]): Active | null {
  const lam = fourWeights(xy, four);
  const total = lam.reduce((s, l) => s + Math.abs(l), 0);
  if (total === 0) return null;
  const sum = lam.reduce((s, l, i) => s + l * at(z, at(four, i)), 0);
  const sign = sum < 0 ? -1 : 1;
  return { zone: (2 * Math.abs(sum)) / total, points: four, gradient: lam.map((l) => (2 * sign * l) / total) };
}

/** Largest zone of four among some points: every subset, without making garbage. */
function best4(xy: Vec2[], z: number[], among: number[]): Active {
  const n = among.length;
  const px = among.map((i) => at(xy, i).x);
  const py = among.map((i) => at(xy, i).y);
  const pz = among.map((i) => at(z, i));
  let most = -1;
  let four: [number, number, number, number] | null = null;
  for (let a = 0; a < n - 3; a++)
    for (let b = a + 1; b < n - 2; b++) {
      const bx = px[b] - px[a];
      const by = py[b] - py[a];
      const bz = pz[b] - pz[a];
      for (let c = b + 1; c < n - 1; c++) {
        const cx = px[c] - px[a];
        const cy = py[c] - py[a];
        const cz = pz[c] - pz[a];
        const abc = bx * cy - by * cx;
        for (let d = c + 1; d < n; d++) {
          const dx = px[d] - px[a];
          const dy = py[d] - py[a];
          const dz = pz[d] - pz[a];
          const abd = bx * dy - by * dx;
          const acd = cx * dy - cy * dx;
          // Weights of b, c, d are acd, -abd, abc; that of a makes their sum nought.
          const la = abd - acd - abc;
          const total = Math.abs(la) + Math.abs(acd) + Math.abs(abd) + Math.abs(abc);
          if (total === 0) continue;
          const zone = (2 * Math.abs(acd * bz - abd * cz + abc * dz)) / total;
          if (zone > most) {
            most = zone;
            four = [at(among, a), at(among, b), at(among, c), at(among, d)];
          }
        }
      }
    }
  return (four && zone4(xy, z, four)) ?? { zone: -1, points: [], gradient: [] };
}

/** Up to here every subset is tried; beyond, points are exchanged one at a time. */
const ENUMERATE = 12;

/** Largest four-point zone: by duality the minimum zone of all points. */
function minimumZone(xy: Vec2[], z: number[]): Active {
  if (xy.length <= ENUMERATE)
    return best4(
      xy,
      z,
      xy.map((_, i) => i),
    );
  const found = new MinimumZone(xy).of(z);
  return zone4(xy, z, found.points) ?? { zone: found.zoneMm, points: [], gradient: [] };
}

/** Middle plane of the zone that the active four define; by least squares when three of them are in line. */
function zonePlane(xy: Vec2[], z: number[], active: Active): Plane | null {
  const points = active.points.map((i) => at(xy, i));
  const heights = active.points.map((i, k) => at(z, i) - (Math.sign(at(active.gradient, k)) * active.zone) / 2);
  return fitPlane(points, heights);
}

/** Straightness of z over x, the same way with three points. */
export function straightness(x: number[], z: number[]): number {
  let best = 0;
  const order = x.map((_, i) => i).sort((i, j) => at(x, i) - at(x, j));
  for (let a = 0; a < order.length - 2; a++)
    for (let b = a + 1; b < order.length - 1; b++)
      for (let c = b + 1; c < order.length; c++) {
        const [i, j, k] = [at(order, a), at(order, b), at(order, c)];
        const lam = [at(x, k) - at(x, j), -(at(x, k) - at(x, i)), at(x, j) - at(x, i)];
        const total = lam.reduce((s, l) => s + Math.abs(l), 0);
        if (total === 0) continue;
        best = Math.max(
          best,
          (2 * Math.abs(at(lam, 0) * at(z, i) + at(lam, 1) * at(z, j) + at(lam, 2) * at(z, k))) / total,
        );
      }
  return best;
}

/**
 * Flatness of heights as the minimum zone, with the uncertainty that the heights give it.
 * Source: Chebyshev plane fit; its dual picks four points (Cheney, Introduction to Approximation Theory, from memory).
 * @param xy places, mm. @param z heights, mm.
 * @param cov covariance of the heights, mm2: one standard uncertainty for all, or the full matrix.
 */
export function flatness(xy: Vec2[], z: number[], cov: number | number[][]): Flatness {
  const none = {
    zoneMm: null,
    uZoneMm: null,
    leastSquaresMm: null,
    active: [],
    gradient: [],
    plane: null,
    slopeMmPerM: null,
  };
  if (xy.length < 3) return { status: "too_few", ...none, straightnessMm: null };
  if (collinear(xy)) {
    const [first] = xy;
    const last = xy.reduce((far, p) => (reach(p, first) > reach(far, first) ? p : far), at(xy, 0));
    const n = Math.hypot(last.x - at(xy, 0).x, last.y - at(xy, 0).y) || 1;
    const along = xy.map(
      (p) => ((p.x - at(xy, 0).x) * (last.x - at(xy, 0).x) + (p.y - at(xy, 0).y) * (last.y - at(xy, 0).y)) / n,
    );
    return { status: "collinear", ...none, straightnessMm: straightness(along, z) };
  }
  const plane = fitPlane(xy, z);
  if (!plane) return { status: "collinear", ...none, straightnessMm: null };
  const slopeMmPerM = { x: 1000 * plane.bx, y: 1000 * plane.by };
  const off = xy.map((p, i) => at(z, i) - heightOf(plane, p));
  const leastSquaresMm = (Math.max(...off) - Math.min(...off)) * acrossPlane(plane);
  if (xy.length === 3)
    return { status: "three_points", ...none, zoneMm: 0, leastSquaresMm: 0, plane, slopeMmPerM, straightnessMm: null };
  const best = minimumZone(xy, z);
  const middle = zonePlane(xy, z, best) ?? plane;
  const variance = best.points.reduce(
    (sum, i, a) =>
      sum +
      best.points.reduce((inner, j, b) => {
        const c = typeof cov === "number" ? (i === j ? cov * cov : 0) : (cov[i]?.[j] ?? 0);
        return inner + at(best.gradient, a) * at(best.gradient, b) * c;
      }, 0),
    0,
  );
  return {
    status: "ok",
    zoneMm: best.zone * acrossPlane(middle),
    uZoneMm: Math.sqrt(Math.max(0, variance)),
    leastSquaresMm,
    active: best.points,
    gradient: best.gradient,
    plane,
    slopeMmPerM,
    straightnessMm: null,
  };
}

const reach = (p: Vec2, q: Vec2 | undefined): number => (q ? Math.hypot(p.x - q.x, p.y - q.y) : 0);
