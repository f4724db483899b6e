import { chiSquareTail, cholesky, normalCdf, solveCholesky } from "../numeric";
import { type Belief, inverseOf } from "./learn";
import { carried, noiseOf, type Scatter, sumOf, type Teaching, toldBy, USUAL_SCATTER } from "./teaching";

/** What explains a job that is not as predicted. */
export type Misfit = "fits" | "all heat by a factor" | "one reading" | "unexplained";

/** How a job stands to what was predicted of it, before it teaches. */
export interface Surprise {
  d2: number;
  readings: number;
  /** Chance of one so far off, as a whole. */
  p: number;
  /** The same along the direction in which all heat is another. */
  pHeat: number;
  /** The same of the reading that is farthest off, for as many as there are. */
  pReading: number;
  cause: Misfit;
  /** What all heat would be multiplied by. */
  heatFactor: number;
  /** The reading that is farthest off, by how much if it alone is, mm, and its standardised residual. */
  reading: number;
  slipMm: number;
  largestW: number;
}

/** Levels below which something is named. Source: own judgement. */
const LEVELS = { whole: 0.01, heat: 0.0027, reading: 0.01, rest: 0.001 } as const;

/**
 * Tests a job against what was predicted, along the directions that mistakes have: wrong settings move everything, a misread tape moves
 * one reading. Source: Baarda (1968), tests of one alternative each, from memory.
 */
export function surprise(belief: Belief, job: Teaching, scatter: Scatter = USUAL_SCATTER): Surprise {
  const told = toldBy(job, belief.names, belief.mean, scatter);
  const cov = sumOf(sumOf(told.scatter, carried(told.jacobian, belief.cov)), noiseOf(job.noise));
  const l = cholesky(cov);
  if (!l) throw new RangeError("Readings without any scatter.");
  const off = job.change.map((c, i) => c - told.mean[i]);
  const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((s, v, i) => s + v * b[i], 0);
  const solved = solveCholesky(l, off);
  const n = off.length;
  const d2 = dot(off, solved);
  const p = chiSquareTail(d2, n);
  const heat = dot(told.mean, solveCholesky(l, told.mean));
  const along = dot(told.mean, solved);
  const byHeat = heat > 0 ? along ** 2 / heat : 0;
  const pHeat = chiSquareTail(byHeat, 1);
  const precision = inverseOf(cov);
  const w = solved.map((v, i) => v / Math.sqrt(precision[i][i]));
  const reading = w.reduce((best, v, i) => (Math.abs(v) > Math.abs(w[best]) ? i : best), 0);
  const largestW = w[reading] ?? 0;
  const pReading = Math.min(1, n * 2 * (1 - normalCdf(Math.abs(largestW))));
  const slipMm = n > 0 ? solved[reading] / precision[reading][reading] : 0;
  const isOff = p < LEVELS.whole || pHeat < LEVELS.heat || pReading < LEVELS.reading;
  const byReading = largestW ** 2;
  const best = Math.max(byHeat, byReading);
  const rest = chiSquareTail(Math.max(0, d2 - best), Math.max(1, n - 1));
  const cause: Misfit = !isOff
    ? "fits"
    : n > 1 && rest < LEVELS.rest
      ? "unexplained"
      : byHeat >= byReading
        ? "all heat by a factor"
        : "one reading";
  return {
    ...{ d2, readings: n, p, pHeat, pReading, cause },
    heatFactor: heat > 0 ? 1 + along / heat : 1,
    ...{ reading, slipMm, largestW },
  };
}
