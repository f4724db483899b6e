"use client";

import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { type ChangeEvent, useRef, useState } from "react";
import { v4 as uuid } from "uuid";
import { FRAME_COUPONS, type FrameCoupon, handlingWords, learnedWords } from "@/core/job";
import { type Book, factorLines, type LessonLine, METALS, type Metal, type ShopCell, WALL_CLASSES } from "@/core/learn";
import { timeWords } from "@/core/plan";
import { formatSmall, physical, type UnitPreference } from "@/core/units";
import { PROCESSES, type ProcessName, type TestBead } from "@/core/weld";
import { messageOf } from "../job/store/sender";
import { transport } from "../job/store/transport";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { Download } from "../parts/Download";
import { origin } from "../parts/device";
import { Fold } from "../parts/Fold";
import { SelectField } from "../parts/SelectField";
import { Now, Section } from "../parts/Sheet";
import { SidePage } from "../parts/SidePage";
import { TextField } from "../parts/TextField";
import { When } from "../parts/When";
import { WhenSeen } from "../parts/WhenSeen";
import { CouponForm } from "./CouponForm";
import { FrameCouponPower } from "./FrameCouponPower";
import { FACTOR_NAMES, narrowsWords, wallClassWords } from "./words";

const ToldAgainstRead = dynamic(() => import("./ToldAgainstRead"), { ssr: false });
const CHART_PX = 340;

const METAL_WORDS: Record<Metal, string> = { steel: "mild steel", stainless: "stainless", aluminium: "aluminium" };

