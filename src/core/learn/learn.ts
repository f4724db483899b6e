import { chiSquareTail, cholesky, type Rows, solveCholesky, zeros } from "../numeric";
import {
  carried,
  noiseOf,
  type Scatter,
  sumOf,
  type Teachable,
  type Teaching,
  toldBy,
  USUAL_SCATTER,
} from "./teaching";

/** What is believed of some factors: logarithms of factor over table. */
export interface Belief {
  names: readonly string[];
  mean: readonly number[];
  cov: Rows;
}

/** What was learned. */
export interface Learned extends Belief {
  /** Sum of squares of readings and beliefs against their scatter, chi-square with so many degrees when all is as believed. */
  chi2: number;
  readings: number;
  p: number;
  /** Whether the evidence contradicts itself or what was believed: nothing is then narrowed by it. */
  contradicts: boolean;
  /** What the covariance was multiplied by for that, at most back to what was believed. */
  inflated: number;
  /** How much each job counted: less the worse it fits. */
  weights: number[];
}

/** Evidence less likely than this contradicts. */
export const CONTRADICTS = 0.05;
/** Freedom of the weights: a job that fits is counted whole, one that is far off hardly. Source: Student's t with four (own judgement). */
const WEIGHT_FREEDOM = 4;
const ROUNDS = 500;
const STILL = 1e-11;

/** Inverse of a positive definite matrix. @throws RangeError when it is not. */
export function inverseOf(a: Rows): Rows {
  const l = cholesky(a);
  if (!l) throw new RangeError("Not a covariance.");
  return a.map((_, i) =>
    solveCholesky(
      l,
      a.map((__, j) => (i === j ? 1 : 0)),
    ),
  );
}

/** Beliefs that are free of each other. @param sds standard deviation of each factor's logarithm. */
export function believed(sds: Readonly<Record<string, number>>): Belief {
  const names = Object.keys(sds);
  const cov = names.map((n, i) => names.map((_, j) => (i === j ? (sds[n] ?? 0) ** 2 : 0)));
  return { names, mean: names.map(() => 0), cov };
}

/** a times b, by the scalar product. */
const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((s, v, i) => s + v * b[i], 0);

/**
 * Updates what is believed of factors by jobs: linear and Gaussian in the logarithms, iterated to where nothing moves.
 * L = P^-1 + sum w J^T V^-1 J; theta = L^-1 (P^-1 m + sum w J^T V^-1 (r + J theta)), V at the present theta.
 * Source: iterated Gauss-Newton update (Bell and Cathey 1993, from memory); weights as of a multivariate t.
 * @param isRobust whether a job counts less the worse it fits. @param widens whether evidence that contradicts itself narrows nothing.
 * @param still no factor moves by more when it is done.
 */
export function learn(
  prior: Belief,
  jobs: readonly Teaching[],
  scatter: Scatter = USUAL_SCATTER,
  isRobust = true,
  widens = true,
  still = STILL,
): Learned {
  const n = prior.names.length;
  const precision = inverseOf(prior.cov);
  const begun = precision.map((row) => dot(row, prior.mean));
  let theta = [...prior.mean];
  let weights = jobs.map(() => 1);
  let information: Rows = precision;
  const residual = (job: Teaching, logs: readonly number[]) => {
    const told = toldBy(job, prior.names, logs, scatter);
    const l = cholesky(sumOf(told.scatter, noiseOf(job.noise)));
    if (!l) throw new RangeError("Readings without any scatter.");
    return { ...told, l, off: job.change.map((c, i) => c - told.mean[i]) };
  };
  for (let round = 0; round < ROUNDS; round++) {
    information = precision.map((row) => [...row]);
    const right = [...begun];
    weights = jobs.map((job) => {
      const { jacobian, l, off } = residual(job, theta);
      const square = dot(off, solveCholesky(l, off));
      const weight = isRobust ? Math.min(1, (WEIGHT_FREEDOM + off.length) / (WEIGHT_FREEDOM + square)) : 1;
      const wanted = off.map((r, i) => r + dot(jacobian[i], theta));
      const solved = solveCholesky(l, wanted);
      // Factors of other cells do nothing here.
      const columns = Array.from({ length: n }, (_, a) => a).flatMap((a) => {
        const column = jacobian.map((row) => row[a]);
        return column.some((v) => v !== 0) ? [{ a, column }] : [];
      });
      for (const { a, column } of columns) {
        const half = solveCholesky(l, column);
        right[a] = right[a] + weight * dot(column, solved);
        for (const other of columns)
          information[a][other.a] = information[a][other.a] + weight * dot(half, other.column);
      }
      return weight;
    });
    const l = cholesky(information);
    if (!l) throw new RangeError("Not a covariance.");
    const next = solveCholesky(l, right);
    const moved = Math.max(0, ...next.map((v, i) => Math.abs(v - theta[i])));
    theta = next;
    if (moved < still) break;
  }
  const from = theta.map((v, i) => v - prior.mean[i]);
  let chi2 = dot(
    from,
    precision.map((row) => dot(row, from)),
  );
  let readings = 0;
  for (const job of jobs) {
    const { l, off } = residual(job, theta);
    chi2 += dot(off, solveCholesky(l, off));
    readings += off.length;
  }
  const p = readings > 0 ? chiSquareTail(chi2, readings) : 1;
  const contradicts = p < CONTRADICTS;
  const inflated = contradicts && widens ? chi2 / readings : 1;
  const cov = widened(inverseOf(information), inflated, prior.cov);
  return { names: prior.names, mean: theta, cov, chi2, readings, p, contradicts, inflated, weights };
}

