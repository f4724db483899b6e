import type * as z from "zod";
import type { Problem } from "@/core/units";
import { problemsOf } from "@/formats/jobFile";

/** What a use case gives back: a value, or a refusal that a person can act on. Exceptions are for bugs and outages. */
export type Outcome<T> = { ok: true; value: T } | Refusal;
export interface Refusal {
  ok: false;
  /** HTTP status that says the same. */
  status: 400 | 401 | 403 | 404 | 409 | 413 | 415 | 422 | 429 | 503;
  message: string;
  problems: Problem[];
  /** What the other side needs to go on, for example the plan that got in first. */
  current?: unknown;
}

export const done = <T>(value: T): Outcome<T> => ({ ok: true, value });
export const refuse = (status: Refusal["status"], message: string, problems: Problem[] = []): Refusal => ({
  ok: false,
  status,
  message,
  problems,
});
/** What is said where the thread that works beside the server has too much to do, or ended. */
export const BUSY = "There is too much to work out at this moment: nothing was taken. Try again in a minute.";
export const noSuchJob = (): Refusal => refuse(404, "There is no such job here.");

/** Parses input by its schema. @returns the value, or a refusal that names each field. */
export function parse<S extends z.ZodType>(schema: S, input: unknown): Outcome<z.output<S>> {
  const parsed = schema.safeParse(input);
  if (parsed.success) return done(parsed.data);
  const problems = problemsOf(parsed.error, "what was sent");
  return refuse(422, problems[0] ? `${problems[0].path}: ${problems[0].message}` : "Not understood.", problems);
}
