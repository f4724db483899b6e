import jstat from "jstat";
import { chiSquareTail, cholesky, normalCdf, type Rows, solveCholesky } from "../numeric";

/** One predicted value and what was read. */
export interface Scored {
  measured: number;
  mean: number;
  /** Of the prediction, and of the reading. */
  sd: number;
  u: number;
}

/** How predictions stand to readings, reading's own uncertainty included. */
export interface Calibration {
  /** Standardised differences, and where each lies in what was predicted, 0 to 1. */
  z: number[];
  pit: number[];
  /** How many lie in each fifth. */
  bins: number[];
  /** Largest distance from an even spread, and the chance of one so large. */
  ks: number;
  ksP: number;
  meanZ: number;
  rmsZ: number;
}

const BINS = 5;

/**
 * Chance of a distance so large from an even spread.
 * Source: Kolmogorov's series with Stephens' correction for few values (1970, from memory).
 */
function kolmogorov(distance: number, n: number): number {
  const root = Math.sqrt(n);
  const t = (root + 0.12 + 0.11 / root) * distance;
  // Near nought the series alternates for ever, and the chance is one.
  if (t < 0.2) return 1;
  let sum = 0;
  for (let k = 1; k <= 100; k++) sum += (k % 2 === 1 ? 2 : -2) * Math.exp(-2 * k * k * t * t);
  return Math.min(1, Math.max(0, sum));
}

/** Where readings lie in what was predicted of them. Source: Dawid (1984), probability integral transform, from memory. */
export function calibration(values: readonly Scored[]): Calibration {
  const z = values.map((v) => (v.measured - v.mean) / Math.hypot(v.sd, v.u));
  const pit = z.map(normalCdf);
  const bins = new Array<number>(BINS).fill(0);
  for (const p of pit) {
    const at = Math.min(BINS - 1, Math.floor(BINS * p));
    bins[at] = bins[at] + 1;
  }
  const sorted = [...pit].sort((a, b) => a - b);
  const n = z.length;
  const ks = Math.max(0, ...sorted.map((p, i) => Math.max((i + 1) / n - p, p - i / n)));
  return {
    ...{ z, pit, bins, ks },
    ksP: n > 0 ? kolmogorov(ks, n) : 1,
    meanZ: n > 0 ? z.reduce((s, v) => s + v, 0) / n : 0,
    rmsZ: n > 0 ? Math.sqrt(z.reduce((s, v) => s + v * v, 0) / n) : 0,
  };
}

/** One number for a whole frame: its sides share their factors, and are no separate witnesses. */
export function frameChi2(residualMm: readonly number[], cov: Rows): { d2: number; of: number; p: number } {
  const l = cholesky(cov);
  if (!l) throw new RangeError("Not a covariance.");
  const d2 = solveCholesky(l, residualMm).reduce((s, v, i) => s + v * residualMm[i], 0);
  return { d2, of: residualMm.length, p: chiSquareTail(d2, residualMm.length) };
}

/** What a share of bands that held says. */
export interface Coverage {
  share: number;
  /** Where the true share lies, nine in ten. */
  low: number;
  high: number;
  /** How many of as many true bands would hold, nine times in ten. */
  expectedFrom: number;
  expectedTo: number;
  word: "too few to tell" | "as it should be" | "narrower than the truth" | "wider than the truth";
}

/** Below so many nothing is said. */
export const TOO_FEW = 10;
const NOMINAL = 0.9;

/** Smallest k with at least p of the binomial at or below it. */
function binomialQuantile(p: number, n: number, share: number): number {
  let k = 0;
  while (k < n && jstat.binomial.cdf(k, n, share) < p) k++;
  return k;
}

/**
 * How many of the bands held, and what that says of them.
 * Source: Jeffreys interval (Brown, Cai and DasGupta 2001, from memory); binomial quantiles.
 */
export function coverage(inside: number, of: number, nominal: number = NOMINAL): Coverage {
  const low = inside === 0 ? 0 : jstat.beta.inv(0.05, inside + 0.5, of - inside + 0.5);
  const high = inside === of ? 1 : jstat.beta.inv(0.95, inside + 0.5, of - inside + 0.5);
  const expectedFrom = binomialQuantile(0.05, of, nominal);
  const expectedTo = binomialQuantile(0.95, of, nominal);
  const word =
    of < TOO_FEW
      ? "too few to tell"
      : inside < expectedFrom
        ? "narrower than the truth"
        : inside > expectedTo
          ? "wider than the truth"
          : "as it should be";
  return { share: of > 0 ? inside / of : 0, low, high, expectedFrom, expectedTo, word };
}

/**
 * Frames that it takes to find, four times in five, that bands hold less often than they say (one-sided, 5 %).
 * Source: exact binomial test.
 */
export function framesNeeded(
  nominal: number,
  truth: number,
  power = 0.8,
  level = 0.05,
): { frames: number; rejectAtOrBelow: number } {
  const MOST = 2000;
  for (let n = 1; n <= MOST; n++) {
    let reject = -1;
    while (jstat.binomial.cdf(reject + 1, n, nominal) <= level) reject++;
    if (reject >= 0 && jstat.binomial.cdf(reject, n, truth) >= power) return { frames: n, rejectAtOrBelow: reject };
  }
  return { frames: MOST, rejectAtOrBelow: Number.NaN };
}

/** Whether jobs have begun to pull more, or less, than was predicted. */
export interface Drift {
  up: number;
  down: number;
  /** Index of the job at which it was first found; null while it was not. */
  alarmAt: number | null;
}

/** Slack and height of the sums, in standard deviations. Source: Page (1954); usual choice of half a deviation (from memory). */
const CUSUM = { slack: 0.5, height: 4 } as const;

/** Cumulative sums of jobs' standardised differences. */
export function drift(z: readonly number[]): Drift {
  let up = 0;
  let down = 0;
  let alarmAt: number | null = null;
  z.forEach((v, i) => {
    up = Math.max(0, up + v - CUSUM.slack);
    down = Math.max(0, down - v - CUSUM.slack);
    if (alarmAt === null && Math.max(up, down) > CUSUM.height) alarmAt = i;
  });
  return { up, down, alarmAt };
}
