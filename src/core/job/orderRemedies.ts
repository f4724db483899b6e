import { canCutAndSet } from "../plan";
import { barProposals } from "./barProposals";
import { builtOf } from "./built";
import { forecasting } from "./evaluate";
import type { Job } from "./jobSchema";
import { inOrder, type OrderOutlook } from "./orderOutlook";
import type { Remedies, Remedy } from "./orderRemedyWords";
import { orderOutlook } from "./outlookByDraws";
import { predicting } from "./predict";

/** What is tried, each by itself. */
const REMEDIES: readonly Remedy["by"][] = ["set-up", "side", "block", "strongbacks", "heat", "cut and set"];

/** Share of the heat that is tried: beads a third smaller. */
const COLDER = 0.7;

type Change = { job: Job; choice: OrderOutlook["choice"]; heatShare?: number };

/** The job with one thing changed; null where it cannot be, or is so already. */
function changed(job: Job, by: Remedy["by"], { choice }: OrderOutlook): Change | null {
  const { plan } = job;
  const { structure } = builtOf(plan);
  switch (by) {
    case "set-up":
      return structure && plan.aim === "drawing" ? { job: { ...job, plan: { ...plan, aim: "set-up" } }, choice } : null;
    case "heat":
      // Faces with a leg of their own have the heat of that leg: then it is the legs that are made smaller, by hand.
      return structure?.joints.some((j) => j.faces.some((f) => f.bead && f.legMm !== null))
        ? null
        : { job, choice, heatShare: COLDER };
    case "side":
    case "block":
    case "strongbacks": {
      // Only where nothing holds it yet: what holds it already was chosen.
      if (!structure || (plan.held?.bars ?? []).length > 0) return null;
      const { sides, blocks, crossed } = barProposals(structure, plan.units);
      const bars = { side: sides, block: blocks, strongbacks: crossed }[by];
      return bars.length > 0 ? { job: { ...job, plan: { ...plan, held: { ...plan.held, bars } } }, choice } : null;
    }
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
  for (const by of REMEDIES) {
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
