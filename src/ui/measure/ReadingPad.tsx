"use client";

import { Undo2 } from "lucide-react";
import dynamic from "next/dynamic";
import { type FormEvent, type ReactNode, useEffect, useId, useRef, useState } from "react";
import {
  type Entry,
  hasLeaves,
  keyOf,
  type Mean,
  meantMm,
  meantOtherwise,
  type QuantityId,
  quantityWords,
  type Round,
  readingProblem,
  readingText,
  readLeaves,
  spanOf,
  stillStands,
  type Taken,
} from "@/core/job";
import type { Gate } from "@/core/plan";
import { marksTell, nearerBy } from "@/core/square";
import {
  bareUnit,
  fixed,
  formatLength,
  formatSmall,
  type Length,
  ok,
  parseLength,
  physical,
  type Result,
  readLength,
  readSlant,
  type Slant,
  type SlantUnit,
  slantMmPerM,
  typedText,
  type UnitPreference,
} from "@/core/units";
import { useJob } from "../job/JobProvider";
import { newRound } from "../job/stages";
import { Button } from "../parts/Button";
import { useDevice, useTouch } from "../parts/device";
import { FieldMessage, inputClass } from "../parts/Field";
import { Fold } from "../parts/Fold";
import { understood } from "../parts/LengthField";
import type { SeenSlope } from "./BubbleFields";
import { InstrumentPicker, shelfOf } from "./InstrumentPicker";
import { Keypad } from "./Keypad";
import { markMm, markWords, stepped } from "./keys";
import type { Quantity } from "./quantities";
import { TakenFields } from "./TakenFields";
import { useInstrument } from "./useInstrument";
import type { Rounds } from "./useRounds";
import { useSaid } from "./useSaid";
import { useTaken } from "./useTaken";

// What listens comes behind the page, and only some browsers have a use for it.
const SayIt = dynamic(() => import("./SayIt"), { ssr: false });

export type { Quantity } from "./quantities";

// Only who reads a bubble asks for it.
const BubbleFields = dynamic(() => import("./BubbleFields").then((m) => m.BubbleFields), { ssr: false });

interface Props {
  gate: Gate;
  method?: "heights" | "rod";
  /** How much hotter the work is than the tape, for a round that is begun here. */
  warmerK?: number;
  /** The rounds of the stage; the pad reads the one in sight, or begins one. */
  rounds: Rounds<Round & { means: ReadonlyMap<string, Mean> }>;
  quantities: readonly Quantity[];
  /** Instrument to begin with when none was used at this gate yet. */
  firstInstrument: string;
  /** The drawing, where it is shown between the field and the list (bench). */
  figure: ReactNode;
}

/** Key of the first quantity that does not stand yet, in walking order. */
export const nextUnread = (stand: ReadonlySet<string>, quantities: readonly Quantity[]): string | null => {
  const next = quantities.find((q) => !stand.has(q.key));
  return next ? next.key : null;
};

/** A stored value as the field shows it. */
const valueText = (value: Length | Slant, units: UnitPreference): string =>
  "slant" in value ? value.text : typedText(value, units);

const EXAMPLES: Record<SlantUnit, string> = {
  deg: "90.1",
  "mm/m": "0.4",
  "%": "0.05",
  "thou/ft": "5",
  "in/ft": "0.005",
};

/** What a bare number means, as one says it. */
const BARE_WORDS: Record<string, string> = {
  mm: "millimetres",
  in: "inches",
  deg: "degrees",
  "mm/m": "millimetres per metre",
  "thou/ft": "thousandths per foot",
};

/** A slant in the other units, as `bothSystems` does for lengths. */
function slantWords(s: Slant, isAngle: boolean, units: UnitPreference): string {
  if (isAngle)
    return `${fixed(s.value, 2)}°, ${physical("slope", slantMmPerM({ value: s.value - 90, slant: "deg" }), units)} from square`;
  const mmPerM = slantMmPerM(s);
  return `${physical("slope", mmPerM, units)} · ${fixed((Math.atan(mmPerM / 1000) * 180) / Math.PI, 3)}°`;
}

