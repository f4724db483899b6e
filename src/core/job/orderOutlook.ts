import type { Limit } from "../check";
import { type Hands, type OrderChoice, type Timeline, timelineOf } from "../plan";
import type { Drawn, Prediction } from "../shrink";
import type { Estimate } from "../units";
import { builtOf } from "./built";
import { forecasting } from "./evaluate";
import type { Job } from "./jobSchema";
import { paceOf } from "./pace";
import { predicting } from "./predict";
import { weldOf } from "./settings";

/** How an order is likely to end, by draws that nobody searched with. */
export interface OrderOutlook {
  choice: OrderChoice;
  /** Chance that every limit of which something is predicted is kept; null where nothing is predicted of any. */
  chance: number | null;
  /** Chance of each of these limits by itself. */
  limits: { limit: Limit; chance: number }[];
  /** Limits of which nothing is predicted. */
  untold: Limit[];
  /** How often the frame is turned over. */
  turns: number;
  /** How long it takes, cooling and handling included, s. */
  totalS: number;
}

/** Draws behind a chance that a person reads: so many leave it off by two points or so. */
export const OUTLOOK_DRAWS = 400;
const SEED = 90_221;
/** Chances nearer than this are called equal. */
export const EQUAL = 0.02;

/** A job in another order. */
export const inOrder = (job: Job, choice: OrderChoice): Job => ({ ...job, plan: { ...job.plan, order: choice } });

/** How often an order turns the frame over. */
export const turnsOf = (job: Job): number =>
  builtOf(job.plan).order?.steps.filter((s) => s.id.do === "flip").length ?? 0;

/** Who works on a job, and how fast. */
const handsOf = (job: Job): Hands => ({
  handling: paceOf(job).handling,
  welders: job.plan.hands?.two ? 2 : 1,
});

/** How long a job's order takes; null while its frame has errors. */
export function timeOf(job: Job): Timeline | null {
  const { structure, order } = builtOf(job.plan);
  return structure && order ? timelineOf(structure, weldOf(job.plan), order.steps, handsOf(job)) : null;
}

const exact = (value: number): Estimate => ({ value, low: value, high: value });

/** The outcomes of a prediction as they are in one draw: no band is left of them. */
const ofDraw = (prediction: Prediction, drawn: readonly Drawn[], d: number): Prediction["outcomes"] =>
  prediction.outcomes.map((o, i) => {
    const value = drawn[i]?.draws[d] ?? o.nominal;
    const from = Object.entries(drawn[i]?.from ?? {}).map(([gate, { draws }]) => [gate, exact(draws[d] ?? 0)] as const);
    return { ...o, estimate: exact(value), from: Object.fromEntries(from) };
  });

/** Draws between two chances to stop. */
const AT_ONCE = 10;

/**
 * Chance that a job's frame ends within all its limits in an order, from draws of their own. A generator, as a prediction is.
 * @param job without errors: ask canPredict first. @param heatShare share of the heat as planned, in every weld whose size nobody gave.
 */
export function* orderOutlook(
  job: Job,
  choice: OrderChoice,
  draws = OUTLOOK_DRAWS,
  heatShare = 1,
): Generator<number, OrderOutlook> {
  const own = inOrder(job, choice);
  const { prediction, drawn } = yield* predicting(own.plan, { draws, seed: SEED, heatShare });
  const { of } = forecasting(own, prediction);
  const whole = of(prediction.outcomes);
  const told = whole.flatMap((f, i) => (f.chance === null ? [] : [i]));
  const sums = told.map(() => 0);
  let all = 0;
  for (let d = 1; d <= draws; d++) {
    const here = of(ofDraw(prediction, drawn, d));
    let product = 1;
    told.forEach((i, k) => {
      const chance = here[i]?.chance ?? 0;
      sums[k] = (sums[k] ?? 0) + chance;
      product *= chance;
    });
    all += product;
    if (d % AT_ONCE === 0) yield 1;
  }
  return {
    choice,
    chance: told.length > 0 ? all / draws : null,
    limits: told.map((i, k) => ({ limit: (whole[i] as (typeof whole)[number]).limit, chance: (sums[k] ?? 0) / draws })),
    untold: whole.filter((f) => f.chance === null).map((f) => f.limit),
    turns: turnsOf(own),
    totalS: timeOf(own)?.totalS ?? 0,
  };
}
