import { normalCdf } from "../numeric";

export type Verdict = "pass" | "fail" | "too close to call";

export interface Conformity {
  verdict: Verdict;
  /** Guard band taken off each limit. */
  guard: number;
  /** What the reading must lie between to pass. */
  accept: { lower: number | null; upper: number | null };
  /** The instruments cannot prove a pass, whatever is read. */
  acceptanceZoneEmpty: boolean;
  /** To the nearer limit; negative outside. */
  margin: number;
  /** Chance that the true value is inside, 0 to 1. */
  pc: number;
  /** (upper - lower) / (4 u); null when one limit is open. */
  capability: number | null;
}

/** 95 % one-sided: guard band of ISO 14253-1:2017 (from memory). */
export const GUARD_FACTOR = 1.645;

/**
 * Decides a reading against limits, with the uncertainty in favour of nobody.
 * Source: ISO 14253-1 decision rule, probability of conformity after JCGM 106:2012 (both from memory).
 * @param value reading. @param u standard uncertainty, same unit, > 0. @param lower, @param upper limits, null when open.
 * @param nonnegative true for quantities that cannot be below zero (flatness, gaps).
 */
export function conformity(
  value: number,
  u: number,
  lower: number | null,
  upper: number | null,
  nonnegative = false,
): Conformity {
  const guard = GUARD_FACTOR * u;
  const accept = { lower: lower === null ? null : lower + guard, upper: upper === null ? null : upper - guard };
  const low = lower ?? Number.NEGATIVE_INFINITY;
  const high = upper ?? Number.POSITIVE_INFINITY;
  const acceptanceZoneEmpty = nonnegative
    ? high - guard < 0
    : accept.lower !== null && accept.upper !== null && accept.lower > accept.upper;
  let verdict: Verdict = "too close to call";
  if (value > high + guard || value < low - guard) verdict = "fail";
  else if (value >= low + guard && value <= high - guard) verdict = "pass";
  const phi = (limit: number): number => (limit === Number.POSITIVE_INFINITY ? 1 : normalCdf((limit - value) / u));
  const below = nonnegative ? normalCdf(-value / u) : 0;
  const inside = phi(high) - (nonnegative ? below : low === Number.NEGATIVE_INFINITY ? 0 : phi(low));
  return {
    verdict,
    guard,
    accept,
    acceptanceZoneEmpty,
    margin: Math.min(high - value, value - low),
    pc: nonnegative ? inside / (1 - below) : inside,
    capability: lower === null || upper === null ? null : (upper - lower) / (4 * u),
  };
}
