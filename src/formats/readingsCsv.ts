import Papa from "papaparse";
import { type Job, roundsOf } from "@/core/job";

const COLUMNS = [
  "time",
  "gate",
  "round",
  "what",
  "value_mm",
  "as_typed",
  "unit_if_bare",
  "instrument",
  "by",
  "stands",
] as const;

/** A cell that a spreadsheet would take for a formula is led by an apostrophe. */
const safe = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

/**
 * Every reading of a job, one a row, also those that a later one replaced.
 * @param job a job. @returns CSV with a header, RFC 4180, lines ended CR LF.
 */
export function readingsCsv(job: Job): string {
  const names = new Map(job.instruments.map((i) => [i.id, i.name]));
  const rows = roundsOf(job.entries).flatMap((round) =>
    round.all.map((r) => [
      r.at,
      round.round.gate,
      round.number,
      r.what,
      r.value === null ? "" : r.value.mm,
      r.value === null ? "" : safe(r.value.text),
      r.value === null ? "" : r.value.unit,
      safe(names.get(r.instrumentId) ?? r.instrumentId),
      safe(r.origin),
      r.value === null ? "taken back" : round.readings.get(r.what)?.id === r.id ? "yes" : "replaced",
    ]),
  );
  return `${Papa.unparse({ fields: [...COLUMNS], data: rows }, { newline: "\r\n" })}\r\n`;
}
