"use client";

import { type FormEvent, useId, useState } from "react";
import { CLOSE, type RecordLine, recordLines, SHEETS, type SheetName } from "@/core/job";
import { useJob } from "../job/JobProvider";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { Download } from "../parts/Download";
import { Now, Section } from "../parts/Sheet";
import { Verdict } from "../parts/Verdict";
import { When } from "../parts/When";

type Filter = "all" | RecordLine["tone"];
const MARKS: Record<RecordLine["tone"], string> = {
  measured: "border-brass",
  done: "border-ink",
  note: "border-plum",
  changed: "border-close",
};
const SHEET_WORDS: Record<SheetName, string> = {
  sketch: "Sketch of the whole frame",
  cut: "Cut list",
  buying: "Buying list",
  marking: "Marking out and drilling",
  fixture: "Bed and fixture",
  order: "Order of work, to tick",
  check: "Blank check sheet",
  certificate: "Certificate of what was measured",
};
const DRAFT = "log/note";

/** Last stage: the whole build as a record, to keep and to take along. */
export function LogStage() {
  const { job, evaluation, store, texts, unsent } = useJob("job", "evaluation", "store", "texts", "unsent");
  const [filter, setFilter] = useState<Filter>("all");
  const [said, setSaid] = useState<string | null>(null);
  const id = useId();
  const lines = recordLines(job, evaluation.structure, evaluation.steps);
  const shown = [...lines].reverse().filter((l) => filter === "all" || l.tone === filter);
  const { summary, closed } = evaluation;
  const note = texts[DRAFT] ?? "";
  const add = (e: FormEvent) => {
    e.preventDefault();
    if (note.trim() === "") return setSaid("Write something first.");
    setSaid(null);
    store.add({ kind: "note", text: note.trim().slice(0, 2000) });
    store.keepText(DRAFT, null);
  };
  return (
    <>
      <h1 className="sr-only">Log</h1>
      <Now
        say={closed ? "Closed and kept." : "Write down what the next one should know."}
        why={`${lines.length} entries so far: readings with their instruments, ticks, notes and every change, each with its time and maker. Nothing is ever taken out.`}
      >
        <p className="mt-2 flex flex-wrap items-center gap-3">
          <Verdict verdict={summary.verdict} big />
          <span className="text-soft">{summary.about}</span>
        </p>
      </Now>
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,22rem)]">
        <Section title="The record" aside={<span className="text-sm text-soft">newest first</span>}>
          <Choice
            label="Show"
            value={filter}
            options={[
              ["all", "everything"],
              ["measured", "readings"],
              ["done", "ticks"],
              ["note", "notes"],
              ["changed", "changes"],
            ]}
            onChange={setFilter}
          />
          {shown.length === 0 ? <p className="mt-4 text-soft">Nothing of this kind yet.</p> : null}
          <ol className="mt-4 grid gap-1">
            {shown.map(({ entry, tone, text, detail }) => (
              <li
                key={entry.id}
                className={`grid gap-x-4 border-l-4 py-1 pl-3 sm:grid-cols-[11rem_1fr] ${MARKS[tone]}`}
              >
                <span className="text-sm text-soft">
                  <When at={entry.at} />
                </span>
                <span className="min-w-0 break-words">
                  <span className={tone === "measured" ? "fig text-brass" : ""}>{text}</span>{" "}
                  <span className="text-sm text-soft">
                    {detail ? `${detail}, ` : ""}
                    {entry.origin}
                    {unsent.has(entry.id) ? ", not sent yet" : ""}
                  </span>
                </span>
              </li>
            ))}
          </ol>
        </Section>
        <div className="grid content-start gap-6 max-xl:order-first">
          <Section title="A note">
            <form onSubmit={add} className="grid gap-2">
              <label htmlFor={id} className="text-sm font-semibold">
                What happened, what to do otherwise next time
              </label>
              <textarea
                id={id}
                className="min-h-28 rounded-[3px] border border-edge bg-well p-3"
                value={note}
                maxLength={2000}
                aria-describedby={said ? `${id}-said` : undefined}
                onChange={(e) => store.keepText(DRAFT, e.target.value === "" ? null : e.target.value)}
              />
              {said ? (
                <p id={`${id}-said`} className="text-sm text-fail">
                  {said}
                </p>
              ) : null}
              <Button look="advise" type="submit">
                Keep the note
              </Button>
            </form>
          </Section>
          <Section title="Take it along">
            <div className="grid gap-2">
              <Download href={`/api/jobs/${job.id}/file`}>Job file (JSON)</Download>
              <Download href={`/api/jobs/${job.id}/readings`}>Readings (CSV)</Download>
              <Download href={`/api/jobs/${job.id}/table?of=order`}>Order of work (CSV)</Download>
              <Download href={`/api/jobs/${job.id}/table?of=record`}>The record (CSV)</Download>
              {(
                [
                  ["stl", "The frame as a body (STL, mm)"],
                  ["glb", "The frame as a body (glTF)"],
                ] as const
              ).map(([as, words]) => (
                <Download key={as} href={`/api/jobs/${job.id}/body?as=${as}`}>
                  {words}
                </Download>
              ))}
              {SHEETS.map((name) => (
                <Download
                  key={name}
                  href={`/api/jobs/${job.id}/sheet?name=${name}&paper=${job.plan.units === "mm" ? "A4" : "Letter"}`}
                >
                  {SHEET_WORDS[name]} (PDF)
                </Download>
              ))}
              <p className="text-sm text-soft">
                The job file holds everything and can be read in on another installation. Its{" "}
                <a href="/schema/job-file.schema.json">JSON Schema</a> is published with the program.
              </p>
            </div>
          </Section>
          <Section title={closed ? "Closed" : "Close the job"}>
            <p className="mb-2 text-soft">
              {closed
                ? "It can be opened again; the record says so."
                : "Closing says that the frame has left the bench."}
            </p>
            <Button onClick={() => store.add({ kind: "tick", step: CLOSE, done: !closed })}>
              {closed ? "Open it again" : "Close the job"}
            </Button>
          </Section>
        </div>
      </div>
    </>
  );
}
