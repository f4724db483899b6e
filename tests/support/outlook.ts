import type { Limit } from "@/core/check";
import { orderOutlook, type Plan } from "@/core/job";
import { drain } from "@/core/numeric";
import { USUAL_ORDER } from "@/core/plan";
import { job } from "./jobs";

/** The chance that a plan's usual order keeps a limit, counted over four hundred draws of its own; not a number where it is not told. */
export function countedChance(plan: Plan, kind: Limit["kind"]): number {
  const { limits } = drain(
    orderOutlook(
      job([], () => plan),
      USUAL_ORDER,
      400,
    ),
  );
  return limits.find(({ limit }) => limit.kind === kind)?.chance ?? Number.NaN;
}
