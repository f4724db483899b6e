import { type Evaluation, type Job, recordLines } from "@/core/job";
import { stepsInWords } from "@/core/plan";
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
): string =>
  csv(
    ["step", "do", "face up", "why", "done"],
    structure
      ? [...stepsInWords(structure, steps, job.plan.units).values()].map(({ say, why }, i) => [
          i + 1,
          say,
          steps[i]?.up ?? "",
          why ?? "",
          ticked.has(steps[i]?.key ?? "") ? "yes" : "",
        ])
      : [],
  );
