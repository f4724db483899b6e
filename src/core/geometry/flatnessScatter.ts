import { normalDraw, type Rows, seeded, symmetricEigen, type Vec2 } from "../numeric";
import { MinimumZone } from "./minimumZone";

/** How a flatness scatters, mm. */
export interface Scatter {
  mean: number;
  sd: number;
  /** Nineteen in twenty lie below. */
  q95: number;
}

/** Draws that make the second digit of a spread sure. */
const DRAWS = 4000;
const SEED = 30_317;

/** Independent parts of a covariance: each a standard deviation at every point. */
function rootsOf(cov: Rows): Rows {
  const { values, vectors } = symmetricEigen(cov);
  const largest = Math.max(...values);
  return values.flatMap((value, k) => (value > 1e-12 * largest ? [vectors[k].map((v) => v * Math.sqrt(value))] : []));
}

/**
 * Flatness by Monte Carlo: for when several groups of four points are within a few uncertainties of deciding it, so that
 * the linear figure says too little.
 * @param xy places, mm. @param z heights, mm. @param cov covariance, mm2, or one standard uncertainty for all.
 */
export function flatnessScatter(xy: readonly Vec2[], z: readonly number[], cov: number | Rows, draws = DRAWS): Scatter {
  const random = seeded(SEED);
  const n = xy.length;
  // Heights that are known but for a plane have a covariance without full rank: its roots come from its eigenvectors.
  const roots = typeof cov === "number" ? null : rootsOf(cov);
  const zone = new MinimumZone(xy);
  const zones = new Float64Array(draws);
  const drawn = new Float64Array(n);
  for (let d = 0; d < draws; d++) {
    if (roots === null) for (let i = 0; i < n; i++) drawn[i] = z[i] + (cov as number) * normalDraw(random);
    else {
      for (let i = 0; i < n; i++) drawn[i] = z[i];
      for (const root of roots) {
        const e = normalDraw(random);
        for (let i = 0; i < n; i++) drawn[i] = drawn[i] + e * root[i];
      }
    }
    zones[d] = zone.of(drawn).zoneMm;
  }
  zones.sort();
  const mean = zones.reduce((s, v) => s + v, 0) / draws;
  return {
    mean,
    sd: Math.sqrt(zones.reduce((s, v) => s + (v - mean) ** 2, 0) / (draws - 1)),
    q95: zones[Math.floor(0.95 * draws)],
  };
}

/**
 * What a perfectly flat bed reads through the noise of its readings: noise only ever adds.
 * @param cov covariance of the heights, mm2, or one standard uncertainty for all, mm.
 */
export const noiseFloor = (xy: readonly Vec2[], cov: number | Rows, draws = 2 * DRAWS): Scatter =>
  flatnessScatter(
    xy,
    xy.map(() => 0),
    cov,
    draws,
  );
