"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { type DrawnSection, PROFILES, profilesFor } from "@/core/frame";
import { length, type Problem, stated, type UnitPreference } from "@/core/units";
import type { DrawingHeld, FileHeld, Files } from "@/workers/files";
import { DrawingPanel } from "../files/DrawingPanel";
import { OpenedDialog } from "../files/OpenedDialog";
import { stagePath } from "../job/stages";
import { useBeginJob } from "../job/useBeginJob";
import { Button } from "../parts/Button";
import { origin } from "../parts/device";
import { FieldMessage } from "../parts/Field";
import { SelectField } from "../parts/SelectField";
import { TextField } from "../parts/TextField";
import { Tick } from "../parts/Tick";
import { UnitChoice } from "../parts/UnitChoice";
import { When } from "../parts/When";

const AWAY = "The server cannot be reached just now. Try again in a moment: nothing was taken.";

type Answer = {
  message?: string;
  problems?: Problem[];
  current?: { id?: string };
  id?: string;
  jobs?: number;
  here?: string[];
  instruments?: number;
  lessons?: number;
  testBeads?: number;
  unread?: string[];
} | null;

/** Sends a file as it is. */
async function send(path: string, file: File): Promise<{ status: number; body: Answer }> {
  const response = await fetch(path, { method: "POST", body: file });
  return { status: response.status, body: (await response.json().catch(() => null)) as Answer };
}

