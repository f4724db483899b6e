import type { Structure } from "../frame";
import { type Step, type StepWords, stepIdWords, stepsInWords } from "../plan";
import { bareUnit } from "../units";
import type { Entry } from "./entrySchema";
import { finishSteps } from "./finishSteps";
import type { Job } from "./jobSchema";
import { partName } from "./partJob";
import { quantityWords } from "./quantityId";
import { readingText } from "./readingWords";
import { correctedWords } from "./remedyWords";
import { roundsOf, stillStands } from "./rounds";
import { type TickId, tickKey } from "./tickId";

/** One line of the record. */
export interface RecordLine {
  entry: Entry;
  tone: "measured" | "done" | "note" | "changed";
  text: string;
  detail: string | null;
}

/** Puts every entry of a job into words, in order. */
export function recordLines(job: Job, structure: Structure | null, steps: readonly Step[]): RecordLine[] {
  const rounds = new Map(roundsOf(job.entries).map((r) => [r.round.id, r]));
  const instruments = new Map(job.instruments.map((i) => [i.id, i.name]));
  const ofOrder = structure ? stepsInWords(structure, steps, job.plan.units) : new Map<string, StepWords>();
  const finishing = new Map(structure ? finishSteps(job.plan, structure).map((s) => [s.key, s.say]) : []);
  const tickWords = (id: TickId): string =>
    id.do === "cut"
      ? `cut ${id.member}`
      : id.do === "finish"
        ? (finishing.get(tickKey(id)) ?? id.step)
        : (ofOrder.get(tickKey(id))?.say ?? (id.do === "close" ? "closed" : stepIdWords(id)));
  const line = (entry: Entry): RecordLine => {
    switch (entry.kind) {
      case "round": {
        const round = rounds.get(entry.id);
        const of = partName(job.plan, entry);
        return {
          entry,
          tone: "measured",
          text: `Round ${round?.number ?? ""} ${of ? `of ${of} ` : ""}at the gate: ${entry.gate}`,
          detail: entry.method === "rod" ? "rod readings" : null,
        };
      }
      case "reading": {
        const round = rounds.get(entry.roundId);
        const stands = round !== undefined && stillStands(round, entry);
        const of = round && partName(job.plan, round.round);
        const where = round ? `${of ? `${of}, ` : ""}${round.round.gate} ${round.number}` : "";
        if (entry.value === null)
          return { entry, tone: "measured", text: `${quantityWords(entry.what)} taken back`, detail: where };
        const { text, read } = readingText(entry, job.instruments, job.plan.units);
        const bare = !/[a-zµ"'°%]/i.test(text);
        const unit = "slant" in entry.value ? entry.value.slant : bareUnit(job.plan.units);
        return {
          entry,
          tone: "measured",
          text: `${quantityWords(entry.what)} ${text}${bare ? ` ${unit}` : ""}${read ? ` (read ${read})` : ""}${entry.again ? ", averaged" : ""}${stands ? "" : " (replaced later)"}`,
          detail: `${where}, ${instruments.get(entry.instrumentId) ?? entry.instrumentId}`,
        };
      }
      case "tick":
        if (entry.step.do === "close")
          return { entry, tone: "done", text: entry.done ? "Job closed" : "Job opened again", detail: null };
        return {
          entry,
          tone: "done",
          text: `${entry.done ? "Done" : "Tick taken back"}: ${tickWords(entry.step)}`,
          detail: null,
        };
      case "note":
        return { entry, tone: "note", text: entry.text, detail: null };
      case "corrected":
        return { entry, tone: "done", text: correctedWords(entry, structure, job.plan.units), detail: null };
      case "change":
        return {
          entry,
          tone: "changed",
          text: entry.changes.map((c) => `${c.label}: ${c.from} → ${c.to}`).join("; "),
          detail: `version ${entry.version}`,
        };
    }
  };
  return job.entries.map(line);
}
