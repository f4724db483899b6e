"use client";

import { Archive, ArchiveRestore, Menu, Search } from "lucide-react";
import dynamic from "next/dynamic";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { type FormEvent, useId, useState } from "react";
import type { Overall } from "@/core/check";
import { STAGES, type Stage } from "@/core/job";
import { formatLength, type UnitPreference } from "@/core/units";
import { FileDrop } from "../files/FileDrop";
import { STAGE_NAMES, stagePath } from "../job/stages";
import { messageOf } from "../job/store/sender";
import { transport } from "../job/store/transport";
import { useBeginJob } from "../job/useBeginJob";
import { Unsent } from "../offline/Unsent";
import { Button, buttonClass } from "../parts/Button";
import { DeviceDialog } from "../parts/DeviceDialog";
import { Download } from "../parts/Download";
import { useDevice } from "../parts/device";
import { FieldFrame, FieldMessage, inputClass } from "../parts/Field";
import { Now, Section } from "../parts/Sheet";
import { UnitChoice } from "../parts/UnitChoice";
import { useWarm } from "../parts/useWarm";
import { Verdict } from "../parts/Verdict";
import { When } from "../parts/When";

const jobsFile = () => import("./JobsFile");
const JobsFile = dynamic(jobsFile, { ssr: false });
const LATER = [jobsFile];

/** A job as the list shows it. */
export interface JobLine {
  id: string;
  name: string;
  lengthMm: number;
  widthMm: number;
  units: UnitPreference;
  stage: Stage;
  verdict: Overall;
  about: string;
  changedAt: string;
}

/** A notch for each stage, filled up to the stage that was reached. */
function Reached({ stage }: { stage: Stage }) {
  const n = STAGES.indexOf(stage);
  return (
    <span className="inline-flex items-center gap-2">
      <span className="flex gap-0.5" aria-hidden="true">
        {STAGES.map((s, i) => (
          <span key={s} className={`h-4 w-1.5 ${i <= n ? "bg-ink" : "bg-line"}`} />
        ))}
      </span>
      {stage === "log" ? "Closed" : STAGE_NAMES[stage]}
    </span>
  );
}

/** Where a job is started: below or beside a list that may be long. */
const START = "start-a-job";

/** The way to it past the list, which may have a hundred stops for the Tab key; where it stands in sight, for that key alone. */
function StartBelow({ children }: { children: string }) {
  return (
    <a href={`#${START}`} className={`${buttonClass()} mt-3 no-underline lg:not-focus:sr-only`}>
      {children}
    </a>
  );
}

function NewJob() {
  const [name, setName] = useState("");
  const [units, setUnits] = useState<UnitPreference>("mm");
  const { begin, wrong, busy } = useBeginJob();
  const start = (e: FormEvent) => {
    e.preventDefault();
    void begin({ name, units }, "job");
  };
  return (
    <Section title="Start a job">
      <form className="grid gap-4" onSubmit={start} noValidate>
        <FieldFrame id={START} label="Name">
          <input
            id={START}
            className={inputClass(wrong !== null, false, false)}
            value={name}
            maxLength={120}
            autoComplete="off"
            aria-invalid={wrong !== null}
            aria-describedby={`${START}-wrong`}
            onChange={(e) => setName(e.target.value)}
          />
          <div id={`${START}-wrong`} aria-live="polite">
            {wrong ? <FieldMessage severity="error">{wrong}</FieldMessage> : null}
          </div>
        </FieldFrame>
        <UnitChoice value={units} onChange={setUnits} />
        <Button look="advise" type="submit" disabled={busy} className="justify-self-start">
          Start
        </Button>
      </form>
    </Section>
  );
}

/** Files in and out: one is looked into before anything of it is taken. */
function FilesPart() {
  const [file, setFile] = useState<File | null>(null);
  useWarm(LATER);
  return (
    <Section title="Read a file in">
      <p className="mb-2 text-sm text-soft">
        A job, a whole shop, or a drawing to begin with (DXF, SVG): choose it, or drop it anywhere here.
      </p>
      <FileDrop
        label="Choose a file"
        over="Drop it here: a job, a whole shop, a drawing"
        testId="job-file"
        onFile={setFile}
      />
      {file ? (
        <JobsFile key={`${file.name}/${file.lastModified}/${file.size}`} file={file} onClose={() => setFile(null)} />
      ) : null}
      <Download href="/api/shop" className="mt-6">
        The whole shop as one file
      </Download>
      <p className="mt-1 text-sm text-soft">Every job with its record, the shelf, what was learned.</p>
    </Section>
  );
}