/** What came back against it, with the fields that it names. */
function Refused({ answer }: { answer: Answer }) {
  if (!answer) return null;
  return (
    <div className="border-l-4 border-fail pl-3">
      <p>{answer.message ?? "The server did not take it."}</p>
      <ul className="mt-1 text-sm">
        {(answer.problems ?? []).slice(0, 6).map((p) => (
          <li key={p.path + p.message}>
            <span className="fig">{p.path}</span>: {p.message}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** The file of one job. */
function TakeJob({ held, file, onClose }: { held: FileHeld & { kind: "job" }; file: File; onClose: () => void }) {
  const router = useRouter();
  const [answer, setAnswer] = useState<Answer>(null);
  const [busy, setBusy] = useState(false);
  const hereId = answer?.current?.id ?? null;
  const take = async (copy: boolean) => {
    setBusy(true);
    try {
      const query = new URLSearchParams({ copy: copy ? "1" : "0", origin: origin() });
      const { status, body } = await send(`/api/jobs/file?${query}`, file);
      if (status === 200 && body?.id) return router.push(stagePath(body.id, "log"));
      setAnswer(body ?? { message: "The server did not take it." });
    } catch {
      setAnswer({ message: AWAY });
    }
    setBusy(false);
  };
  return (
    <>
      <p className="text-lg">
        A job, <strong>{held.name}</strong>, begun <When at={held.createdAt} />, with {held.entries}{" "}
        {held.entries === 1 ? "entry" : "entries"} in its record.
      </p>
      <Refused answer={answer} />
      <div className="flex flex-wrap items-center gap-3">
        {hereId ? (
          <>
            <Link href={stagePath(hereId, "log")}>Open it</Link>
            <Button disabled={busy} onClick={() => void take(true)}>
              Read it in as a copy
            </Button>
          </>
        ) : (
          <Button look="advise" disabled={busy} onClick={() => void take(false)}>
            Read it in
          </Button>
        )}
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </>
  );
}

const MOST_NAMES = 12;
const count = (n: number, one: string, more: string): string => `${n} ${n === 1 ? one : more}`;

/** Jobs of an archive that cannot be read, each with why; nothing where all can. */
function Unread({ unread = [] }: { unread?: readonly string[] | undefined }) {
  if (unread.length === 0) return null;
  return (
    <div data-testid="unread">
      <FieldMessage severity="warning">
        {count(unread.length, "job", "jobs")} of this file cannot be read and {unread.length === 1 ? "stays" : "stay"}{" "}
        out:
      </FieldMessage>
      <ul className="text-sm break-words">
        {unread.slice(0, MOST_NAMES).map((why) => (
          <li key={why}>{why}</li>
        ))}
      </ul>
      {unread.length > MOST_NAMES ? <p className="text-sm">And {unread.length - MOST_NAMES} more.</p> : null}
    </div>
  );
}

/** The archive of a whole shop. */
function TakeShop({ held, file, onClose }: { held: FileHeld & { kind: "shop" }; file: File; onClose: () => void }) {
  const router = useRouter();
  const [lessons, setLessons] = useState(false);
  const [answer, setAnswer] = useState<Answer>(null);
  const [taken, setTaken] = useState<Answer>(null);
  const [busy, setBusy] = useState(false);
  const take = async () => {
    setBusy(true);
    setAnswer(null);
    try {
      const query = new URLSearchParams({ lessons: lessons ? "1" : "0", origin: origin() });
      const { status, body } = await send(`/api/shop?${query}`, file);
      if (status === 200) {
        setTaken(body);
        router.refresh();
      } else setAnswer(body ?? { message: "The server did not take it." });
    } catch {
      setAnswer({ message: AWAY });
    }
    setBusy(false);
  };
  if (taken)
    return (
      <>
        <p className="text-lg font-semibold" data-testid="shop-taken">
          Taken: {count(taken.jobs ?? 0, "job", "jobs")}, {count(taken.instruments ?? 0, "instrument", "instruments")},{" "}
          {count(taken.lessons ?? 0, "lesson", "lessons")}, {count(taken.testBeads ?? 0, "test bead", "test beads")}.
        </p>
        {taken.here && taken.here.length > 0 ? (
          <p>
            Here already, and left as they are: {taken.here.slice(0, MOST_NAMES).join(", ")}
            {taken.here.length > MOST_NAMES ? ` and ${taken.here.length - MOST_NAMES} more` : ""}.
          </p>
        ) : null}
        <Unread unread={taken.unread} />
        <Button className="justify-self-start" onClick={onClose}>
          Close
        </Button>
      </>
    );
  return (
    <>
      <p className="text-lg">
        A whole shop, <strong>{held.name}</strong>: {count(held.jobs.length, "job", "jobs")},{" "}
        {count(held.instruments, "instrument", "instruments")}, {count(held.lessons, "lesson", "lessons")},{" "}
        {count(held.testBeads, "test bead", "test beads")}.
      </p>
      <p className="text-sm text-soft">
        {held.jobs.slice(0, MOST_NAMES).join(", ")}
        {held.jobs.length > MOST_NAMES ? ` and ${held.jobs.length - MOST_NAMES} more` : ""}. What is here already stays
        as it is; people and their passwords are not in it.
      </p>
      <Unread unread={held.unread} />
      {held.lessons > 0 ? (
        <Tick checked={lessons} onChange={setLessons}>
          also what it learned: only if it is the same shop, with its hands and machines
        </Tick>
      ) : null}
      <Refused answer={answer} />
      <div className="flex flex-wrap gap-3">
        <Button look="advise" disabled={busy} onClick={() => void take()}>
          {busy ? "Reading it in" : "Read it in"}
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </>
  );
}

/** A tube of the table as a section. */
function sectionOf(name: string, units: UnitPreference): DrawnSection {
  const p = PROFILES.find((x) => x.name === name) ?? PROFILES[0];
  const size = (mm: number | undefined) => (mm === undefined ? length("40") : stated(mm, units));
  return {
    id: "S1",
    shape: "tube",
    profile: p?.name ?? null,
    // Rectangular tube stands on edge until it is turned: the stiff way for what lies on the frame.
    width: size(p?.smallMm),
    height: size(p?.largeMm),
    wall: size(p?.wallMm),
    material: "mild steel",
  };
}

const USUAL_TUBE: Record<UnitPreference, string> = {
  mm: "40×40×3",
  "inch-fraction": "2×2×1/8 in",
  "inch-decimal": "2×2×1/8 in",
};

/** A drawing: a job is begun with its frame. */
function TakeDrawing({
  held,
  file,
  files,
  onClose,
}: {
  held: DrawingHeld;
  file: File;
  files: () => Files | null;
  onClose: () => void;
}) {
  const isInch = held.unit.unit === "in" || held.unit.unit === "ft";
  const [units, setUnits] = useState<UnitPreference>(isInch ? "inch-fraction" : "mm");
  const [tube, setTube] = useState<string | null>(null);
  const [name, setName] = useState(file.name.replace(/\.[^.]*$/, "").slice(0, 120));
  const { begin, wrong, busy } = useBeginJob();
  return (
    <DrawingPanel held={held} files={files} section={sectionOf(tube ?? USUAL_TUBE[units], units)} units={units}>
      {(frame) => (
        <>
          <SelectField
            label="Made of"
            hint="It can be changed afterwards, member by member."
            value={tube ?? USUAL_TUBE[units]}
            options={profilesFor(units).map((p) => [p.name, p.name] as const)}
            onChange={setTube}
          />
          <TextField label="Name of the job" value={name} maxLength={120} autoComplete="off" onChange={setName} />
          <UnitChoice value={units} onChange={setUnits} />
          {wrong ? <FieldMessage severity="error">{wrong}</FieldMessage> : null}
          <div className="flex flex-wrap gap-2">
            <Button
              look="advise"
              disabled={!frame || busy}
              onClick={() => frame && void begin({ name, units, drawn: frame }, "frame")}
            >
              Start a job with it
            </Button>
            <Button onClick={onClose}>Leave it</Button>
          </div>
        </>
      )}
    </DrawingPanel>
  );
}

/** A file that was chosen where no job is open: a job, a shop, a drawing to begin with. */
export default function JobsFile({ file, onClose }: { file: File; onClose: () => void }) {
  return (
    <OpenedDialog file={file} onClose={onClose}>
      {(held, files) => {
        if (held.kind === "job") return <TakeJob held={held} file={file} onClose={onClose} />;
        if (held.kind === "shop") return <TakeShop held={held} file={file} onClose={onClose} />;
        if (held.kind === "drawing") return <TakeDrawing held={held} file={file} files={files} onClose={onClose} />;
        const isPieces = held.table.rows.kind === "pieces";
        return (
          <>
            <p>
              A table of {isPieces ? "pieces to cut" : "measured sizes"}. Open the job that it belongs to, and drop it
              on its {isPieces ? "Cut" : "Frame"} stage.
            </p>
            <Button className="justify-self-start" onClick={onClose}>
              Close
            </Button>
          </>
        );
      }}
    </OpenedDialog>
  );
}
