import { type Evaluation, type Job, recordLines } from "@/core/job";
import { type StepWords, stepsInWords } from "@/core/plan";
import { csv } from "./csv";

/** Everything that was recorded of a job, an entry a row, in the words of its log. */
export const recordCsv = (job: Job, { structure, steps }: Pick<Evaluation, "structure" | "steps">): string =>
  csv(
    ["time", "kind", "what", "detail", "by"],
    recordLines(job, structure, steps).map(({ entry, tone, text, detail }) => [
      entry.at,
      tone,
      text,
      detail ?? "",
      entry.origin,
    ]),
  );

/** The order of work, a step a row: what to do, which face is up, whether it is ticked. */
export const orderCsv = (
  job: Job,
  { structure, steps, ticked }: Pick<Evaluation, "structure" | "steps" | "ticked">,
): string => {
  const words = structure ? stepsInWords(structure, steps, job.plan.units) : new Map<string, StepWords>();
  return csv(
    ["step", "do", "face up", "why", "done"],
    steps.flatMap((s, i) => {
      const told = words.get(s.key);
      return told ? [[i + 1, told.say, s.up, told.why, ticked.has(s.key) ? "yes" : ""]] : [];
    }),
  );
};
