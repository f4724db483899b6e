import { limitName } from "../check";
import { canCutAndSet } from "../plan";
import type { UnitPreference } from "../units";
import { builtOf } from "./built";
import { forecasting } from "./evaluate";
import { chanceWords, type Forecast, forecastWords } from "./forecast";
import type { Job } from "./jobSchema";
import { EQUAL, inOrder, type OrderOutlook, orderOutlook } from "./orderOutlook";
import { predicting } from "./predict";

/** What was tried where no order makes it likely, with the chance that every limit is kept then. */
export interface Remedy {
  by: "set-up" | "heat" | "cut and set";
  chance: number;
}

/** Why no order makes it likely, and what would. */
export interface Remedies {
  /** The limit that is kept most seldom: how it is likely to end, and its chance by the draws. */
  worst: { forecast: Forecast; chance: number } | null;
  /** Chance in that order as things are. */
  chance: number;
  tried: Remedy[];
}

/** Share of the heat that is tried: beads a third smaller. */
const COLDER = 0.7;

type Change = { job: Job; choice: OrderOutlook["choice"]; heatShare?: number };

/** The job with one thing changed; null where it cannot be, or is so already. */
function changed(job: Job, by: Remedy["by"], { choice }: OrderOutlook): Change | null {
  const { plan } = job;
  const { structure } = builtOf(plan);
  switch (by) {
    case "set-up":
      return structure?.quad && plan.aim === "drawing"
        ? { job: { ...job, plan: { ...plan, aim: "set-up" } }, choice }
        : null;
    case "heat":
      // Faces with a leg of their own have the heat of that leg: then it is the legs that are made smaller, by hand.
      return structure?.joints.some((j) => j.faces.some((f) => f.bead && f.legMm !== null))
        ? null
        : { job, choice, heatShare: COLDER };
    case "cut and set":
      return structure && choice.by === "schools" && !choice.cutAndSet && canCutAndSet(structure, choice)
        ? { job, choice: { ...choice, cutAndSet: true } }
        : null;
  }
}

/**
 * What would help where no order makes it likely: each change by itself, in the likeliest order, by the same draws.
 * @param outlook of that order. A generator, as a prediction is.
 */
export function* orderRemedies(job: Job, outlook: OrderOutlook): Generator<number, Remedies> {
  const own = inOrder(job, outlook.choice);
  const { prediction } = yield* predicting(own.plan);
  const told = forecasting(own, prediction).of(prediction.outcomes);
  const [first] = [...outlook.limits].sort((a, b) => a.chance - b.chance);
  const forecast = told.find((f) => f.limit.id === first?.limit.id);
  const tried: Remedy[] = [];
  for (const by of ["set-up", "heat", "cut and set"] as const) {
    const other = changed(job, by, outlook);
    if (!other) continue;
    const { chance } = yield* orderOutlook(other.job, other.choice, undefined, other.heatShare);
    if (chance !== null) tried.push({ by, chance });
  }
  return {
    worst: forecast && first ? { forecast, chance: first.chance } : null,
    chance: outlook.chance ?? 0,
    tried: tried.sort((a, b) => b.chance - a.chance),
  };
}

const SAID: Record<Remedy["by"], string> = {
  "set-up": "Set up off nominal, by what it is predicted to move",
  heat: "With three tenths less heat in every bead",
  "cut and set": "Cut and set once more when it is tacked",
};

/** The same in words, each with its number. */
export function remedyWords({ worst, chance, tried }: Remedies, units: UnitPreference): string[] {
  const why =
    worst === null
      ? []
      : [
          `What fails is ${limitName(worst.forecast.limit)}: in the likeliest order it is kept ${chanceWords(worst.chance)} (${forecastWords(worst.forecast, units)}). A limit that takes in those nine in ten would be kept.`,
        ];
  return [
    ...why,
    ...tried.map(({ by, chance: then }) => {
      const gain = then - chance;
      return `${SAID[by]}: ${chanceWords(then)} instead of ${chanceWords(chance)}${gain < EQUAL ? ", so no help" : ""}.`;
    }),
  ];
}