/** Factors of one process on one wall: the tables' band, and the shop's. */
function Factors({ book, units }: { book: Book; units: UnitPreference }) {
  const [last] = book.learned.cells.slice(-1);
  const [process, setProcess] = useState<ProcessName>(last?.process ?? "MAG");
  const [wall, setWall] = useState(last?.wall ?? WALL_CLASSES[1]);
  const [metal, setMetal] = useState<Metal>(last?.metal ?? "steel");
  const cell: ShopCell = { process, wall, metal };
  const isOwn = book.learned.cells.some((c) => c.process === process && c.wall === wall && c.metal === metal);
  const two = (x: number): string => x.toFixed(2);
  return (
    <div className="grid gap-3">
      <div className="grid gap-4 sm:grid-cols-3">
        <SelectField
          label="Process"
          value={process}
          options={(Object.keys(PROCESSES) as ProcessName[]).map((p) => [p, PROCESSES[p].label] as const)}
          onChange={setProcess}
        />
        <SelectField
          label="Wall"
          value={wall}
          options={WALL_CLASSES.map((w) => [w, wallClassWords(w, units)] as const)}
          onChange={setWall}
        />
        <SelectField
          label="Metal"
          value={metal}
          options={METALS.map((m) => [m, METAL_WORDS[m]] as const)}
          onChange={setMetal}
        />
      </div>
      <div className="overflow-x-auto">
        <table className="w-full text-left text-sm">
          <thead>
            <tr className="border-b border-line">
              <th className="py-1 pr-3">Factor</th>
              <th className="py-1 pr-3">By the tables</th>
              <th className="py-1 pr-3">Of this shop</th>
              <th className="py-1">How much narrower</th>
            </tr>
          </thead>
          <tbody>
            {factorLines(book.learned, cell).map((f) => {
              const isLearned = f.narrowedTo < 0.985;
              return (
                <tr key={f.factor} className="border-b border-line">
                  <th scope="row" className="py-1 pr-3 font-semibold">
                    {FACTOR_NAMES[f.factor]}
                  </th>
                  <td className="fig py-1 pr-3 text-soft">
                    {two(f.table.value)} ({two(f.table.low)}–{two(f.table.high)})
                  </td>
                  <td className={`fig py-1 pr-3 ${isLearned ? "font-bold text-plum" : "text-soft"}`}>
                    {isLearned ? `${two(f.now.value)} (${two(f.now.low)}–${two(f.now.high)})` : "as the tables"}
                  </td>
                  <td className="py-1">{narrowsWords(f.narrowedTo)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="max-w-prose text-sm text-soft">
        {isOwn
          ? "Learned in this very cell."
          : "Nothing was learned in this very cell: what others say of it counts in part (0.6 of a shop's, 0.8 of the same process)."}{" "}
        {book.scatter
          ? `Beads of this shop differ by ${Math.round(100 * book.scatter.beadCv)} % (nine in ten ${Math.round(100 * book.scatter.beadLow)} to ${Math.round(100 * book.scatter.beadHigh)}), days by ${Math.round(100 * book.scatter.dayCv)} %: squareness and twist hang on these.`
          : "How much beads and days differ is told from three frames on; until then it is what is usual."}
      </p>
    </div>
  );
}

/** One lesson: what it was, whether it counts, how it stood to what was believed. */
function Line({
  lesson,
  units,
  onDo,
}: {
  lesson: LessonLine;
  units: UnitPreference;
  onDo: (body: { kind: "left out"; lesson: string; why: string } | { kind: "taken back"; lesson: string }) => void;
}) {
  const [why, setWhy] = useState<string | null>(null);
  const mm = (x: number): string => formatSmall(x, units, { decimals: units === "mm" ? 2 : 1 });
  const isMine = lesson.leftOut !== null;
  const name =
    lesson.kind === "frame"
      ? lesson.name
      : lesson.of === "butt"
        ? "Two plates, a seam between marks"
        : "A bead along a tube";
  return (
    <li className="grid gap-x-4 gap-y-1 border-t border-line py-2 sm:grid-cols-[minmax(0,1fr)_auto]">
      <div className={`min-w-0 ${isMine ? "text-soft" : ""}`}>
        <p>
          {lesson.kind === "frame" ? (
            <a href={`/jobs/${lesson.jobId}/check`} className="font-semibold">
              {name}
            </a>
          ) : (
            <strong>{name}</strong>
          )}{" "}
          <span className="text-sm text-soft">
            {lesson.cell.process}, {wallClassWords(lesson.cell.wall, units)}, {METAL_WORDS[lesson.cell.metal]};{" "}
            <When at={lesson.at} />, {lesson.origin}
          </span>
        </p>
        <ul className="text-sm text-soft">
          {lesson.kind === "coupon" ? (
            <li>
              Moved by {mm(lesson.changeMm)} ± {mm(2 * lesson.uMm)}: {FACTOR_NAMES[lesson.factor].toLowerCase()}{" "}
              {lesson.measured.toFixed(2)} by itself.
            </li>
          ) : (
            <li>
              {lesson.readings.length} {lesson.readings.length === 1 ? "change" : "changes"} from gate to gate.
            </li>
          )}
          {lesson.leftOut !== null ? <li>Does not count. {lesson.leftOut}</li> : null}
          {lesson.contradicts ? (
            <li className="text-close">It contradicts what was known: nothing was narrowed by it.</li>
          ) : null}
          {lesson.weight !== null && lesson.weight < 0.9 ? (
            <li>Counted by {Math.round(100 * lesson.weight)} % only: the worse one fits, the less it counts.</li>
          ) : null}
          {lesson.kind === "frame" ? lesson.doubts.map((d) => <li key={d}>{d}</li>) : null}
        </ul>
        {why !== null ? (
          <form
            className="mt-2 flex flex-wrap items-end gap-3"
            onSubmit={(e) => {
              e.preventDefault();
              onDo({ kind: "left out", lesson: lesson.id, why: why.trim() });
              setWhy(null);
            }}
          >
            <TextField label="Why it does not count" value={why} wrong={null} maxLength={300} onChange={setWhy} />
            <Button type="submit" disabled={why.trim() === ""}>
              Leave it out
            </Button>
          </form>
        ) : null}
      </div>
      {why === null ? (
        <Button
          className="self-start justify-self-start"
          aria-label={isMine ? `Take it back: ${name}` : `Leave it out: ${name}`}
          onClick={() => (isMine ? onDo({ kind: "taken back", lesson: lesson.id }) : setWhy(""))}
        >
          {isMine ? "Take it back" : "Leave it out"}
        </Button>
      ) : null}
    </li>
  );
}

/** A multiple that is no surer than this tells nothing of a person (own judgement). */
const TOO_WIDE = 0.25;
const framesWords = (n: number): string => `${n} ${n === 1 ? "frame" : "frames"}`;

/** Whether the tool is right: bands, drift, what it misjudges. */
function IsItRight({ book, units }: { book: Book; units: UnitPreference }) {
  const { right } = book;
  const { coverage, drift, sorts } = right;
  if (right.frames === 0 || !coverage)
    return (
      <p className="text-soft">No frame has taught yet: read one at the tacked gate and cold, and let it teach.</p>
    );
  const inside = Math.round(coverage.share * right.frames);
  const misjudged = sorts.filter((s) => s.readings >= 4 && Math.abs(s.meanZ) > 1);
  return (
    <div className="grid gap-3">
      <p className="max-w-prose text-lg font-semibold text-plum" data-testid="is-it-right">
        {inside} of {right.frames} {right.frames === 1 ? "frame lies" : "frames lie"} where nine in ten should
        {coverage.word === "too few to tell"
          ? ": too few to tell."
          : coverage.word === "as it should be"
            ? `: as it should be (${coverage.expectedFrom} to ${coverage.expectedTo} would be).`
            : `: the bands are ${coverage.word} (${coverage.expectedFrom} to ${coverage.expectedTo} would be right).`}
      </p>
      <p className="max-w-prose text-sm text-soft">
        By so many, the bands hold {Math.round(100 * coverage.low)} to {Math.round(100 * coverage.high)} in 100. It
        takes about {right.framesNeeded} frames to find bands that hold three times in four only. Each frame counts
        once: its sides share their factors. Each was predicted by what was known before it.
      </p>
      <WhenSeen heightPx={CHART_PX}>
        <ToldAgainstRead lessons={book.lessons} units={units} />
      </WhenSeen>
      <ul className="text-sm">
        {sorts.map((s) => (
          <li key={s.sort}>
            {s.sort}: {s.readings} {s.readings === 1 ? "reading" : "readings"}, on average{" "}
            {Math.abs(s.meanZ).toFixed(1)} of their scatter {s.meanZ >= 0 ? "more" : "less"} than predicted
          </li>
        ))}
        <li>
          {misjudged.length > 0
            ? `Misjudged: ${misjudged.map((s) => s.sort).join("; ")}.`
            : "Nothing stands out as misjudged."}
        </li>
        <li>
          {drift.alarmAt === null
            ? "No drift: jobs have not begun to pull more or less than they did."
            : `Drift: from frame ${drift.alarmAt + 1} on everything pulls ${drift.up > drift.down ? "more" : "less"} than predicted. New wire, gas or machine? Begin anew.`}
        </li>
        {right.hands.map((h) => (
          <li key={h.who}>
            {h.u > TOO_WIDE
              ? `What ${h.who} welds: too little to tell yet whether it moves more or less than predicted (${framesWords(h.frames)})`
              : `What ${h.who} welds moves ${h.ratio.toFixed(2)} ± ${(2 * h.u).toFixed(2)} times as far as predicted (${framesWords(h.frames)})${right.hands.length > 1 && Math.abs(h.ratio - 1) > 2 * h.u ? ": other hands, other shrinkage" : ""}`}
          </li>
        ))}
        {right.times.length > 0 ? (
          <li>
            By the ticks here:{" "}
            {right.times
              .map(
                (t) =>
                  `${handlingWords(t.kind)} ${t.seconds < 60 ? `${Math.round(t.seconds)} s` : timeWords(t.seconds)} (${t.from})`,
              )
              .join(", ")}
            .
          </li>
        ) : null}
        {right.bins ? (
          <li>
            Readings in each fifth of what was predicted, low to high:{" "}
            <span className="fig">{right.bins.join(", ")}</span>
          </li>
        ) : null}
      </ul>
    </div>
  );
}

/** Settings that were proven on scrap, the newest of each process, wall, seam and position. */
function Proven({ beads, units }: { beads: readonly TestBead[]; units: UnitPreference }) {
  const kept = new Map<string, TestBead>();
  for (const b of beads) {
    const key = [b.process, b.wallMm, b.material, b.seam, b.position].join();
    if (b.result === "keep" && !kept.has(key)) kept.set(key, b);
  }
  if (kept.size === 0) return <p className="text-soft">None yet: log a test bead under Tack and weld of any job.</p>;
  return (
    <ul className="text-sm">
      {[...kept.values()].map((b) => (
        <li key={b.id} className="border-t border-line py-1">
          <strong>
            {b.process}, {formatSmall(b.wallMm, units, { decimals: units === "mm" ? 1 : 0 })} {b.material}
          </strong>
          , {b.seam}, {b.position}:{" "}
          <span className="fig">
            {b.volts} V, {b.amps} A, {physical("speed", b.travelMmPerS, units)}
          </span>{" "}
          <span className="text-soft">
            <When at={b.at} />, {b.origin}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** The page of a shop's lessons: what it knows of its own welds, from what, and whether the tool is right. */
export function Learned({ book: start, beads }: { book: Book; beads: TestBead[] }) {
  const [book, setBook] = useState(start);
  const [units, setUnits] = useState<UnitPreference>("mm");
  const [said, setSaid] = useState<string | null>(null);
  const [anew, setAnew] = useState("");
  const [foreign, setForeign] = useState<File | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const send = async (body: Record<string, unknown>, words: string) => {
    try {
      const { status, body: answer } = await transport("POST", "/api/lessons", {
        id: uuid(),
        at: new Date().toISOString(),
        origin: origin(),
        ...body,
      });
      if (status !== 200) return setSaid(messageOf(answer));
      setBook(answer as Book);
      setSaid(words);
    } catch {
      setSaid("The server cannot be reached just now.");
    }
  };
  const startCoupon = async (coupon: FrameCoupon) => {
    try {
      const { status, body } = await transport("POST", "/api/jobs", {
        name: `Coupon, ${coupon}`,
        units: units === "mm" ? "mm" : "inch-fraction",
        origin: origin(),
        coupon,
      });
      if (status === 200) router.push(`/jobs/${(body as { id: string }).id}`);
      else setSaid(messageOf(body));
    } catch {
      setSaid("The server cannot be reached just now.");
    }
  };
  const readIn = async (file: File, anyway: boolean) => {
    try {
      const response = await fetch(`/api/lessons/file${anyway ? "?anyway=1" : ""}`, { method: "POST", body: file });
      const answer: unknown = await response.json();
      setForeign(response.status === 409 ? file : null);
      if (!response.ok) return setSaid(messageOf(answer));
      setBook(answer as Book);
      setSaid("The lessons are read in; those that were here already stay as they were.");
    } catch {
      setSaid("The server cannot be reached just now.");
    }
  };
  const count = book.learned.frames + book.learned.coupons;
  return (
    <SidePage title="What we learned">
      <Now
        say={
          said ??
          (count === 0
            ? "Make a coupon, or read a frame before and after it is welded."
            : `The next job is predicted by ${learnedWords(book.learned)}.`)
        }
        why="Every shop, process and wall shrinks its own way. Coupons and finished frames narrow the tables' factors; a plan is predicted by what was known when it was made."
      />
      <Choice
        label="Lengths in"
        value={units}
        options={[
          ["mm", "mm"],
          ["inch-decimal", "inch"],
        ]}
        onChange={setUnits}
      />
      <Section title="Factors">
        <Factors book={book} units={units} />
      </Section>
      <Section title="Is the tool right?">
        <IsItRight book={book} units={units} />
      </Section>
      <Section title="A coupon">
        <CouponForm book={book} units={units} onBook={setBook} />
        <div className="mt-4 grid gap-2">
          <p className="max-w-prose text-sm text-soft">
            Small frames tell more, and tell it of joints. Each is a job of its own: read it at the tacked gate and
            cold, then let it teach under Check.
          </p>
          <ul aria-label="Small frames to learn from">
            {FRAME_COUPONS.map((kind) => (
              <FrameCouponPower
                key={kind}
                kind={kind}
                units={units}
                learned={book.learned}
                onStart={() => void startCoupon(kind)}
              />
            ))}
          </ul>
        </div>
      </Section>
      <Section
        title="Lessons"
        aside={<span className="text-sm text-soft">newest first; nothing is ever taken out</span>}
      >
        {book.lessons.length === 0 ? <p className="text-soft">None yet.</p> : null}
        <ul aria-label="Lessons">
          {book.lessons.map((l) => (
            <Line
              key={l.id}
              lesson={l}
              units={units}
              onDo={(b) => void send(b, b.kind === "left out" ? "It is left out." : "It counts again.")}
            />
          ))}
        </ul>
      </Section>
      <Section title="Proven settings">
        <Proven beads={beads} units={units} />
      </Section>
      <Fold title="Take along, read in, begin anew">
        <div className="grid gap-4">
          <div className="flex flex-wrap gap-3">
            <Download href="/api/lessons/file">All lessons (JSON)</Download>
            <Button onClick={() => input.current?.click()}>Read lessons in</Button>
            <input
              ref={input}
              type="file"
              accept="application/json,.json"
              className="hidden"
              aria-label="File of lessons"
              onChange={(e: ChangeEvent<HTMLInputElement>) => {
                const [file] = e.target.files ?? [];
                e.target.value = "";
                if (file) void readIn(file, false);
              }}
            />
            {foreign ? <Button onClick={() => void readIn(foreign, true)}>Read them in all the same</Button> : null}
          </div>
          <form
            className="flex flex-wrap items-end gap-3"
            onSubmit={(e) => {
              e.preventDefault();
              void send(
                { kind: "begun anew", why: anew.trim() },
                "Begun anew: what was learned before is kept, and does not count.",
              );
              setAnew("");
            }}
          >
            <TextField
              label="Begin anew because of"
              hint="new wire, gas, machine"
              value={anew}
              wrong={null}
              maxLength={300}
              onChange={setAnew}
            />
            <Button type="submit" disabled={anew.trim() === ""}>
              Begin anew
            </Button>
          </form>
        </div>
      </Fold>
    </SidePage>
  );
}
