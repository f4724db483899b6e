import { brokenHolds, type OrderChoice, weldWords } from "../plan";
import { type Drawn, largestSteps, type OutcomeId, type Prediction, predicted } from "../shrink";
import type { Estimate } from "../units";
import { builtOf } from "./built";
import { forecasting } from "./evaluate";
import { type Forecast, sizeOutcome } from "./forecast";
import type { Job } from "./jobSchema";
import { inOrder, type OrderOutlook, OUTLOOK_DRAWS, timeOf, turnsOf } from "./orderOutlook";
import { predicting } from "./predict";

/** Another than that of the draws that a search goes by. */
const SEED = 90_221;
const SHAPE: readonly OutcomeId["kind"][] = ["square", "flat", "mouth"];

/** Welds that are told to move most. */
const MOST_TOLD = 3;

/** What a limit is about among what is predicted in mm; null where it is of more than one thing. */
function outcomeOf({ limit, where }: Forecast, prediction: Prediction): OutcomeId | null {
  switch (limit.kind) {
    case "place": {
      const ways = (["right", "up"] as const).map((way): OutcomeId => ({ kind: "place", place: where, way }));
      const size = (id: OutcomeId): number => Math.abs(predicted(prediction, id)?.value ?? 0);
      return ways.reduce((a, b) => (size(b) > size(a) ? b : a));
    }
    case "size":
      return sizeOutcome(limit);
    case "diagonal":
      return { kind: "square" };
    case "flat":
      return { kind: "twist" };
    default:
      return null;
  }
}

/** How far outside of a limit a forecast's band ends. */
const outsideOf = ({ cold, limit: { lower, upper } }: Forecast): number =>
  cold === null
    ? 0
    : Math.max(0, cold.high - (upper ?? Number.POSITIVE_INFINITY), (lower ?? Number.NEGATIVE_INFINITY) - cold.low);

const exact = (value: number): Estimate => ({ value, low: value, high: value });

/** The outcomes of a prediction as they are in one draw: no band is left of them. */
const ofDraw = (prediction: Prediction, drawn: readonly Drawn[], d: number): Prediction["outcomes"] =>
  prediction.outcomes.map((o, i) => {
    const value = drawn[i]?.draws[d] ?? o.nominal;
    const from = Object.entries(drawn[i]?.from ?? {}).map(([gate, { draws }]) => [gate, exact(draws[d] ?? 0)] as const);
    const { draws: _, drawsFrom: __, ...own } = o;
    return { ...own, estimate: exact(value), from: Object.fromEntries(from) };
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
  const { prediction, drawn, replay } = yield* predicting(own.plan, { draws, seed: SEED, heatShare });
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
  const limits = told.map((i, k) => ({ forecast: whole[i] as Forecast, chance: (sums[k] ?? 0) / draws }));
  const worst = limits.reduce<(typeof limits)[number] | null>((a, l) => (a && a.chance <= l.chance ? a : l), null);
  const outcome = worst && outcomeOf(worst.forecast, prediction);
  const { structure, order } = builtOf(own.plan);
  const time = timeOf(own);
  const bars = new Set((own.plan.held?.bars ?? []).filter((b) => b.kind !== "block").map((b) => b.id));
  return {
    choice,
    chance: told.length > 0 ? all / draws : null,
    limits: limits.map(({ forecast, chance }) => ({ limit: forecast.limit, chance })),
    untold: whole.filter((f) => f.chance === null).map((f) => f.limit),
    turns: turnsOf(own),
    totalS: time?.totalS ?? 0,
    parts: { arcS: time?.arcS ?? 0, waitS: time?.waitS ?? 0, measureS: time?.measureS ?? 0 },
    worst: worst && {
      limit: worst.forecast.limit,
      chance: worst.chance,
      outside: outsideOf(worst.forecast),
      ...(worst.forecast.limit.kind === "place" ? { place: worst.forecast.where } : {}),
    },
    most: (outcome ? largestSteps(replay, outcome) : [])
      .flatMap(({ step, change }) => {
        const id = order?.steps.find((s) => s.key === step)?.id;
        return structure && (id?.do === "tack" || id?.do === "bead")
          ? [{ say: weldWords(structure, id), by: change }]
          : [];
      })
      .slice(0, MOST_TOLD),
    keeps: brokenHolds(order?.steps.map((s) => s.id) ?? [], job.plan.holds ?? []).length === 0,
    holdN: Math.max(0, ...replay.clampForces.flat().map((c) => Math.abs(c.forceN))),
    letGo: {
      highN: Math.max(0, ...replay.released.map((r) => r.highN)),
      barN: Math.max(0, ...replay.released.flatMap((r) => (bars.has(r.what) ? [r.highN] : []))),
      energyJ: replay.released.reduce((sum, r) => sum + r.energyJ, 0),
    },
    shape: prediction.outcomes.flatMap(({ id, estimate }) => (SHAPE.includes(id.kind) ? [{ id, estimate }] : [])),
  };
}