/** What was asked of the list. */
export interface Asked {
  text: string;
  away: boolean;
}

/** So many jobs are found by looking. */
const SEEN_AT_ONCE = 8;

/** A page of the list, and how many jobs there are in all. */
export interface JobPage {
  jobs: readonly JobLine[];
  total: number;
  page: number;
  pages: number;
}

const listPath = ({ text, away }: Asked, page = 1): string => {
  const query = new URLSearchParams({
    ...(text === "" ? {} : { text }),
    ...(away ? { away: "1" } : {}),
    ...(page === 1 ? {} : { page: String(page) }),
  }).toString();
  return query === "" ? "/" : `/?${query}`;
};

/** Looks for jobs by name, among those on the list or those put away. */
function Find({ asked, total }: { asked: Asked; total: number }) {
  const router = useRouter();
  const [text, setText] = useState(asked.text);
  const id = useId();
  return (
    <search>
      <form
        className="mb-3 flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          router.push(listPath({ ...asked, text: text.trim() }));
        }}
      >
        <div className="min-w-56 flex-1">
          <FieldFrame id={id} label={asked.away ? "Find a job that was put away" : "Find a job"}>
            <input
              id={id}
              type="search"
              className={inputClass(false, false, false)}
              value={text}
              maxLength={120}
              autoComplete="off"
              onChange={(e) => setText(e.target.value)}
            />
          </FieldFrame>
        </div>
        <Button type="submit">
          <Search size={18} aria-hidden="true" /> Find
        </Button>
        <p role="status" className="basis-full text-sm text-soft">
          {asked.text !== "" || asked.away
            ? `${total} ${total === 1 ? "job" : "jobs"}${asked.text === "" ? "" : ` with "${asked.text}" in the name`}${asked.away ? ", put away: hidden from the list, kept whole" : ""}.`
            : ""}
        </p>
      </form>
    </search>
  );
}

/** One job: where it stands, and a way to put it away. */
function Line({ job, away, onMoved }: { job: JobLine; away: boolean; onMoved: (words: string) => void }) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const move = async () => {
    setBusy(true);
    try {
      const { status, body } = await transport("PUT", `/api/jobs/${job.id}/away`, { away: !away });
      if (status === 200) {
        onMoved(`${job.name} ${away ? "is back on the list." : "is put away: hidden, kept whole."}`);
        router.refresh();
      } else onMoved(messageOf(body));
    } catch {
      onMoved("The server cannot be reached just now.");
    }
    setBusy(false);
  };
  const words = away ? "Put back" : "Put away";
  return (
    <li className="flex items-start gap-2 border-t border-line">
      <Link
        href={stagePath(job.id, job.stage)}
        prefetch={false}
        className="grid min-w-0 flex-1 gap-x-6 gap-y-1 px-2 py-4 no-underline hover:bg-well sm:grid-cols-[minmax(0,1fr)_11rem_12rem]"
      >
        <span className="min-w-0">
          <span className="block truncate text-lg font-bold">{job.name}</span>
          <span className="fig text-sm text-soft">
            {formatLength(job.lengthMm, job.units, { trim: true }).text} ×{" "}
            {formatLength(job.widthMm, job.units, { trim: true }).text}
          </span>
        </span>
        <span className="text-sm">
          <Reached stage={job.stage} />
          <span className="block text-soft">
            <When at={job.changedAt} />
          </span>
        </span>
        <span className="text-sm">
          <Verdict verdict={job.verdict} />
          <span className="block text-soft">{job.about}</span>
        </span>
      </Link>
      <button
        type="button"
        className="mt-3 inline-flex tap min-w-11 items-center justify-center rounded-[3px] border border-transparent text-soft hover:border-edge"
        aria-label={`${words}: ${job.name}`}
        title={words}
        disabled={busy}
        onClick={() => void move()}
      >
        {away ? <ArchiveRestore size={18} aria-hidden="true" /> : <Archive size={18} aria-hidden="true" />}
      </button>
    </li>
  );
}

