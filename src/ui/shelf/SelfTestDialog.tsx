"use client";

import { useId, useState } from "react";
import { type Instrument, readsSlopes, type SelfTest, selfTest, TESTS_OF, type TestReadings } from "@/core/instruments";
import { readLength, readSlant, slantMmPerM } from "@/core/units";
import { transport } from "../job/store/transport";
import { BubblePicture } from "../measure/BubblePicture";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { Dialog } from "../parts/Dialog";
import { FieldFrame, FieldMessage, inputClass } from "../parts/Field";
import { SelectField } from "../parts/SelectField";

const TEST_WORDS: Record<SelfTest, string> = {
  hook: "the hook",
  "known length": "a known length",
  reversal: "turned end for end",
  "two pegs": "two pegs",
  leaves: "its leaves",
  "turned over": "turned over",
};

/** What to do, step by step. */
const GUIDE: Record<SelfTest, readonly string[]> = {
  hook: [
    "Scribe two lines about 1 m apart, or take a bar with clean ends.",
    "Read the length from the hook as you always do.",
    "Read the same length from a mark inside the tape (100 mm or 1 in); type what the tape shows, the mark not taken off.",
  ],
  "known length": [
    "Take a length that is known better: a gauge block, a certified rule, a long bar measured by others.",
    "Read it the way you always read. The longer it is, the better a scale error shows.",
  ],
  reversal: [
    "Lay the level on a flat bar and mark where both its ends lie. Note how far off level it reads, and which end of the bench it calls high: a bubble sits toward the high end.",
    "Turn it end for end onto the same marks. Note again how far, and which end of the bench. Never mind the signs that it shows.",
  ],
  "two pegs": [
    "Set two pegs about 30 m apart. Stand in the middle and read the rod on both.",
    "Stand close to one peg and read the rod on both again. Note all four sights.",
  ],
  leaves: [
    "Measure each leaf with a calliper or micrometer, clean and without burr.",
    "One a line: what is marked, then what it measures.",
  ],
  "turned over": [
    "Lay the edge on the surface on two equal blocks. Read the gap at places along it.",
    "Turn it over about its length, so that the other side of its bow looks down, and read the same places.",
    "One a line: place along the edge, first gap, second gap.",
  ],
};

interface Field {
  key: string;
  label: string;
  unit: "mm" | "m" | "slant";
  start?: string;
}

const FIELDS: Record<Exclude<SelfTest, "leaves" | "turned over">, readonly Field[]> = {
  hook: [
    { key: "fromHookMm", label: "From the hook", unit: "mm" },
    { key: "fromMarkMm", label: "From the mark, as shown", unit: "mm" },
    { key: "markMm", label: "The mark", unit: "mm", start: "100" },
  ],
  "known length": [
    { key: "knownMm", label: "Known to be", unit: "mm" },
    { key: "uKnownMm", label: "Known to within ±", unit: "mm", start: "0.1" },
    { key: "readMm", label: "It reads", unit: "mm" },
  ],
  reversal: [
    { key: "firstMmPerM", label: "First, off level by", unit: "slant" },
    { key: "secondMmPerM", label: "Turned end for end, off level by", unit: "slant" },
  ],
  "two pegs": [
    { key: "a1Mm", label: "From the middle: rod on A", unit: "mm" },
    { key: "b1Mm", label: "From the middle: rod on B", unit: "mm" },
    { key: "a2Mm", label: "From near A: rod on A", unit: "mm" },
    { key: "b2Mm", label: "From near A: rod on B", unit: "mm" },
    { key: "a1M", label: "Middle to A", unit: "m", start: "15" },
    { key: "b1M", label: "Middle to B", unit: "m", start: "15" },
    { key: "a2M", label: "Second place to A", unit: "m", start: "2" },
    { key: "b2M", label: "Second place to B", unit: "m", start: "32" },
  ],
};

/** @returns the number that a text says in the field's unit, or why not. */
function readField(
  text: string,
  unit: Field["unit"],
  bareSlope: "mm/m" | "deg",
): { ok: true; value: number } | { ok: false; message: string } {
  if (text.trim() === "") return { ok: false, message: "Nothing typed yet." };
  if (unit === "slant") {
    const read = readSlant(text, bareSlope);
    return read.ok ? { ok: true, value: slantMmPerM(read.value) } : read;
  }
  if (unit === "m") {
    const value = Number(text.replace(",", ".").replace(/\s*m$/, ""));
    return Number.isFinite(value)
      ? { ok: true, value }
      : { ok: false, message: `Cannot read "${text}": give metres, for example 15.` };
  }
  const read = readLength(text, "mm");
  return read.ok ? { ok: true, value: read.value.mm } : read;
}

