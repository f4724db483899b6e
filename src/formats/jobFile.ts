import * as z from "zod";
import {
  type Entry,
  entryProblem,
  FORMAT,
  type Job,
  jobSchema,
  refusals,
  upgradeEntries,
  upgradePlan,
} from "@/core/job";
import type { Problem } from "@/core/units";
import { parseJson } from "./json";

const JOB_FILE_FORMAT = "mellow-plumb-job";
/** That of the plan: files of earlier formats are brought up to it when they are read. */
export const JOB_FILE_VERSION = FORMAT;
/** Largest job file that is read, bytes. */
export const JOB_FILE_LIMIT_BYTES = 8 * 1024 * 1024;

/** The open job file: one job, whole, as JSON. */
const jobFileSchema = z.strictObject({
  format: z.literal(JOB_FILE_FORMAT),
  formatVersion: z.literal(JOB_FILE_VERSION),
  job: jobSchema,
});

/** A job that was read, or everything that was wrong with the file, each with its field. */
type JobFileResult = { ok: true; job: Job } | { ok: false; problems: Problem[] };

const refuse = (path: string, message: string): JobFileResult => ({
  ok: false,
  problems: [{ path, message, severity: "error" }],
});

/** @param job a job. @returns the text of its file, indented, with a newline at the end: the same job is the same text, whichever way it came here. */
export function writeJobFile(job: Job): string {
  // Fields stand in the order of the schema.
  const inOrder = jobSchema.safeParse(job).data ?? job;
  return `${JSON.stringify({ format: JOB_FILE_FORMAT, formatVersion: JOB_FILE_VERSION, job: inOrder }, null, 2)}\n`;
}

/** Zod's issues as problems at their fields. @param whole what is said of the whole of it. */
export const problemsOf = (error: z.ZodError, whole = "file"): Problem[] =>
  error.issues
    .slice(0, 50)
    .map((issue) => ({ path: issue.path.join(".") || whole, message: issue.message, severity: "error" }));

/** References inside a job that a schema cannot see. */
function brokenReferences(job: Job): Problem[] {
  const found: Problem[] = [];
  const rounds = new Set<string>();
  const ids = new Set<string>();
  const instruments = new Set(job.instruments.map((i) => i.id));
  const error = (path: string, message: string) => found.push({ path, message, severity: "error" });
  if (instruments.size !== job.instruments.length) error("job.instruments", "Two instruments share one id.");
  job.entries.forEach((entry: Entry, i) => {
    const at = `job.entries.${i}`;
    if (ids.has(entry.id)) error(`${at}.id`, `The id ${entry.id} is there twice.`);
    ids.add(entry.id);
    if (entry.kind === "round") rounds.add(entry.id);
    const own = entry.kind === "change" ? null : entryProblem(entry);
    if (own) error(`${at}.${own.path}`, own.message);
    if (entry.kind !== "reading") return;
    if (!rounds.has(entry.roundId))
      error(`${at}.roundId`, "This reading belongs to a round that is not in the file before it.");
    if (!instruments.has(entry.instrumentId))
      error(`${at}.instrumentId`, `The instrument "${entry.instrumentId}" is not in the file.`);
  });
  return found;
}

/** A file of an earlier format as one of today; what is not one is handed on as it is, for its schema to refuse. */
function upgradeFile(data: { formatVersion?: unknown; job?: unknown }): unknown {
  const { job } = data;
  const before = typeof data.formatVersion === "number" && data.formatVersion >= 1;
  if (!before || data.formatVersion === JOB_FILE_VERSION || typeof job !== "object" || job === null) return data;
  const { plan, entries } = job as { plan?: unknown; entries?: unknown };
  return {
    ...data,
    formatVersion: JOB_FILE_VERSION,
    job: { ...job, plan: upgradePlan(plan), entries: Array.isArray(entries) ? upgradeEntries(entries) : entries },
  };
}

/**
 * Reads a job file, of this format or any earlier one.
 * @param text the file's text. Errors name the field: `job.plan.frame.length`.
 */
export function readJobFile(text: string): JobFileResult {
  if (text.trim() === "") return refuse("file", "The file is empty.");
  const parsedText = parseJson(text);
  if (!parsedText.ok) return refuse("file", `${parsedText.message} Choose a job file that was downloaded here.`);
  const data = parsedText.value;
  if (typeof data !== "object" || data === null || Array.isArray(data))
    return refuse("file", "This JSON is not a job file.");
  const head = data as { format?: unknown; formatVersion?: unknown };
  if (head.format !== JOB_FILE_FORMAT)
    return refuse("format", `This is not a job file: format should be "${JOB_FILE_FORMAT}".`);
  if (typeof head.formatVersion === "number" && head.formatVersion > JOB_FILE_VERSION)
    return refuse(
      "formatVersion",
      `This file was written by a later version (${head.formatVersion}; this one reads up to ${JOB_FILE_VERSION}). Update first.`,
    );
  const parsed = jobFileSchema.safeParse(upgradeFile(data));
  if (!parsed.success) return { ok: false, problems: problemsOf(parsed.error) };
  const broken = [
    ...brokenReferences(parsed.data.job),
    ...refusals(parsed.data.job.plan).map((p) => ({ ...p, path: `job.plan.${p.path}` })),
  ];
  return broken.length > 0 ? { ok: false, problems: broken } : { ok: true, job: parsed.data.job };
}

/** JSON Schema of the job file, as published. */
export const jobFileJsonSchema = (): unknown => ({
  ...z.toJSONSchema(jobFileSchema, { target: "draft-2020-12", unrepresentable: "any" }),
  title: "Mellow Plumb job file",
});
