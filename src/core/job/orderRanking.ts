import { type OrderChoice, USUAL_ORDER } from "../plan";
import type { Job } from "./jobSchema";
import { isCutAndSet, withCut } from "./orderChoices";
import type { OrderOutlook } from "./orderOutlook";

/** Outlooks, the likeliest to hold first. */
export const ranked = (outlooks: readonly OrderOutlook[]): OrderOutlook[] =>
  [...outlooks].sort((a, b) => (b.chance ?? -1) - (a.chance ?? -1) || a.turns - b.turns);

/** The likeliest of what was compared that is squared up as planned: where a search begins. */
export const begunFrom = (job: Job, outlooks: readonly OrderOutlook[]): OrderOutlook | null => {
  const isCut = isCutAndSet(job.plan.order ?? USUAL_ORDER);
  return ranked(outlooks).find((o) => o.chance !== null && isCutAndSet(o.choice) === isCut) ?? null;
};

/** The likeliest pair of schools squared up the other way: cut and set once more, or not; null where it cannot be. */
export function cutToLookAt(job: Job, outlooks: readonly OrderOutlook[]): OrderChoice | null {
  const schools = outlooks.filter((o) => o.choice.by === "schools");
  const best = begunFrom(job, schools);
  return best && withCut(job, best.choice, !isCutAndSet(job.plan.order ?? USUAL_ORDER));
}
