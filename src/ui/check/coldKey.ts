import { type Job, predictionKey } from "@/core/job";

/**
 * What follows from a cold frame depends on: how it is made and welded, its limits, the units that words are in, and what was read and done.
 * A change that is not saved yet counts, too.
 */
export const coldKey = ({ plan, entries, version }: Job): string =>
  [
    version,
    plan.units,
    JSON.stringify(plan.limits),
    predictionKey(plan),
    entries.filter((e) => e.kind !== "change" && e.kind !== "note").length,
  ].join(" ");
