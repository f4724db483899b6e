"use client";

import dynamic from "next/dynamic";
import Link from "next/link";
import { useState } from "react";
import { type Instrument, type InstrumentKind, markedFirst, readingUncertainty, readsSlopes } from "@/core/instruments";
import { farLength, formatSmall, physical } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { SelectField } from "../parts/SelectField";

const NewInstrumentDialog = dynamic(() => import("../shelf/NewInstrumentDialog").then((m) => m.NewInstrumentDialog), {
  ssr: false,
});

/** What lies on the shelf: cards that a later one replaced, and what was put away, are not there any more. */
export function shelfOf(all: readonly Instrument[], kinds?: readonly InstrumentKind[]): Instrument[] {
  const gone = new Set(all.flatMap((i) => (i.replaces ? [i.replaces] : [])));
  const here = all.filter((i) => !gone.has(i.id) && !i.away);
  const fitting = kinds ? here.filter((i) => kinds.includes(i.kind)) : here;
  return fitting.length > 0 ? fitting : here;
}

/** What a scale may be off by over a length is told from so much on, mm. */
const SCALE_TOLD_MM = 0.05;

/** Choice of the instrument in hand, with what one reading of it is uncertain by. */
export function InstrumentPicker({
  value,
  kinds,
  overMm,
  onChange,
}: {
  value: string;
  kinds?: readonly InstrumentKind[] | undefined;
  /** About what is read next, mm: over a long side a tape's scale counts for more than its lines. */
  overMm?: number | null | undefined;
  onChange: (id: string) => void;
}) {
  const { job, store, units } = useJob("job", "store", "units");
  const [making, setMaking] = useState(false);
  const shelf = markedFirst(shelfOf(job.instruments, kinds), units);
  const chosen = job.instruments.find((i) => i.id === value);
  const u = chosen ? readingUncertainty(chosen) : null;
  const slopes = chosen !== undefined && readsSlopes(chosen.kind);
  const say = (mm: number): string => (slopes ? physical("slope", mm, units) : formatSmall(mm, units, { decimals: 2 }));
  const off = chosen?.foundZeroMm ?? 0;
  const scaleMm = u && overMm && !slopes ? 2 * u.uScale * Math.abs(overMm) : 0;
  const shared = [
    ...(u && u.uZeroMm > 0 ? [`hook or zero ± ${say(2 * u.uZeroMm)}`] : []),
    ...(scaleMm >= SCALE_TOLD_MM ? [`scale ± ${say(scaleMm)} over ${farLength(overMm ?? 0, units)}`] : []),
  ];
  return (
    <div>
      <SelectField
        label="Instrument in hand"
        value={value}
        options={shelf.map((i) => [i.id, i.name] as const)}
        onChange={onChange}
      />
      <p className="mt-1 flex flex-wrap items-center justify-between gap-x-3 text-sm text-soft">
        <span>
          {u
            ? `One reading: ± ${say(2 * u.uMm)} (95 %)${shared.length > 0 ? `, ${shared.join(" and ")} shared` : ""}${off !== 0 ? `; ${say(off)} is taken off` : ""}`
            : ""}
        </span>
        <span className="flex gap-3">
          <button type="button" className="tap underline md:min-h-7" onClick={() => setMaking(true)}>
            Another instrument
          </button>
          <Link href="/shelf" prefetch={false} className="inline-flex tap items-center md:min-h-7">
            Shelf and tests
          </Link>
        </span>
      </p>
      {making ? (
        <NewInstrumentDialog
          onClose={() => setMaking(false)}
          onMade={(i) => {
            store.putOnShelf(i);
            onChange(i.id);
            setMaking(false);
          }}
        />
      ) : null}
    </div>
  );
}
