import { cholesky } from "../numeric";
import { type Belief, learn } from "./learn";
import { noiseOf, type Scatter, sumOf, type Teaching, toldBy, USUAL_SCATTER } from "./teaching";

/** What a shop's own beads and days scatter by, with what nine in ten of it lie between. */
export interface LearnedScatter {
  beadCv: number;
  beadLow: number;
  beadHigh: number;
  dayCv: number;
  dayHigh: number;
}

/** What is believed of the scatters: about the usual, within a factor. Source: own judgement. */
const BELIEVED = { bead: { cv: 0.25, logSd: 0.5 }, day: { cv: 0.08, logSd: 0.6 } } as const;
/** Places of the grid along each, and how many standard deviations it reaches. */
const GRID = { bead: 9, day: 6, reach: 2 } as const;

/** Evidence is flat about its best place: so near to it is near enough. */
const STILL = 1e-6;

const places = (count: number, { cv, logSd: sd }: { cv: number; logSd: number }): number[] =>
  Array.from({ length: count }, (_, i) => cv * Math.exp(GRID.reach * sd * ((2 * i) / (count - 1) - 1)));

/**
 * Learns how much beads and days scatter from how readings of many jobs differ: the evidence of each pair on a grid, factors integrated
 * out about their best values (Laplace). It shows in racking and twist, and a tape suffices.
 * Source: MacKay (1992), evidence of a model, from memory.
 */
export function learnScatter(prior: Belief, jobs: readonly Teaching[], usual: Scatter = USUAL_SCATTER): LearnedScatter {
  const beads = places(GRID.bead, BELIEVED.bead);
  const days = places(GRID.day, BELIEVED.day);
  const logs = beads.map((beadCv) =>
    days.map((dayCv) => {
      const priorOf = (cv: number, b: { cv: number; logSd: number }): number =>
        -(Math.log(cv / b.cv) ** 2) / (2 * b.logSd ** 2);
      return (
        evidence(prior, jobs, { ...usual, beadCv, dayCv }) +
        priorOf(beadCv, BELIEVED.bead) +
        priorOf(dayCv, BELIEVED.day)
      );
    }),
  );
  const best = Math.max(...logs.flat());
  const weights = logs.map((row) => row.map((v) => Math.exp(v - best)));
  const total = weights.flat().reduce((s, v) => s + v, 0);
  const bead = weights.map((row) => row.reduce((s, v) => s + v, 0) / total);
  const day = days.map((_, j) => weights.reduce((s, row) => s + row[j], 0) / total);
  const b = spreadOf(beads, bead);
  const d = spreadOf(days, day);
  return { beadCv: b.value, beadLow: b.low, beadHigh: b.high, dayCv: d.value, dayHigh: d.high };
}

/** Log evidence of a scatter. */
function evidence(prior: Belief, jobs: readonly Teaching[], scatter: Scatter): number {
  const { mean, chi2, cov } = learn(prior, jobs, scatter, false, false, STILL);
  const logDet = (a: readonly (readonly number[])[]): number =>
    (cholesky(a.map((row) => [...row])) ?? []).reduce((s, row, i) => s + 2 * Math.log(row[i]), 0);
  const volumes = jobs.reduce(
    (sum, job) => sum + logDet(sumOf(toldBy(job, prior.names, mean, scatter).scatter, noiseOf(job.noise))),
    0,
  );
  return -chi2 / 2 - volumes / 2 + (logDet(cov) - logDet(prior.cov)) / 2;
}

/** Mean of the logarithms, and where nine in ten lie. */
function spreadOf(values: readonly number[], weights: readonly number[]): { value: number; low: number; high: number } {
  const mean = values.reduce((s, v, i) => s + weights[i] * Math.log(v), 0);
  const sd = Math.sqrt(values.reduce((s, v, i) => s + weights[i] * (Math.log(v) - mean) ** 2, 0));
  return { value: Math.exp(mean), low: Math.exp(mean - 1.645 * sd), high: Math.exp(mean + 1.645 * sd) };
}
