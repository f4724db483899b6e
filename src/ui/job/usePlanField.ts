import type { Plan } from "@/core/job";
import { useJob } from "./JobProvider";

/** What a field of the plan needs beside its value: what could not be read, where to keep it, what is wrong with it. */
export function usePlanField() {
  const { job, store, texts, evaluation } = useJob("job", "store", "texts", "evaluation");
  const { plan } = job;
  return {
    plan,
    units: plan.units,
    edit: (change: (plan: Plan) => Plan) => store.edit(change),
    forget: (prefix: string) => store.forgetTexts(prefix),
    /** @param path of the field in the plan. @param key where its text is kept, for items of lists: by name, not by place. */
    field: (path: string, key = path) => ({
      kept: texts[key],
      onUnread: (text: string | null) => store.keepText(key, text),
      problem: evaluation.problems.find((p) => p.path === path),
    }),
  };
}
