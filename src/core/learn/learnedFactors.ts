import { cholesky, solveCholesky } from "../numeric";
import { FACTORS, type ShrinkFactors } from "../weld";
import type { ShopCell } from "./cells";
import { type Belief, believed } from "./learn";
import { BESIDES, FACTOR_PAIRS, LEARNABLE, type Learnable } from "./learnable";
import type { FrameLesson, ShopLearned } from "./lessonSchema";
import { inCell, incommon } from "./pooled";
import { logSd, type Scatter, type Teaching } from "./teaching";

/** Standard deviation of each factor's logarithm by the tables. */
export const tableSds = (factors: ShrinkFactors = FACTORS): Record<Learnable | (typeof BESIDES)[number], number> =>
  Object.fromEntries([...LEARNABLE, ...BESIDES].map((f) => [f, logSd(factors[f].cv)])) as Record<
    Learnable | (typeof BESIDES)[number],
    number
  >;

/** What a frame's record teaches, its factors by the names that are given to them. */
export const taughtBy = (
  { sources, beads, linear, change, cov }: FrameLesson["teaching"],
  named: (factor: Learnable) => string = (f) => f,
): Teaching => ({
  sources: sources.map((s) => ({ bead: null, factors: s.factors.map(named), effect: s.effect })),
  beads: beads.map((effect) => ({ factors: [named("transverse")], effect })),
  linear: Object.fromEntries(Object.entries(linear).flatMap(([f, by]) => (by ? [[f, by] as const] : []))),
  change,
  noise: { cov },
});

/** Scatter by the factors of a model: what beads and days differ by, and what the model leaves out. */
export const scatterOf = (factors: ShrinkFactors = FACTORS): Scatter => ({
  beadCv: Math.hypot(factors.perBead.cv, factors.fit.cv),
  dayCv: factors.day.cv,
  ...LEFT_OUT,
});
/** What the mechanics leaves out, as a share, and at least, mm. Source: own judgement. */
const LEFT_OUT = { modelShare: 0.1, modelMm: 0.03 } as const;

/**
 * A factor in one cell, by what was learned in others: mean and standard deviation of its logarithm.
 * k = covariance with them by pooling; mean = k K^-1 m, variance = k** - k K^-1 (K - P) K^-1 k.
 * Source: conditional of a normal distribution (Rasmussen and Williams, 2.2, from memory).
 */
function factorIn(learned: ShopLearned, factor: Learnable, cell: ShopCell): { mean: number; sd: number } {
  const sd = tableSds()[factor];
  const { cells } = learned;
  const { mean, cov } = learned.factors[factor];
  if (cells.length === 0) return { mean: 0, sd };
  const table = cells.map((a) => cells.map((b) => sd * sd * incommon(a, b)));
  const l = cholesky(table);
  if (!l) return { mean: 0, sd };
  const k = cells.map((c) => sd * sd * incommon(c, cell));
  const w = solveCholesky(l, k);
  const own = w.reduce((s, v, i) => s + v * mean[i], 0);
  const narrowed = w.reduce((s, v, i) => s + v * w.reduce((t, u, j) => t + u * (table[i][j] - cov[i][j]), 0), 0);
  return { mean: own, sd: Math.sqrt(Math.max(1e-12, sd * sd - narrowed)) };
}

/**
 * Covariances of the factors' logarithms in one cell: what lessons of that very cell say of two of them together. Lessons of others say
 * something of each by itself.
 */
function covarianceIn(learned: ShopLearned, cell: ShopCell): number[][] {
  const sds = LEARNABLE.map((f) => factorIn(learned, f, cell).sd);
  const own = learned.cells.findIndex((c) => inCell(c, "") === inCell(cell, ""));
  const pairs = learned.together?.[own];
  const cov = sds.map((sd, i) => sds.map((_, j) => (i === j ? sd * sd : 0)));
  FACTOR_PAIRS.forEach(([i, j], k) => {
    const common = pairs?.[k] ?? 0;
    // Rounded, or faded apart, two of them never have more in common than each has.
    const most = MOST_IN_COMMON * sds[i] * sds[j];
    cov[i][j] = Math.max(-most, Math.min(most, common));
    cov[j][i] = cov[i][j];
  });
  return cholesky(cov) ? cov : cov.map((row, i) => row.map((v, j) => (i === j ? v : 0)));
}
/** As a correlation. */
const MOST_IN_COMMON = 0.999;

/** What a plan's cell is believed to do, by what was learned; by the tables alone where nothing was. */
export function beliefIn(learned: ShopLearned | undefined, cell: ShopCell): Belief {
  const prior = believed(tableSds());
  if (!learned) return prior;
  const at = LEARNABLE.map((f) => factorIn(learned, f, cell));
  const cov = covarianceIn(learned, cell);
  return {
    ...prior,
    mean: prior.names.map((_, i) => at[i]?.mean ?? 0),
    cov: prior.cov.map((row, i) => row.map((v, j) => cov[i]?.[j] ?? v)),
  };
}

/** Coefficient of variation of a lognormal by the standard deviation of its logarithm. */
const cvOf = (sd: number): number => Math.sqrt(Math.expm1(sd * sd));

/** Factors with what a shop has learned in their place, and what they have in common by it: nothing learned leaves them as they are. */
export function learnedFactors(
  factors: ShrinkFactors,
  learned: ShopLearned | undefined,
  cell: ShopCell,
): ShrinkFactors {
  if (!learned || learned.frames + learned.coupons === 0) return factors;
  const sds = tableSds();
  const told = Object.fromEntries(
    LEARNABLE.map((f) => {
      const { mean, sd } = factorIn(learned, f, cell);
      return [f, { ...factors[f], value: factors[f].value * Math.exp(mean), cv: cvOf(sd), source: "learned" }];
    }),
  );
  const narrowed = factorIn(learned, "transverse", cell).sd / sds.transverse;
  const { scatter } = learned;
  return {
    ...factors,
    ...told,
    together: covarianceIn(learned, cell),
    // Another metal than the factors were found on is sure of itself as far as the shop has found it out.
    otherMaterial: { ...factors.otherMaterial, cv: factors.otherMaterial.cv * narrowed },
    ...(scatter
      ? {
          perBead: {
            ...factors.perBead,
            cv: Math.sqrt(Math.max(LEAST_CV ** 2, scatter.beadCv ** 2 - factors.fit.cv ** 2)),
          },
          day: { ...factors.day, cv: scatter.dayCv },
        }
      : {}),
  };
}
/** Beads never differ by less, whatever few frames say. Source: own judgement. */
const LEAST_CV = 0.05;
