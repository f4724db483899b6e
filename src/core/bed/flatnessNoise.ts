import { cholesky, normalDraw, type Rows, seeded, type Vec2 } from "../numeric";
import { zoneOf } from "./flatness";

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

/**
 * Flatness by Monte Carlo: for when several groups of four points are within a few uncertainties of deciding it, so that
 * the linear figure says too little.
 * @param xy places, mm. @param z heights, mm. @param cov covariance, mm2, or one standard uncertainty for all.
 */
export function flatnessScatter(xy: readonly Vec2[], z: readonly number[], cov: number | Rows, draws = DRAWS): Scatter {
  const random = seeded(SEED);
  const n = xy.length;
  // A reference point has no uncertainty: the least share keeps the factor from failing on its row of noughts.
  const factor =
    typeof cov === "number"
      ? null
      : cholesky(cov.map((row, i) => row.map((v, j) => v + (i === j ? 1e-15 * Math.max(...row.map(Math.abs), 1) : 0))));
  const places = [...xy];
  const zones: number[] = [];
  const e = new Array<number>(n).fill(0);
  for (let d = 0; d < draws; d++) {
    for (let i = 0; i < n; i++) e[i] = normalDraw(random);
    zones.push(
      zoneOf(
        places,
        z.map((v, i) =>
          typeof cov === "number"
            ? v + cov * (e[i] as number)
            : v + (factor?.[i] ?? []).reduce((s, l, j) => s + l * (e[j] as number), 0),
        ),
      ),
    );
  }
  zones.sort((a, b) => a - b);
  const mean = zones.reduce((s, v) => s + v, 0) / draws;
  return {
    mean,
    sd: Math.sqrt(zones.reduce((s, v) => s + (v - mean) ** 2, 0) / (draws - 1)),
    q95: zones[Math.floor(0.95 * draws)] as number,
  };
}

/** What a perfectly flat bed reads through the noise of its readings: noise only ever adds. @param uMm of each height. */
export const noiseFloor = (xy: readonly Vec2[], uMm: number): Scatter =>
  flatnessScatter(
    xy,
    xy.map(() => 0),
    uMm,
    2 * DRAWS,
  );