/** A covariance that was inflated, no variance above what was believed before. */
function widened(cov: Rows, by: number, most: Rows): Rows {
  if (by === 1) return cov;
  const share = cov.map((row, i) => Math.sqrt(Math.min(by, most[i][i] / row[i])));
  return cov.map((row, i) => row.map((v, j) => v * share[i] * share[j]));
}

/** Standard deviation of each factor's logarithm. */
export const sdsOf = ({ cov }: Belief): number[] => cov.map((row, i) => Math.sqrt(row[i]));

/** What one more job would teach, before it is made: its readings are taken to be as predicted. */
export interface Information {
  /** Each factor's standard deviation, as a share of what it is now. */
  narrowedTo: Record<string, number>;
  /** Information, bits. */
  bits: number;
}

/**
 * How far a coupon or frame would narrow the factors: posterior against prior covariance, which hang on the readings' uncertainty and not
 * on what is read. Source: Lindley (1956), information of an experiment, from memory.
 */
export function information(
  prior: Belief,
  job: Teachable & Pick<Teaching, "noise">,
  scatter: Scatter = USUAL_SCATTER,
): Information {
  const told = toldBy(job, prior.names, prior.mean, scatter);
  const l = cholesky(sumOf(told.scatter, noiseOf(job.noise)));
  if (!l) throw new RangeError("Readings without any scatter.");
  const n = prior.names.length;
  const columns = prior.names.map((_, a) => told.jacobian.map((row) => row[a]));
  const half = columns.map((c) => solveCholesky(l, c));
  const sum = inverseOf(prior.cov).map((row, a) => row.map((v, b) => v + dot(half[a], columns[b])));
  const cov = inverseOf(sum);
  const logDet = (a: Rows): number => (cholesky(a) ?? zeros(n, n)).reduce((s, row, i) => s + 2 * Math.log(row[i]), 0);
  return {
    narrowedTo: Object.fromEntries(prior.names.map((name, i) => [name, Math.sqrt(cov[i][i] / prior.cov[i][i])])),
    bits: (logDet(prior.cov) - logDet(cov)) / (2 * Math.LN2),
  };
}

/** What a frame is expected to do by what is believed. */
export interface Expected {
  mean: number[];
  /** Standard deviation of each, mm: of all that scatters, and of the factors alone. */
  sd: number[];
  factorsSd: number[];
  /** Covariance of all that scatters, without the readings, mm2. */
  cov: Rows;
}

/** Changes that a job's frame is expected to make. */
export function expected(belief: Belief, job: Teachable, scatter: Scatter = USUAL_SCATTER): Expected {
  const told = toldBy(job, belief.names, belief.mean, scatter);
  const byFactors = carried(told.jacobian, belief.cov);
  const cov = sumOf(told.scatter, byFactors);
  return {
    mean: told.mean,
    sd: cov.map((row, i) => Math.sqrt(row[i])),
    factorsSd: byFactors.map((row, i) => Math.sqrt(row[i])),
    cov,
  };
}
