import { normalCdf } from "../../numeric";

const HALF_BAND = 1.6448536269514722;
/** Chance to overshoot that is taken. Source: own judgement. */
const OVERSHOOT = 0.05;

/** A gain is believed this well before anything was tried, as a coefficient of variation. */
const logSd = (cv: number): number => Math.sqrt(Math.log(1 + cv * cv));

/** One go with an amount of something: what it did, and how sure that is. */
export interface Go {
  amount: number;
  effect: number;
  u: number;
}

/** How much of it to do next. */
export interface NextAmount {
  /** Effect of one unit, and where nine in ten such lie. */
  gain: number;
  gainLow: number;
  gainHigh: number;
  /** What is still wanted. */
  left: number;
  /** So much that it overshoots in one of twenty, and what would on average be right. */
  amount: number;
  amountMedian: number;
}

/**
 * The next amount of something whose effect per unit is not known well: peening, a bead, a heat line. Log-normal gain, updated by what each
 * go did (iterated Gauss-Newton), begun short. Source: Bayes' rule; Bell and Cathey (1993) for the iteration (from memory).
 */
export function nextAmount(wanted: number, gain: number, gainCv: number, goes: readonly Go[] = []): NextAmount {
  const start = Math.log(gain);
  const precision = 1 / logSd(gainCv) ** 2;
  let log = start;
  let all = precision;
  for (let round = 0; round < 200; round++) {
    all = precision;
    let right = precision * start;
    for (const { amount, effect, u } of goes) {
      const told = amount * Math.exp(log);
      const weight = (told / u) ** 2;
      all += weight;
      right += weight * ((effect - told) / told + log);
    }
    const next = right / all;
    const moved = Math.abs(next - log);
    log = next;
    if (moved < 1e-13) break;
  }
  const sd = 1 / Math.sqrt(all);
  const left = wanted - goes.reduce((s, g) => s + g.effect, 0);
  const gainHigh = Math.exp(log + HALF_BAND * sd);
  return {
    gain: Math.exp(log),
    gainLow: Math.exp(log - HALF_BAND * sd),
    gainHigh,
    left,
    amount: left / gainHigh,
    amountMedian: left / Math.exp(log),
  };
}

/** One push: how far, what stayed, and how sure that is, mm. */
export interface Pushed {
  push: number;
  moved: number;
  u: number;
}

/** How far to push next. */
export interface NextPush {
  left: number;
  /** What comes back, and where nine in ten such lie, mm. */
  springbackMm: number;
  springbackLow: number;
  springbackHigh: number;
  pushMm: number;
}

/** Places of the grid over the spring-back's logarithm, and how many standard deviations it reaches. */
const GRID = { places: 2001, reach: 5 } as const;
/** Shares of the likeliest place, and standard deviations, beyond which nothing is summed. */
const NEGLIGIBLE = 1e-9;
const CLEAR = 7;
/** Spring-back differs from push to push by this share of it. Source: own judgement. */
const REPEATS = 0.01;

/**
 * The next push past yield. What stays is what the push exceeds the spring-back by, and the spring-back hangs on a yield stress that
 * nobody knows: it is found by pushing a little further each time. A posterior on a grid.
 * @param springbackMm by the section and the stated yield. @param cv of that.
 */
export function nextPush(wanted: number, springbackMm: number, cv: number, tries: readonly Pushed[] = []): NextPush {
  const sd = logSd(cv);
  const backs: number[] = [];
  const weights: number[] = [];
  for (let i = 0; i < GRID.places; i++) {
    const z = GRID.reach * ((2 * i) / (GRID.places - 1) - 1);
    const back = springbackMm * Math.exp(sd * z);
    let log = (-z * z) / 2;
    for (const { push, moved, u } of tries) {
      const scatter = Math.hypot(u, REPEATS * back);
      log -= ((moved - Math.max(0, push - back)) / scatter) ** 2 / 2 + Math.log(scatter);
    }
    backs.push(back);
    weights.push(log);
  }
  const best = Math.max(...weights);
  const shares = weights.map((w) => Math.exp(w - best));
  const total = shares.reduce((s, w) => s + w, 0);
  const quantile = (q: number): number => {
    let sum = 0;
    for (let i = 0; i < backs.length; i++) {
      const share = (shares[i] ?? 0) / total;
      const middle = sum + share / 2;
      if (middle >= q) {
        const before = i > 0 ? sum - (shares[i - 1] ?? 0) / total / 2 : 0;
        const from = backs[i - 1] ?? backs[i] ?? springbackMm;
        return from + (((backs[i] ?? from) - from) * (q - before)) / (middle - before);
      }
      sum += share;
    }
    return backs.at(-1) ?? springbackMm;
  };
  const left = wanted - tries.reduce((s, t) => s + t.moved, 0);
  // What hardly weighs, or is clear on either side, is not worked out.
  const likely = backs.flatMap((back, i) => ((shares[i] ?? 0) > NEGLIGIBLE ? [{ back, share: shares[i] ?? 0 }] : []));
  const overshoots = (push: number): number =>
    likely.reduce((s, { back, share }) => {
      const z = (push - back - left) / (REPEATS * back);
      return s + share * (z > CLEAR ? 1 : z < -CLEAR ? 0 : normalCdf(z));
    }, 0) / total;
  let low = 0;
  let high = 2 * ((backs.at(-1) ?? springbackMm) + Math.abs(left));
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (overshoots(middle) < OVERSHOOT) low = middle;
    else high = middle;
  }
  return {
    left,
    springbackMm: quantile(0.5),
    springbackLow: quantile(0.05),
    springbackHigh: quantile(0.95),
    pushMm: (low + high) / 2,
  };
}
