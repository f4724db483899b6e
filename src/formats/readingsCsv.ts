import {
  type How,
  type Job,
  meantMm,
  partName,
  quantityKey,
  type ReadingEntry,
  roundsOf,
  stillStands,
} from "@/core/job";
import { csv } from "./csv";

const COLUMNS = [
  "time",
  "gate",
  "round",
  "what",
  "value_mm",
  "read_mm",
  "as_typed",
  "unit_if_bare",
  "slope_or_angle",
  "how",
  "goes_not_mm",
  "plus_mm",
  "marks_in_mm",
  "averaged",
  "instrument",
  "by",
  "stands",
  "sub_assembly",
] as const;

/** How a rest was read, in a few words that a spreadsheet can sort by. */
function howWords(how: How | undefined): string {
  if (!how) return "";
  switch (how.by) {
    case "height":
      return `height from datum ${how.datum}`;
    case "rod":
      return `rod, set-up ${how.setUp}${how.sightM === null ? "" : `, sight ${how.sightM} m`}`;
    case "slope":
      return `slope from ${how.from}, arrow ${how.arrow}`;
    case "difference":
      return `height from ${how.from}`;
    case "edge":
      return `gap under an edge from ${how.from} to ${how.to}, blocks ${how.blocks[0].mm} and ${how.blocks[1].mm} mm`;
  }
}

/** What was meant, what the instrument showed, and how that was typed. */
function valueCells(r: ReadingEntry, job: Job): (string | number)[] {
  const { value } = r;
  if (value === null) return ["", "", "", "", ""];
  return "slant" in value
    ? ["", "", value.text, value.slant, value.value]
    : [meantMm(r, job.instruments) ?? "", value.mm, value.text, value.unit, ""];
}

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
      quantityKey(r.what),
      ...valueCells(r, job),
      howWords(r.how),
      r.taken?.notAt?.mm ?? "",
      r.taken?.plus?.mm ?? "",
      r.taken?.setIn?.mm ?? "",
      r.again ? "yes" : "",
      names.get(r.instrumentId) ?? r.instrumentId,
      r.origin,
      r.value === null ? "taken back" : stillStands(round, r) ? "yes" : "replaced",
      partName(job.plan, round.round) ?? "",
    ]),
  );
  return csv(COLUMNS, rows);
}
