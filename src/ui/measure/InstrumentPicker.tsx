"use client";

import { type FormEvent, useId, useState } from "react";
import { INSTRUMENT_KINDS, type Instrument, readingUncertainty } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { transport } from "../job/transport";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { FieldFrame, FieldMessage, inputClass } from "../parts/Field";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";

type NewInstrument = Omit<Instrument, "id">;

const EMPTY: NewInstrument = {
  name: "",
  kind: "tape",
  resolutionMm: 1,
  handlingMm: 0.3,
  zeroMm: 0.3,
  scaleMmPerM: 0.2,
};

function NewInstrumentDialog({ onClose, onMade }: { onClose: () => void; onMade: (i: Instrument) => void }) {
  const [draft, setDraft] = useState(EMPTY);
  const [wrong, setWrong] = useState<string | null>(null);
  const [unread, setUnread] = useState<Record<string, string>>({});
  const id = useId();
  const set = (change: Partial<NewInstrument>) => setDraft({ ...draft, ...change });
  const number = (
    key: "resolutionMm" | "handlingMm" | "zeroMm" | "scaleMmPerM",
    label: string,
    unit: string,
    min = 0,
  ) => (
    <NumberField
      label={label}
      unit={unit}
      min={min}
      max={50}
      value={draft[key]}
      kept={unread[key]}
      onUnread={(text) => setUnread(({ [key]: _old, ...rest }) => (text === null ? rest : { ...rest, [key]: text }))}
      onChange={(v) => v !== null && set({ [key]: v })}
    />
  );
  const save = async (e: FormEvent) => {
    e.preventDefault();
    if (Object.keys(unread).length > 0) return setWrong("One of the numbers cannot be read: see above.");
    try {
      const { status, body } = await transport("POST", "/api/instruments", draft);
      if (status === 200) onMade(body as Instrument);
      else setWrong((body as { message?: string } | null)?.message ?? "The server did not take it.");
    } catch {
      setWrong("The server cannot be reached just now. Try again in a moment.");
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Another instrument"
      description="What is known of it decides how far a verdict can be trusted. It is kept as it is: after a calibration add it anew."
    >
      <form className="grid gap-4" onSubmit={(e) => void save(e)}>
        <FieldFrame id={id} label="Name">
          <input
            id={id}
            className={inputClass(false, false, false)}
            value={draft.name}
            maxLength={80}
            onChange={(e) => set({ name: e.target.value })}
          />
        </FieldFrame>
        <SelectField
          label="Kind"
          value={draft.kind}
          options={INSTRUMENT_KINDS.map((k) => [k, k] as const)}
          onChange={(kind) => set({ kind })}
        />
        <div className="grid gap-4 sm:grid-cols-2">
          {number("resolutionMm", "Smallest step read", "mm", 0.0001)}
          {number("handlingMm", "Handling, ±", "mm")}
          {number("zeroMm", "Hook or zero error, ±", "mm")}
          {number("scaleMmPerM", "Scale error, ±", "mm/m")}
        </div>
        {wrong ? <FieldMessage severity="error">{wrong}</FieldMessage> : null}
        <Button look="advise" type="submit">
          Put it on the shelf
        </Button>
      </form>
    </Dialog>
  );
}

/** Choice of the instrument in hand, with what one reading of it is uncertain by. */
export function InstrumentPicker({ value, onChange }: { value: string; onChange: (id: string) => void }) {
  const { job, store } = useJob();
  const [making, setMaking] = useState(false);
  const chosen = job.instruments.find((i) => i.id === value);
  const u = chosen ? readingUncertainty(chosen) : null;
  return (
    <div>
      <SelectField
        label="Instrument in hand"
        value={value}
        options={job.instruments.map((i) => [i.id, i.name] as const)}
        onChange={onChange}
      />
      <p className="mt-1 flex flex-wrap items-center justify-between gap-x-3 text-sm text-soft">
        <span>
          {u
            ? `One reading: ± ${(2 * u.uMm).toFixed(2)} mm (95 %)${u.uZeroMm > 0 ? `, hook or zero ± ${(2 * u.uZeroMm).toFixed(2)} mm shared` : ""}`
            : ""}
        </span>
        <button type="button" className="tap underline md:min-h-7" onClick={() => setMaking(true)}>
          Another instrument
        </button>
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