/** A page of the jobs, last change first. */
export function JobList({ list, asked, backup }: { list: JobPage; asked: Asked; backup: string | null }) {
  const { who } = useDevice();
  const [device, setDevice] = useState(false);
  const [moved, setMoved] = useState<string | null>(null);
  const { jobs } = list;
  const first = list.page === 1 && asked.text === "" && !asked.away;
  const open = first ? jobs.find((j) => j.stage !== "log") : undefined;
  return (
    <div className="mx-auto max-w-[1320px] px-4 pb-16">
      <header className="flex flex-wrap items-center justify-between gap-x-3 py-4">
        <h1 className="text-xl">
          Mellow Plumb <span className="font-normal text-soft">flat frames, square when cold</span>
        </h1>
        <div className="flex flex-wrap items-center gap-3">
          <Link href="/shelf" prefetch={false} className="inline-flex tap items-center text-sm font-semibold">
            Shelf of instruments
          </Link>
          <Link href="/learned" prefetch={false} className="inline-flex tap items-center text-sm font-semibold">
            What we learned
          </Link>
          <Link href="/people" prefetch={false} className="inline-flex tap items-center text-sm font-semibold">
            People
          </Link>
          <button
            type="button"
            className="inline-flex tap min-w-11 items-center gap-2 rounded-[3px] border border-transparent px-2 hover:border-edge"
            onClick={() => setDevice(true)}
          >
            <Menu size={18} aria-hidden="true" />
            <span className="text-sm">{who || "Who?"}</span>
            <span className="sr-only">, this device</span>
          </button>
        </div>
      </header>
      <main className="grid gap-6 border-t-2 border-ink bg-sheet p-4 sm:p-6">
        {open ? (
          <Now
            say={
              <Link href={stagePath(open.id, open.stage)} className="underline">
                Go on with {open.name}.
              </Link>
            }
            why={`Last changed; it is at ${STAGE_NAMES[open.stage].toLowerCase()}.`}
          >
            <StartBelow>Start another job</StartBelow>
          </Now>
        ) : first ? (
          <Now say="Start a job." why="Width, length and tube are enough to see what it will do.">
            {jobs.length > 0 ? <StartBelow>Start a job</StartBelow> : null}
          </Now>
        ) : jobs.length > 0 ? (
          <p className="lg:contents">
            <StartBelow>Start a job</StartBelow>
          </p>
        ) : null}
        <Unsent />
        {backup ? (
          <p role="status" className="max-w-prose border-2 border-close bg-well p-3" data-testid="backup">
            {backup}
          </p>
        ) : null}
        <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_19rem]">
          <section aria-label="Jobs">
            {list.total > SEEN_AT_ONCE || asked.text !== "" || asked.away ? (
              <Find key={`${asked.away} ${asked.text}`} asked={asked} total={list.total} />
            ) : null}
            <p role="status" className="text-sm">
              {moved}
            </p>
            {jobs.length === 0 ? (
              <p className="text-soft">
                {first
                  ? "No jobs yet. Start one, or read in the file of another."
                  : asked.away && asked.text === ""
                    ? "No job was put away."
                    : "No job of that name here."}
              </p>
            ) : null}
            <ul>
              {jobs.map((job) => (
                <Line key={job.id} job={job} away={asked.away} onMoved={setMoved} />
              ))}
            </ul>
            {list.pages > 1 ? (
              <nav aria-label="Pages of the list" className="flex items-center gap-4 border-t border-line pt-3">
                {list.page > 1 ? (
                  <Link href={listPath(asked, list.page - 1)} prefetch={false} className="inline-flex tap items-center">
                    Newer
                  </Link>
                ) : null}
                <span className="text-sm text-soft">
                  Page {list.page} of {list.pages}, {list.total} jobs
                </span>
                {list.page < list.pages ? (
                  <Link href={listPath(asked, list.page + 1)} prefetch={false} className="inline-flex tap items-center">
                    Older
                  </Link>
                ) : null}
              </nav>
            ) : null}
            <p className="border-t border-line pt-2">
              <Link
                href={listPath({ text: "", away: !asked.away })}
                prefetch={false}
                className="inline-flex tap items-center text-sm"
              >
                {asked.away ? "Back to the jobs at hand" : "Jobs put away"}
              </Link>
            </p>
          </section>
          <div className="grid content-start gap-6">
            <NewJob />
            <FilesPart />
          </div>
        </div>
      </main>
      <footer className="max-w-prose pt-6 text-sm text-soft">
        Figures are estimates with their bands, and no approval. Vehicles, lifting gear, guards, stairs and anything
        that carries people need a qualified welder, an approved procedure and inspection under local rules.
      </footer>
      <DeviceDialog open={device} onClose={() => setDevice(false)} />
    </div>
  );
}
