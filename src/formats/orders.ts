import {
  chanceWords,
  comparing,
  type Job,
  type OrderOutlook,
  orderAdvice,
  orderRemedies,
  remedyWords,
  unlikelyAtBest,
  whyNoPrediction,
  worstWords,
} from "@/core/job";
import { drain } from "@/core/numeric";
import { orderWords, timeParts, timeWords, USUAL_ORDER } from "@/core/plan";

/** Every pair of schools and the order as planned, the likeliest to hold first. @returns why not, in words, where nothing can be predicted. */
function compared(job: Job): OrderOutlook[] | string {
  const why = whyNoPrediction(job.plan);
  if (why) return why;
  return drain(comparing(job, { trials: 0, mostTurns: 0 }));
}

/** What would help, where no order makes it likely. */
function helping(job: Job, outlooks: readonly OrderOutlook[]): string[] {
  const best = unlikelyAtBest(outlooks);
  return best ? remedyWords(drain(orderRemedies(job, best)), job.plan.units) : [];
}

/** Orders compared, as data. */
export function ordersData(job: Job) {
  const outlooks = compared(job);
  if (typeof outlooks === "string") return { why: outlooks };
  const { choice, words } = orderAdvice(outlooks, job.plan.order ?? USUAL_ORDER, job.plan.units);
  return {
    advised: choice,
    words,
    would: helping(job, outlooks),
    orders: outlooks.map((o) => ({
      order: o.choice,
      chance: o.chance,
      limits: o.limits.map(({ limit, chance }) => ({ id: limit.id, chance })),
      untold: o.untold.map((l) => l.id),
      turns: o.turns,
      minutes: Math.round(o.totalS / 60),
      keptMostSeldom: o.worst && { id: o.worst.limit.id, chance: o.worst.chance, outside: o.worst.outside },
      clampsHoldN: Math.round(o.holdN),
      movesMost: o.most,
    })),
  };
}

/** Orders compared, in words. */
export function ordersText(job: Job): string {
  const outlooks = compared(job);
  if (typeof outlooks === "string") return `${outlooks}\n`;
  const { words } = orderAdvice(outlooks, job.plan.order ?? USUAL_ORDER, job.plan.units);
  return [
    job.plan.name,
    ...words,
    ...helping(job, outlooks),
    "",
    "Chance that every limit is kept:",
    ...outlooks.map(
      (o) =>
        `  ${(o.chance === null ? "not told" : chanceWords(o.chance)).padEnd(12)} ${orderWords(o.choice)}; ${o.turns} ${o.turns === 1 ? "turn" : "turns"}, about ${timeWords(o.totalS)} (${timeParts(o.parts, job.plan.hands?.two === true)})${worstWords(o, job.plan.units) && `\n${" ".repeat(15)}${worstWords(o, job.plan.units)}`}`,
    ),
    "",
  ].join("\n");
}