const HIGH_ENDS = [
  ["left", "the left end of the bench"],
  ["right", "the right end of the bench"],
] as const;

/** 1 where the right end of the bench reads high, -1 where the left one does. */
const sideOf = (texts: Readonly<Record<string, string>>, key: string): 1 | -1 =>
  texts[`${key} high`] === "left" ? -1 : 1;

/** Lines of numbers apart by blanks or commas. @returns rows of `width` numbers, or which line is wrong. */
function readLines(text: string, width: number): { ok: true; rows: number[][] } | { ok: false; message: string } {
  const rows: number[][] = [];
  for (const [i, line] of text.split("\n").entries()) {
    if (line.trim() === "") continue;
    const parts = line.trim().split(/[\s;]+|,\s+/);
    const numbers = parts.map((p) => readLength(p, "mm"));
    const bad = numbers.find((n) => !n.ok);
    if (bad && !bad.ok) return { ok: false, message: `Line ${i + 1}: ${bad.message}` };
    if (numbers.length !== width)
      return { ok: false, message: `Line ${i + 1}: ${width} numbers, not ${numbers.length}.` };
    rows.push(numbers.map((n) => (n.ok ? n.value.mm : 0)));
  }
  return rows.length > 0 ? { ok: true, rows } : { ok: false, message: "Nothing typed yet." };
}

type Read = { ok: true; value: TestReadings } | { ok: false; message: string };

function readTest(test: SelfTest, texts: Record<string, string>, instrument: Instrument): Read {
  if (test === "leaves") {
    const lines = readLines(texts.leaves ?? "", 2);
    const u = readField(texts.uMm ?? "0.01", "mm", "mm/m");
    if (!lines.ok) return lines;
    if (!u.ok || u.value <= 0) return { ok: false, message: "Measured to within ±: give a number in mm." };
    return {
      ok: true,
      value: { test, uMm: u.value / 2, leaves: lines.rows.map(([markedMm = 0, readMm = 0]) => ({ markedMm, readMm })) },
    };
  }
  if (test === "turned over") {
    const lines = readLines(texts.places ?? "", 3);
    if (!lines.ok) return lines;
    return {
      ok: true,
      value: { test, places: lines.rows.map(([xMm = 0, firstMm = 0, secondMm = 0]) => ({ xMm, firstMm, secondMm })) },
    };
  }
  const values: Record<string, number> = {};
  for (const f of FIELDS[test]) {
    const read = readField(texts[f.key] ?? f.start ?? "", f.unit, instrument.kind === "angle gauge" ? "deg" : "mm/m");
    if (!read.ok) return { ok: false, message: `${f.label}: ${read.message}` };
    values[f.key] = f.key === "uKnownMm" ? read.value / 2 : read.value;
    if (test !== "reversal") continue;
    if (read.value < 0)
      return { ok: false, message: `${f.label}: give how far without a sign, and choose the end of the bench.` };
    // By the level's own right: first it lies to the right of the bench, turned it lies to the left.
    values[f.key] = sideOf(texts, f.key) * (f.key === "firstMmPerM" ? 1 : -1) * read.value;
  }
  return { ok: true, value: { test, ...values } as TestReadings };
}

