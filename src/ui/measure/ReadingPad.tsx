"use client";

import { Undo2 } from "lucide-react";
import { type FormEvent, type ReactNode, useEffect, useId, useRef, useState } from "react";
import { quantityWords, type Round } from "@/core/job";
import type { Gate } from "@/core/plan";
import { bareUnit, formatLength, formatSmall, readLength } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { Button } from "../parts/Button";
import { FieldMessage, inputClass } from "../parts/Field";
import { bothSystems, fieldText } from "../parts/LengthField";
import { InstrumentPicker } from "./InstrumentPicker";
import type { Rounds } from "./useRounds";

/** One quantity to read. */
export interface Quantity {
  name: string;
  /** What to do, as one would say it: "Tape side AB". */
  say: string;
  /** What it should be about, mm; null when nothing is known. */
  expectedMm: number | null;
  /** Further off than this is asked about once, mm. */
  askBeyondMm: number;
}

interface Props {
  gate: Gate;
  method?: "heights" | "rod";
  /** The rounds of the stage; the pad reads the one in sight, or begins one. */
  rounds: Rounds<Round>;
  quantities: readonly Quantity[];
  /** Instrument to begin with when none was used at this gate yet. */
  firstInstrument: string;
  /** The drawing, where it is shown between the field and the list (bench). */
  figure: ReactNode;
}

/** First quantity that does not stand yet, in walking order. */
export const nextUnread = (stand: ReadonlySet<string>, quantities: readonly Quantity[]): string | null =>
  quantities.find((q) => !stand.has(q.name))?.name ?? null;

/** One reading at a time: what to read, a large field, a large button. */
export function ReadingPad({ gate, method = "heights", rounds, quantities, firstInstrument, figure }: Props) {
  const { current: round, roundId, stand, picked: wanted, pick: onActive, show: onRound } = rounds;
  const { job, store, texts } = useJob();
  const { units } = job.plan;
  const last =
    round?.all.at(-1) ??
    [...job.entries].reverse().find((e) => e.kind === "reading" && quantities.some((q) => q.name === e.what));
  const [picked, setPicked] = useState<string | null>(null);
  const instrument = picked ?? (last?.kind === "reading" ? last.instrumentId : firstInstrument);
  const [said, setSaid] = useState<string | null>(null);
  const [asked, setAsked] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const id = useId();
  const quantity = quantities.find((q) => q.name === wanted) ?? quantities.find((q) => !stand.has(q.name)) ?? null;
  const key = `reading/${roundId ?? `new ${gate}`}/${quantity?.name ?? ""}`;
  const typed = texts[key];
  const there = quantity ? round?.readings.get(quantity.name) : undefined;
  const text = typed ?? (there ? fieldText(there.value, units) : "");
  const read = text.trim() === "" ? null : readLength(text, bareUnit(units));

  // biome-ignore lint/correctness/useExhaustiveDependencies: the questions belong to one quantity of one round
  useEffect(() => {
    setSaid(null);
    setAsked(null);
  }, [quantity?.name, roundId]);

  const keep = (sure: boolean) => {
    if (!quantity) return;
    if (!read?.ok) {
      setSaid(read ? read.message : "Nothing typed: give the reading, for example 1200.5.");
      input.current?.focus();
      return;
    }
    const taped = !/^[zR]/.test(quantity.name);
    if (taped && read.value.mm <= 0) {
      setSaid(`${quantity.name} reads ${text.trim()}: a distance is more than zero.`);
      return;
    }
    const off = quantity.expectedMm === null ? 0 : read.value.mm - quantity.expectedMm;
    if (!sure && asked !== text && Math.abs(off) > quantity.askBeyondMm) {
      setAsked(text);
      return;
    }
    const name = quantity.name;
    const reading = { kind: "reading" as const, instrumentId: instrument, what: name, value: read.value };
    store.keepText(key, null);
    if (roundId) store.add({ ...reading, roundId });
    else onRound(store.openRound({ gate, method }, reading));
    const order = quantities.map((q) => q.name);
    const after = [...order.slice(order.indexOf(name) + 1), ...order.slice(0, order.indexOf(name))];
    onActive(after.find((n) => !stand.has(n)) ?? null);
    input.current?.focus();
  };

  const latest = round?.all.filter((r) => round.readings.get(r.what)?.id === r.id).at(-1);

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
            <span className="fig mr-3 text-4xl font-bold text-brass">{quantityWords(quantity.name)}</span>
            <span className="text-lg">{quantity.say}</span>
          </label>
          <input
            id={id}
            ref={input}
            className={`${inputClass(said !== null || (read !== null && !read.ok), true)} mt-2`}
            value={text}
            inputMode="text"
            enterKeyHint="next"
            autoComplete="off"
            spellCheck={false}
            maxLength={80}
            aria-invalid={said !== null || (read !== null && !read.ok)}
            aria-describedby={`${id}-said`}
            onChange={(e) => {
              setSaid(null);
              setAsked(null);
              store.keepText(key, e.target.value === "" ? null : e.target.value);
            }}
          />
          <div id={`${id}-said`} aria-live="polite">
            {said ? (
              <FieldMessage severity="error">{said}</FieldMessage>
            ) : read && !read.ok ? (
              <FieldMessage severity="error">{read.message}</FieldMessage>
            ) : (
              <p className="fig mt-1 min-h-5 text-sm text-soft">
                {read?.ok ? bothSystems(read.value.mm) : `Bare numbers are ${bareUnit(units)}.`}
              </p>
            )}
          </div>
          {asked !== null && read?.ok && quantity.expectedMm !== null ? (
            <div role="alert" className="mt-2 border-l-4 border-close py-1 pl-4">
              <p>
                <strong>
                  {formatSmall(Math.abs(read.value.mm - quantity.expectedMm), units)} from what it should be
                </strong>{" "}
                ({formatLength(quantity.expectedMm, units).text}). Read again, or keep it if it is so.
              </p>
              <Button className="mt-2" onClick={() => keep(true)}>
                It is so: keep {quantityWords(quantity.name)}
              </Button>
            </div>
          ) : null}
          <div className="mt-2 flex flex-wrap gap-2">
            <Button look="advise" big type="submit" className="grow md:grow-0">
              Keep {quantityWords(quantity.name)}
            </Button>
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
                  });
                  onActive(latest.what);
                }}
              >
                <Undo2 size={20} aria-hidden="true" /> Take back {quantityWords(latest.what)}
              </Button>
            ) : null}
          </div>
        </div>
      ) : (
        <p className="text-lg">All read. Pick one below to read it again.</p>
      )}
      <div className="xl:hidden">{figure}</div>
      <ul className="grid grid-cols-3 gap-1 sm:grid-cols-4" aria-label="Readings of this round">
        {quantities.map((q) => {
          const value = round?.readings.get(q.name);
          const on = quantity?.name === q.name;
          return (
            <li key={q.name}>
              <button
                type="button"
                aria-pressed={on}
                onClick={() => onActive(q.name)}
                className={`min-h-14 w-full rounded-[3px] border px-2 py-1 text-left leading-tight ${on ? "border-brass border-2 bg-brass-soft" : "border-line bg-well"}`}
              >
                <span className="block text-sm font-semibold">{quantityWords(q.name)}</span>
                <span className={`fig block truncate ${value ? "text-brass" : "text-soft"}`}>
                  {value ? fieldText(value.value, units) : "to read"}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
      <p className="sr-only">
        {stand.size} of {quantities.length} read.
      </p>
      <InstrumentPicker value={instrument} onChange={setPicked} />
    </form>
  );
}