/** What stands of the quantity when it was read more than once. */
function Repeats({ mean, slant }: { mean: Mean; slant: boolean }) {
  const { units } = useJob("units");
  const small = (mm: number): string =>
    slant ? physical("slope", mm, units) : formatSmall(mm, units, { decimals: 2 });
  if (mean.count < 2) return null;
  return (
    <p className="mt-1 text-sm" data-testid="repeats">
      Mean of {mean.count}:{" "}
      <span className="fig font-semibold text-brass">
        {slant ? small(mean.mm) : formatLength(mean.mm, units, { decimals: 2 }).text} ± {small(2 * mean.uMm)}
      </span>
      , spread <span className="fig">{small(mean.spreadMm)}</span>.
      {mean.disagree ? (
        <span className="text-close">
          {" "}
          {mean.disagree.join(" and ")} disagree more than is known of them: test both.
        </span>
      ) : null}
    </p>
  );
}

/** How a bubble was read last: what a division was taken for, and whether the level was turned end for end. */
const lastBubble = (entries: readonly Entry[]): { perDivisionMmPerM: number; turned: boolean } | undefined =>
  entries
    .flatMap((e) =>
      e.kind === "reading" && e.taken?.bubble
        ? [{ perDivisionMmPerM: e.taken.bubble.perDivisionMmPerM, turned: e.again === true }]
        : [],
    )
    .at(-1);

/** What is asked comes into sight, above the keys. */
const intoSight = (element: HTMLElement | null): void => element?.scrollIntoView({ block: "nearest" });

/** The keys stay until a press that took the focus away has landed: nothing moves from under a finger, ms. */
const LANDED_MS = 500;

/** Whether the field is read into. */
function useHere() {
  const [isHere, setHere] = useState(false);
  const timer = useRef(0);
  useEffect(() => () => window.clearTimeout(timer.current), []);
  return {
    isHere,
    come: () => {
      window.clearTimeout(timer.current);
      setHere(true);
    },
    go: () => {
      timer.current = window.setTimeout(() => setHere(false), LANDED_MS);
    },
  };
}