/** A guided test of one instrument: what to do, what was read, what follows, and the new card. */
export function SelfTestDialog({
  instrument,
  onClose,
  onMade,
}: {
  instrument: Instrument;
  onClose: () => void;
  onMade: (made: Instrument, say: string) => void;
}) {
  const tests = TESTS_OF[instrument.kind];
  const [test, setTest] = useState<SelfTest>(tests[0] ?? "known length");
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const id = useId();
  const typed = Object.values(texts).some((t) => t.trim() !== "");
  const read = readTest(test, texts, instrument);
  const result = read.ok ? selfTest(instrument, read.value, new Date().toISOString()) : null;
  const set = (key: string, text: string) => {
    setWrong(null);
    setTexts({ ...texts, [key]: text });
  };
  const keep = async () => {
    if (!read.ok) return setWrong(read.message);
    if (!result?.ok) return setWrong(result?.message ?? "");
    setBusy(true);
    try {
      const { status, body } = await transport("POST", "/api/instruments", result.value.updated);
      if (status === 200) return onMade(body as Instrument, result.value.say);
      setWrong((body as { message?: string } | null)?.message ?? "The server did not take it.");
    } catch {
      setWrong("The server cannot be reached just now. Try again in a moment.");
    }
    setBusy(false);
  };
  const area = (key: string, label: string, hint: string, placeholder: string) => (
    <FieldFrame id={`${id}-${key}`} label={label} hint={hint}>
      <textarea
        id={`${id}-${key}`}
        rows={5}
        className={`${inputClass(false)} py-2`}
        value={texts[key] ?? ""}
        maxLength={2000}
        placeholder={placeholder}
        onChange={(e) => set(key, e.target.value)}
      />
    </FieldFrame>
  );
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Test: ${instrument.name}`}
      description="What it finds is taken off every later reading."
    >
      <form
        className="grid gap-4"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void keep();
        }}
      >
        {tests.length > 1 ? (
          <Choice
            label="By"
            value={test}
            options={tests.map((t) => [t, TEST_WORDS[t]] as const)}
            onChange={(t) => {
              setTest(t);
              setTexts({});
              setWrong(null);
            }}
          />
        ) : null}
        <ol className="grid list-decimal gap-1 pl-5">
          {GUIDE[test].map((g) => (
            <li key={g}>{g}</li>
          ))}
        </ol>
        {test === "leaves" ? (
          <>
            {area("leaves", "Leaves", "marked, measured; mm", "0.05 0.050\n0.10 0.100\n0.30 0.401")}
            <FieldFrame id={`${id}-u`} label="Measured to within ±" hint="mm">
              <input
                id={`${id}-u`}
                className={inputClass(false)}
                value={texts.uMm ?? "0.01"}
                maxLength={20}
                onChange={(e) => set("uMm", e.target.value)}
              />
            </FieldFrame>
          </>
        ) : test === "turned over" ? (
          area("places", "Gaps", "place, first, turned over; mm", "0 0.50 0.50\n500 0.35 0.75\n1000 0.50 0.50")
        ) : (
          <div className="grid gap-4 sm:grid-cols-2">
            {FIELDS[test].map((f) => (
              <FieldFrame
                key={f.key}
                id={`${id}-${f.key}`}
                label={f.label}
                hint={f.unit === "slant" ? (instrument.kind === "angle gauge" ? "°" : "mm/m") : f.unit}
              >
                <input
                  id={`${id}-${f.key}`}
                  className={inputClass(false)}
                  value={texts[f.key] ?? f.start ?? ""}
                  inputMode="text"
                  autoComplete="off"
                  maxLength={40}
                  onChange={(e) => set(f.key, e.target.value)}
                />
                {test === "reversal" ? (
                  <SelectField
                    label={f.key === "firstMmPerM" ? "High end" : "High end, turned"}
                    value={sideOf(texts, f.key) > 0 ? "right" : "left"}
                    options={HIGH_ENDS}
                    onChange={(v) => set(`${f.key} high`, v)}
                  />
                ) : null}
              </FieldFrame>
            ))}
          </div>
        )}
        {test === "reversal" ? (
          <BubblePicture
            left="left"
            right="right"
            rows={(["firstMmPerM", "secondMmPerM"] as const).map((k, i) => ({
              label: i === 0 ? "as laid first" : "turned end for end, on the same marks",
              marked: i === 0 ? "left" : "right",
              off: /[1-9]/.test(texts[k] ?? "") ? sideOf(texts, k) * 0.6 : 0,
            }))}
          />
        ) : null}
        <div aria-live="polite">
          {wrong ? (
            <FieldMessage severity="error">{wrong}</FieldMessage>
          ) : result?.ok ? (
            <div className="border-l-4 border-plum pl-3" data-testid="test-result">
              <p className="font-semibold text-plum">{result.value.say}</p>
              <p className="text-sm text-soft">{result.value.why}</p>
            </div>
          ) : result && !result.ok ? (
            <FieldMessage severity="error">{result.message}</FieldMessage>
          ) : typed ? (
            <p className="text-sm text-soft">{read.ok ? "" : read.message}</p>
          ) : null}
        </div>
        <Button look="advise" type="submit" disabled={busy}>
          Keep this on its card
        </Button>
        {readsSlopes(instrument.kind) ? (
          <p className="text-sm text-soft">Readings in degrees may be typed with ° after them.</p>
        ) : null}
      </form>
    </Dialog>
  );
}
