import type { Plan } from "@/core/job";
import { useJob } from "./JobProvider";

/** What a field of the plan needs beside its value: what could not be read, where to keep it, what is wrong with it. */
export function usePlanField() {
  const { job, store, texts, evaluation } = useJob();
  const { plan } = job;
  return {
    plan,
    units: plan.units,
    edit: (change: (plan: Plan) => Plan) => store.edit(change),
    field: (path: string) => ({
      kept: texts[path],
      onUnread: (text: string | null) => store.keepText(path, text),
      problem: evaluation.problems.find((p) => p.path === path),
    }),
  };
}