/** One reading at a time: what to read, a large field, a large button. */
export function ReadingPad(props: Props) {
  const { gate, method = "heights", warmerK = 0, rounds, quantities, firstInstrument, figure } = props;
  const { current: round, roundId, stand, picked: wanted, pick: onActive, show: onRound } = rounds;
  const { job, store, texts, evaluation, part } = useJob("job", "store", "texts", "evaluation", "part");
  const begun = { gate, method, ...(warmerK ? { warmerK } : {}), ...(part ? { part: part.id } : {}) };
  const quad = evaluation.structure?.quad ?? null;
  const { units } = job.plan;
  const quantity = quantities.find((q) => q.key === wanted) ?? quantities.find((q) => !stand.has(q.key)) ?? null;
  const shelf = shelfOf(job.instruments, quantity?.kinds);
  const { instrument, pick } = useInstrument(round, quantity, quantities, firstInstrument);
  const inHand = shelf.find((i) => i.id === instrument);
  const taken = useTaken(round);
  const { keypad, hears } = useDevice();
  const isTouch = useTouch();
  const { isHere, come, go } = useHere();
  const step = inHand && quantity && !quantity.slant ? markMm(inHand.resolutionMm, units) : null;
  const hasKeys = keypad === "always" || (keypad === "touch" && isTouch);
  const [said, setSaid] = useState<string | null>(null);
  const [asked, setAsked] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const id = useId();
  const key = quantity ? quantity.key : "";
  const textKey = `reading/${roundId ?? `${newRound(part?.id ?? null)} ${gate}`}/${key}`;
  const [own, setOwn] = useState<{ key: string; text: string } | null>(null);
  // What is typed is shown by this field alone, so that a key is answered within a frame; the store keeps it for a reload.
  const typed = own?.key === textKey ? own.text : texts[textKey];
  const there = quantity ? (round?.readings.get(key) ?? round?.slants.get(key)) : undefined;
  const mean = there && round?.means.get(key);
  const text = typed ?? (there ? valueText(there.value, units) : "");
  const leaves = quantity && !quantity.slant && hasLeaves(quantity.what) ? readLeaves(text, bareUnit(units)) : null;
  const read: Result<Length | Slant> | null =
    text.trim() === ""
      ? null
      : quantity?.slant
        ? readSlant(text, quantity.slant)
        : leaves
          ? leaves.ok
            ? ok(leaves.value.goes)
            : leaves
          : readLength(text, bareUnit(units));
  const how: Taken = quantity && !quantity.slant ? taken.of(quantity.what) : {};
  if (leaves?.ok && leaves.value.notAt) how.notAt = leaves.value.notAt;
  const isAngle = quantity?.what.kind === "angle";
  const bare = quantity?.slant ?? bareUnit(units);
  /** What was understood of a length: as typed, or as it is meant where a mark, a block or a second leaf is in it. */
  const heard = (value: Length): string => {
    const { read: besides } = readingText(reading(value), job.instruments, units);
    const at = meantMm(reading(value), job.instruments) ?? value.mm;
    const parsed = parseLength(value.text, value.unit);
    const note = parsed.ok && parsed.value.note ? ` ${parsed.value.note}` : "";
    return `${understood(at, units)}${besides ? ` (${besides})` : ""}${note}`;
  };

  useSaid(quantity ? `${quantityWords(quantity.what)}. ${quantity.say}` : null);

  // biome-ignore lint/correctness/useExhaustiveDependencies: the questions belong to one quantity of one round
  useEffect(() => {
    setSaid(null);
    setAsked(null);
  }, [key, roundId]);

  const sizeOf = (v: Length | Slant): number => ("slant" in v ? (isAngle ? v.value : slantMmPerM(v)) : v.mm);
  const inUnit = (x: number, precise = false): string =>
    quantity?.slant
      ? isAngle
        ? `${fixed(x, 2)}°`
        : physical("slope", x, units)
      : precise
        ? formatLength(x, units).text
        : formatSmall(x, units);

  const reading = (value: Length | Slant) => ({
    kind: "reading" as const,
    instrumentId: instrument,
    what: quantity?.what as QuantityId,
    value,
    ...(quantity?.how ? { how: quantity.how } : {}),
    ...(Object.keys(how).length > 0 ? { taken: how } : {}),
  });
  /** What a value means, in the unit of what is expected. */
  const meant = (value: Length | Slant): number => meantMm(reading(value), job.instruments) ?? sizeOf(value);
  // Between crosses that lie inside the corners there is less than between the corners.
  const span = quantity && how.setIn ? spanOf(quantity.what) : null;
  const nearer =
    span && quad && how.setIn && marksTell(quad.corners, how.setIn.mm) ? nearerBy(quad.corners, span, how.setIn.mm) : 0;
  const expectedNow = quantity?.expected == null ? null : quantity.expected - nearer;

  /** @param round the round that was read in: it may have begun with this reading. */
  const goOn = (round: string) => {
    const order = quantities.map((q) => q.key);
    const after = [...order.slice(order.indexOf(key) + 1), ...order.slice(0, order.indexOf(key))];
    onActive(after.find((n) => !stand.has(n)) ?? null, round);
    input.current?.focus();
  };

  const keep = (sure: boolean, again = false, instead: Length | null = null) => {
    if (!quantity) return;
    if (!read?.ok) {
      setSaid(
        read
          ? read.message
          : `Nothing typed: give the reading, for example ${quantity.slant ? EXAMPLES[quantity.slant] : bare === "in" ? "47 1/4" : "1200.5"}.`,
      );
      input.current?.focus();
      return;
    }
    const made = { ...reading(instead ?? read.value), ...(again ? { again: true as const } : {}) };
    const tooDeep = how.setIn && span && quad && !marksTell(quad.corners, how.setIn.mm);
    const wrong = tooDeep
      ? "Crosses so far inside say nothing of the corners: see How it is taped, below."
      : readingProblem(made)?.message;
    if (wrong) {
      setSaid(wrong);
      input.current?.focus();
      return;
    }
    const off = expectedNow === null ? 0 : meant(made.value) - expectedNow;
    if (!sure && asked !== text && Math.abs(off) > quantity.askBeyond) {
      setAsked(text);
      return;
    }
    store.keepText(textKey, null, true);
    setOwn(null);
    let id = roundId;
    if (id) store.add({ ...made, roundId: id });
    else {
      id = store.openRound(begun, made);
      onRound(id);
    }
    if (again) {
      input.current?.focus();
      return;
    }
    goOn(id);
  };

  /** What a bubble says: read once, or turned end for end and averaged with it. */
  const keepSlopes = (seen: readonly SeenSlope[]) => {
    if (!quantity) return;
    let id = roundId;
    seen.forEach(({ value, taken: what, turned }, i) => {
      const at = quantity.how;
      const way =
        at?.by === "slope" && turned ? { ...at, arrow: at.arrow === "on" ? ("back" as const) : ("on" as const) } : at;
      const made = {
        kind: "reading" as const,
        instrumentId: instrument,
        what: quantity.what,
        value,
        taken: what,
        ...(way ? { how: way } : {}),
        ...(i > 0 ? { again: true as const } : {}),
      };
      if (id) store.add({ ...made, roundId: id });
      else {
        id = store.openRound(begun, made);
        onRound(id);
      }
    });
    if (id) goOn(id);
  };

  const type = (next: string) => {
    setSaid(null);
    setAsked(null);
    setOwn({ key: textKey, text: next });
    store.keepText(textKey, next === "" ? null : next, true);
  };

  const bubble = lastBubble(job.entries);
  const latest = round?.all.findLast((r) => r.value !== null && stillStands(round, r));
  const mark = quantity?.slant ? undefined : inHand?.fromMarkMm;
  // A number that no gap and no side could be is often one of another unit.
  const otherwise =
    asked !== null && quantity && expectedNow !== null && !quantity.slant
      ? meantOtherwise(text, bareUnit(units), (mm) => {
          const value = { mm, text, unit: bareUnit(units) };
          return Math.abs(meant(value) - expectedNow) <= quantity.askBeyond;
        })
      : [];

  return (
    <form
      className="grid gap-4"
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        keep(false);
      }}
      noValidate
    >
      {quantity ? (
        <div>
          <label htmlFor={id} className="block">
            <span className="fig mr-3 text-4xl font-bold text-brass">{quantityWords(quantity.what)}</span>
            <span className="text-lg">
              {how.setIn && span ? `Tape ${span[0]} to ${span[1]}, cross to cross` : quantity.say}
            </span>
          </label>
          <input
            id={id}
            ref={input}
            className={`${inputClass(said !== null || (read !== null && !read.ok), true)} mt-2`}
            value={text}
            inputMode={hasKeys ? "none" : "text"}
            enterKeyHint="next"
            autoComplete="off"
            spellCheck={false}
            maxLength={quantity.slant ? 40 : 80}
            aria-invalid={said !== null || (read !== null && !read.ok)}
            aria-describedby={`${id}-said`}
            onFocus={come}
            onBlur={go}
            onChange={(e) => type(e.target.value)}
          />
          {hears ? <SayIt onText={type} onTrouble={setSaid} /> : null}
          {hasKeys && isHere ? (
            <Keypad
              units={units}
              isSlant={quantity.slant !== undefined}
              text={text}
              step={step === null ? null : markWords(step, units)}
              onText={type}
              onStep={(by) => {
                const from = read?.ok && "mm" in read.value ? read.value.mm : (expectedNow ?? 0);
                if (step !== null) type(stepped(from, step, by, units));
              }}
            >
              <Button look="advise" big type="submit">
                Keep {quantityWords(quantity.what)}
              </Button>
            </Keypad>
          ) : null}
          <div id={`${id}-said`} aria-live="polite">
            {said ? (
              <FieldMessage severity="error">{said}</FieldMessage>
            ) : read && !read.ok ? (
              <FieldMessage severity="error">{read.message}</FieldMessage>
            ) : (
              <p className="fig mt-1 min-h-5 text-sm text-soft">
                {read?.ok
                  ? "slant" in read.value
                    ? slantWords(read.value, isAngle, units)
                    : heard(read.value)
                  : `A bare number is ${BARE_WORDS[bare] ?? bare}.${mark ? ` Type what the tape shows: ${formatLength(mark, units, { trim: true }).text} is taken off.` : ""}`}
              </p>
            )}
          </div>
          {mean ? <Repeats mean={mean} slant={quantity.slant !== undefined} /> : null}
          {asked !== null && read?.ok && expectedNow !== null ? (
            <div ref={intoSight} role="alert" className="mt-2 border-l-4 border-close py-1 pl-4">
              <p>
                <strong>
                  {inUnit(Math.abs(meant(read.value) - expectedNow))} from {quantity.expectedBy ?? "what it should be"}
                </strong>{" "}
                ({inUnit(expectedNow, true)}
                {nearer > 0 ? " between the crosses" : ""}). Read again, or keep it if it is so.
              </p>
              {otherwise.map((v) => (
                <Button key={v.text} className="mt-2 mr-2" onClick={() => keep(true, false, v)}>
                  It was {v.text}: keep that
                </Button>
              ))}
              <Button className="mt-2" onClick={() => keep(true)}>
                It is so: keep {quantityWords(quantity.what)}
              </Button>
            </div>
          ) : null}
          <div className="mt-2 flex flex-wrap gap-2">
            {hasKeys && isHere ? null : (
              <Button look="advise" big type="submit" className="grow md:grow-0">
                Keep {quantityWords(quantity.what)}
              </Button>
            )}
            {there && typed ? (
              <Button big onClick={() => keep(false, true)}>
                Average it with what stands
              </Button>
            ) : null}
            {round && latest ? (
              <Button
                big
                onClick={() => {
                  store.add({
                    kind: "reading",
                    roundId: round.round.id,
                    instrumentId: latest.instrumentId,
                    what: latest.what,
                    value: null,
                    ...(latest.how ? { how: latest.how } : {}),
                  });
                  onActive(keyOf(latest));
                }}
              >
                <Undo2 size={20} aria-hidden="true" /> Take back {quantityWords(latest.what)}
              </Button>
            ) : null}
          </div>
        </div>
      ) : (
        <p className="text-lg">
          {quantities.length === 0
            ? "Nothing lies to be read this way. Choose other rests, or another way of reading."
            : "All read. Pick one below to read it again."}
        </p>
      )}
      <div className="xl:hidden">{figure}</div>
      <ul className="grid grid-cols-3 gap-1 sm:grid-cols-4" aria-label="Readings of this round">
        {quantities.map((q) => {
          const own = q.key;
          const value = round?.readings.get(own) ?? round?.slants.get(own);
          const shown = value ? readingText(value, job.instruments, units) : null;
          const on = key === own;
          return (
            <li key={own}>
              <button
                type="button"
                aria-pressed={on}
                onClick={() => onActive(own)}
                className={`min-h-14 w-full rounded-[3px] border px-2 py-1 text-left leading-tight ${on ? "border-brass border-2 bg-brass-soft" : "border-line bg-well"}`}
              >
                <span className="block text-sm font-semibold break-words">
                  {quantityWords(q.what)}
                  {q.short ? <span className="font-normal text-soft"> {q.short}</span> : null}
                </span>
                <span className={`fig block truncate ${value ? "text-brass" : "text-soft"}`}>
                  {value && shown
                    ? `${shown.text}${value.repeats.length > 1 ? ` (${value.repeats.length}×)` : ""}`
                    : "to read"}
                </span>
                {shown?.read ? (
                  <span className="fig line-clamp-2 text-xs break-words text-soft" title={shown.read}>
                    {shown.read}
                  </span>
                ) : null}
              </button>
            </li>
          );
        })}
      </ul>
      <p className="sr-only">
        {quantities.filter((q) => stand.has(q.key)).length} of {quantities.length} read.
      </p>
      <InstrumentPicker
        value={instrument}
        kinds={quantity?.kinds}
        overMm={quantity?.slant ? null : quantity?.expected}
        onChange={pick}
      />
      {quantity?.ends && inHand?.kind === "spirit level" ? (
        <Fold title="By the bubble" note="divisions, packers">
          <BubbleFields
            key={key}
            ends={quantity.ends}
            divisionMmPerM={inHand.divisionMmPerM ?? bubble?.perDivisionMmPerM}
            twice={bubble?.turned ?? false}
            onKeep={keepSlopes}
          />
        </Fold>
      ) : null}
      {quantity?.what.kind === "distance" ? <TakenFields taken={taken.how} onChange={taken.say} /> : null}
    </form>
  );
}
