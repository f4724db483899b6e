import { fitPlane, heightOf, type Plane } from "../geometry";
import type { Vec2 } from "../numeric";

export const SHIM_MODES = ["level", "best_fit", "least_total"] as const;
export type ShimMode = (typeof SHIM_MODES)[number];

interface Shims {
  /** Under each rest, mm. */
  shimsMm: number[];
  totalMm: number;
  /** Rests that would have to go down: grind, or choose another mode. */
  negative: number[];
  plane: Plane;
}

/** Every plane through three points, with the points. */
function facets(xy: Vec2[], z: number[]): Plane[] {
  const planes: Plane[] = [];
  for (let i = 0; i < xy.length; i++)
    for (let j = i + 1; j < xy.length; j++)
      for (let k = j + 1; k < xy.length; k++) {
        const points = [xy[i], xy[j], xy[k]];
        const plane = fitPlane(points, [z[i] ?? 0, z[j] ?? 0, z[k] ?? 0]);
        if (plane) planes.push(plane);
      }
  return planes;
}

const SLACK = 1e-9;

/** Plane on or above all heights with the least sum of shims; among equals the one whose largest shim is smallest. */
function leastTotal(xy: Vec2[], z: number[]): Plane | null {
  let best: { plane: Plane; total: number; largest: number } | null = null;
  for (const plane of facets(xy, z)) {
    const s = xy.map((p, i) => heightOf(plane, p) - (z[i] ?? 0));
    if (Math.min(...s) < -1e-7) continue;
    const total = s.reduce((sum, x) => sum + x, 0);
    const largest = Math.max(...s);
    if (!best || total < best.total - SLACK || (total < best.total + SLACK && largest < best.largest - SLACK))
      best = { plane, total, largest };
  }
  return best?.plane ?? null;
}

/**
 * Shims that bring the rests into one plane.
 * @param xy places, mm, not on one line. @param z heights, mm.
 * @param mode `level`: all to the highest. `best_fit`: the bed's own slope, raised until none is negative.
 * `least_total`: the plane with the least shimming, none negative.
 * @returns null when the places lie on one line.
 */
export function shims(xy: Vec2[], z: number[], mode: ShimMode): Shims | null {
  const fitted = fitPlane(xy, z);
  if (!fitted) return null;
  let plane: Plane | null;
  if (mode === "level") plane = { a: Math.max(...z), bx: 0, by: 0 };
  else if (mode === "best_fit") {
    const raise = Math.max(...xy.map((p, i) => (z[i] ?? 0) - heightOf(fitted, p)));
    plane = { ...fitted, a: fitted.a + raise };
  } else plane = leastTotal(xy, z);
  if (!plane) return null;
  const used = plane;
  const shimsMm = xy.map((p, i) => {
    const s = heightOf(used, p) - (z[i] ?? 0);
    return Math.abs(s) < SLACK ? 0 : s;
  });
  return {
    shimsMm,
    totalMm: shimsMm.reduce((sum, s) => sum + s, 0),
    negative: shimsMm.flatMap((s, i) => (s < -SLACK ? [i] : [])),
    plane,
  };
}

export interface ShimStack {
  leavesMm: number[];
  totalMm: number;
}

/** Leaves of a common set, mm (common practice, no source). */
export const COMMON_LEAVES_MM = [0.05, 0.1, 0.15, 0.2, 0.3, 0.4, 0.5, 1, 1.5, 2, 3, 5, 10] as const;

/** Leaves of a common set in inches, mm: thousandths, then fractions (common practice, no source). */
export const COMMON_THOU_MM = [1.5, 2, 3, 4, 5, 8, 10, 15, 20, 25, 31.25, 62.5, 125, 250].map((t) => t * 0.0254);

/**
 * Nearest stack of at most `most` different leaves; the fewest within 0.0005 mm of the nearest.
 * @param targetMm wanted height. @param leavesMm leaves at hand, each used once.
 */
export function shimStack(targetMm: number, leavesMm: readonly number[], most = 4): ShimStack {
  let best: number[] = [];
  let bestTotal = 0;
  const chosen: number[] = [];
  const walk = (from: number, total: number): void => {
    const gain = Math.abs(bestTotal - targetMm) - Math.abs(total - targetMm);
    if (gain > 0.0005 || (gain >= -0.0005 && chosen.length < best.length)) {
      best = [...chosen];
      bestTotal = total;
    }
    if (chosen.length === most) return;
    for (let i = from; i < leavesMm.length; i++) {
      const leaf = leavesMm[i];
      chosen.push(leaf);
      walk(i + 1, total + leaf);
      chosen.pop();
    }
  };
  walk(0, 0);
  return { leavesMm: best, totalMm: bestTotal };
}

export interface FootTurn {
  turns: number;
  /** Sixths of a turn: flats of a hexagon. */
  flats: number;
  direction: "clockwise seen from above" | "anticlockwise seen from above" | "leave it";
}

/**
 * Turns of a foot screwed into a nut that is fixed to the work, foot below.
 * @param dzMm how far the work should rise. @param pitchMm thread pitch, > 0. @param thread hand of the thread.
 */
export function footTurn(dzMm: number, pitchMm: number, thread: "right" | "left" = "right"): FootTurn {
  const turns = Math.abs(dzMm) / pitchMm;
  const clockwise = dzMm > 0 === (thread === "right");
  const direction =
    turns === 0 ? "leave it" : clockwise ? "clockwise seen from above" : "anticlockwise seen from above";
  return { turns, flats: 6 * turns, direction };
}
