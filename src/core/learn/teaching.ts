import { type Noise, type Rows, zeros } from "../numeric";

/** What one bead or tack does to each reading by the tables' factors, and which factors it goes with. */
export interface TeachingSource {
  /** Sources of one bead scatter together; null for what is told as a whole, its beads' scatter apart. */
  bead: string | number | null;
  /** Names of the factors that multiply it. */
  factors: readonly string[];
  /** Change of each reading, mm. */
  effect: readonly number[];
}

/** What a frame or a coupon could teach: how its readings hang on the factors. */
export interface Teachable {
  sources: readonly TeachingSource[];
  /** What beads differ by, where it is told apart: free of each other, each as large as one bead's whole effect would be, mm. */
  beads?: readonly Omit<TeachingSource, "bead">[];
  /** Change of each reading per unit of a factor's logarithm, for factors that act on all of it at once, mm. */
  linear?: Readonly<Record<string, readonly number[]>>;
}

/** What a frame or a coupon taught: what was read of it, from one gate to the next. */
export type Teaching = Teachable & {
  /** Change of each reading, mm. */
  change: readonly number[];
  /** How sure the changes are: one by one, or together where they share a tape, mm or mm2. */
  noise: Noise;
};

/** How far one differs from the next though nothing was changed. */
export interface Scatter {
  /** Coefficient of variation of one bead against the next, and of one day against the next. */
  beadCv: number;
  dayCv: number;
  /** What the model leaves out: a share of what it says, and at least so much, mm. */
  modelShare: number;
  modelMm: number;
}

/** Scatter before a shop has taught its own. Source: own judgement. */
export const USUAL_SCATTER: Scatter = { beadCv: 0.25, dayCv: 0.08, modelShare: 0.1, modelMm: 0.03 };

/** Standard deviation of the logarithm of a lognormal with this coefficient of variation. */
export const logSd = (cv: number): number => Math.sqrt(Math.log(1 + cv * cv));

/** What a model says at given factors. */
interface Told {
  /** Mean of each reading, mm. */
  mean: number[];
  /** Change of each reading per unit of each factor's logarithm, readings by factors. */
  jacobian: Rows;
  /** What scatters besides the readings themselves, readings by readings, mm2. */
  scatter: Rows;
}

/**
 * Readings of a frame at given factors: g = sum of e exp(sum of ln factors) times the mean of lognormal beads and days, and what is
 * linear in a logarithm.
 * @param names of the factors, in the order of `logs`. @param logs of factor over table. What is not named stays at the table.
 */
export function toldBy(job: Teachable, names: readonly string[], logs: readonly number[], scatter: Scatter): Told {
  const place = new Map(names.map((n, i) => [n, i]));
  const readings = job.sources[0]?.effect.length ?? Object.values(job.linear ?? {})[0]?.length ?? 0;
  const lift = Math.sqrt((1 + scatter.beadCv ** 2) * (1 + scatter.dayCv ** 2));
  const mean = new Array<number>(readings).fill(0);
  const jacobian = zeros(readings, names.length);
  const beads = new Map<string | number, number[]>();
  const shareOf = (factors: readonly string[]): number =>
    lift * Math.exp(factors.reduce((sum, f) => sum + (logs[place.get(f) ?? -1] ?? 0), 0));
  for (const [i, { factors, effect }] of (job.beads ?? []).entries()) {
    const share = shareOf(factors);
    beads.set(
      `apart ${i}`,
      effect.map((mm) => share * mm),
    );
  }
  for (const { bead, factors, effect } of job.sources) {
    const at = factors.flatMap((f) => place.get(f) ?? []);
    const share = shareOf(factors);
    const own = (bead === null ? null : beads.get(bead)) ?? new Array<number>(readings).fill(0);
    if (bead !== null) beads.set(bead, own);
    for (let r = 0; r < readings; r++) {
      const mm = share * effect[r];
      mean[r] = mean[r] + mm;
      own[r] = own[r] + mm;
      for (const i of at) jacobian[r][i] = jacobian[r][i] + mm;
    }
  }
  const byBeads = [...mean];
  for (const [name, by] of Object.entries(job.linear ?? {})) {
    const i = place.get(name);
    if (i === undefined) continue;
    for (let r = 0; r < readings; r++) {
      mean[r] = mean[r] + by[r] * logs[i];
      jacobian[r][i] = jacobian[r][i] + by[r];
    }
  }
  const out = zeros(readings, readings);
  const [day2, bead2] = [scatter.dayCv ** 2, scatter.beadCv ** 2];
  const apart = [...beads.values()];
  for (let r = 0; r < readings; r++)
    for (let c = 0; c <= r; c++) {
      let sum = 0;
      for (const own of apart) sum += own[r] * own[c];
      sum = bead2 * sum + day2 * byBeads[r] * byBeads[c];
      if (r === c) sum += (scatter.modelShare * mean[r]) ** 2 + scatter.modelMm ** 2;
      out[r][c] = sum;
      out[c][r] = sum;
    }
  return { mean, jacobian, scatter: out };
}

/** Covariance of readings, mm2. */
export const noiseOf = (noise: Noise): Rows =>
  "cov" in noise ? noise.cov : noise.u.map((u, i) => noise.u.map((_, j) => (i === j ? u * u : 0)));

/** Sum of two matrices of one shape. */
export const sumOf = (a: Rows, b: Rows): Rows => a.map((row, i) => row.map((v, j) => v + b[i][j]));

/** J P J^T. @param jacobian n x k. @param cov k x k. */
export function carried(jacobian: Rows, cov: Rows): Rows {
  const half = jacobian.map((row) => cov.map((line) => line.reduce((s, v, k) => s + v * row[k], 0)));
  return half.map((row) => jacobian.map((other) => other.reduce((s, v, k) => s + v * row[k], 0)));
}
