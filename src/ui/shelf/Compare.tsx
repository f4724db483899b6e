"use client";

import { useId, useState } from "react";
import {
  correctedMm,
  fullUncertainty,
  type Instrument,
  oddOne,
  readingUncertainty,
  readsSlopes,
} from "@/core/instruments";
import { fixed, readLength } from "@/core/units";
import { inputClass } from "../parts/Field";
import { SelectField } from "../parts/SelectField";
import { Section } from "../parts/Sheet";

interface Line {
  id: string;
  text: string;
}

/** One length read with several instruments: do they agree, and which is the odd one. */
export function Compare({ instruments }: { instruments: readonly Instrument[] }) {
  const fitting = instruments.filter((i) => !readsSlopes(i.kind));
  const [lines, setLines] = useState<Line[]>(fitting.slice(0, 3).map((i) => ({ id: i.id, text: "" })));
  const base = useId();
  const set = (k: number, change: Partial<Line>) => setLines(lines.map((l, i) => (i === k ? { ...l, ...change } : l)));
  const read = lines.map((l) => (l.text.trim() === "" ? null : readLength(l.text, "mm")));
  const readings = lines.flatMap((l, k) => {
    const r = read[k];
    const i = fitting.find((x) => x.id === l.id);
    if (!r?.ok || !i) return [];
    const value = correctedMm(i, r.value.mm, r.value);
    return [{ name: i.name, value, u: fullUncertainty(readingUncertainty(i), value) }];
  });
  const twice = new Set(lines.filter((l) => l.text.trim() !== "").map((l) => l.id)).size < readings.length;
  const compared = readings.length >= 2 && !twice ? oddOne(readings) : null;
  return (
    <Section
      title="Hold them against each other"
      aside={<span className="text-sm text-soft">one length, read with each</span>}
    >
      <ul className="grid gap-3">
        {lines.map((l, k) => {
          const r = read[k];
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: lines are told apart by their place alone
            <li key={k} className="grid items-end gap-3 sm:grid-cols-[minmax(0,1fr)_12rem]">
              <SelectField
                label={`Instrument ${k + 1}`}
                value={l.id}
                options={fitting.map((i) => [i.id, i.name] as const)}
                onChange={(id) => set(k, { id })}
              />
              <div>
                <label htmlFor={`${base}-${k}`} className="mb-1 block text-sm font-semibold">
                  reads <span className="font-normal text-soft">mm</span>
                </label>
                <input
                  id={`${base}-${k}`}
                  className={inputClass(r !== null && r !== undefined && !r.ok)}
                  value={l.text}
                  maxLength={80}
                  autoComplete="off"
                  onChange={(e) => set(k, { text: e.target.value })}
                />
              </div>
              {r && !r.ok ? <p className="text-sm text-fail sm:col-span-2">Not usable: {r.message}</p> : null}
            </li>
          );
        })}
      </ul>
      <div aria-live="polite" className="mt-3">
        {twice ? <p className="text-fail">The same instrument twice: choose another.</p> : null}
        {compared ? (
          <p className={compared.odd !== null || !compared.all.consistent ? "text-close" : ""} data-testid="compared">
            {compared.say} Together they read{" "}
            <span className="fig text-brass">
              {fixed(compared.all.mean, 2)} ± {fixed(2 * compared.all.uInflated, 2)} mm
            </span>
            .
          </p>
        ) : (
          <p className="text-soft">Type what two or more of them read.</p>
        )}
      </div>
    </Section>
  );
}
