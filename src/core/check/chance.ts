import type { Estimate } from "../units";

/** Half of a band that nine in ten lie in, in standard deviations. */
export const HALF_BAND = 1.645;

/** Share of a normal distribution below z. Source: Abramowitz and Stegun 26.2.17 (from memory), off by less than 1e-7. */
export function normalBelow(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const poly = t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  const tail = (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * poly;
  return z >= 0 ? 1 - tail : tail;
}

/** Share of what may come that lies below x: half a normal to either side of the likely value, each as wide as its band. */
function below(x: number, { value, low, high }: Estimate): number {
  const spread = (x < value ? value - low : high - value) / HALF_BAND;
  return spread > 0 ? normalBelow((x - value) / spread) : x < value ? 0 : 1;
}

/**
 * Chance that something lies within its limits, from its likely value and the band that nine in ten lie in.
 * @param lower, upper null where there is none.
 */
export const chanceWithin = (estimate: Estimate, lower: number | null, upper: number | null): number =>
  Math.max(0, (upper === null ? 1 : below(upper, estimate)) - (lower === null ? 0 : below(lower, estimate)));
