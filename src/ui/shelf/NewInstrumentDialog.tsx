"use client";

import { type FormEvent, useId, useState } from "react";
import {
  INSTRUMENT_KINDS,
  type Instrument,
  READ_TO,
  reachOf,
  readsSlopes,
  TAPE_CLASSES,
  type TapeClass,
  tapeLimitMm,
} from "@/core/instruments";
import { transport } from "../job/store/transport";
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

/** Marks that a tape is read from, mm. */
const MARKS = [
  ["0", "the end or hook"],
  ["100", "the 100 mm mark"],
  ["25.4", "the 1 in mark"],
] as const;

/** Puts another instrument on the shelf: what is known of it decides how far a verdict can be trusted. */
export function NewInstrumentDialog({ onClose, onMade }: { onClose: () => void; onMade: (i: Instrument) => void }) {
  const [draft, setDraft] = useState(EMPTY);
  const [tapeClass, setTapeClass] = useState<string>("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [unread, setUnread] = useState<Record<string, string>>({});
  const id = useId();
  const slopes = readsSlopes(draft.kind);
  const set = (change: Partial<NewInstrument>) => setDraft({ ...draft, ...change });
  const number = (
    key: "resolutionMm" | "handlingMm" | "zeroMm" | "scaleMmPerM" | "reachMm",
    label: string,
    unit: string,
    min = 0,
    max = 50,
  ) => (
    <NumberField
      label={label}
      unit={unit}
      min={min}
      max={max}
      value={draft[key] ?? reachOf(draft)}
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
          onChange={(kind) => {
            // What another kind reaches says nothing of this one.
            const { reachMm: _old, ...rest } = draft;
            setDraft({ ...rest, kind });
          }}
        />
        <div className="grid gap-4 sm:grid-cols-2">
          {number("resolutionMm", "Smallest step read", slopes ? "mm/m" : "mm", 0.0001)}
          {number("handlingMm", "Handling, ±", slopes ? "mm/m" : "mm")}
          {number("zeroMm", slopes ? "Own error, ±" : "Hook or zero error, ±", slopes ? "mm/m" : "mm")}
          {slopes
            ? null
            : number("scaleMmPerM", draft.kind === "optical level" ? "Rise of the sight, ±" : "Scale error, ±", "mm/m")}
          {Number.isFinite(reachOf(draft)) ? number("reachMm", "Reaches", "mm", 1, 500_000) : null}
        </div>
        {draft.kind === "tape" || draft.kind === "rule" ? (
          <div className="grid gap-4 sm:grid-cols-2">
            <SelectField
              label="Accuracy class on its blade"
              value={tapeClass}
              options={[
                ["", "none, or not known"],
                ...Object.keys(TAPE_CLASSES).map((c) => [c, `class ${c}`] as const),
              ]}
              onChange={(c) => {
                setTapeClass(c);
                if (c === "") return;
                const cls = c as TapeClass;
                // What the class allows at the end, and what it allows more with every metre.
                const end = tapeLimitMm(cls, 0, draft.fromMarkMm === undefined);
                const { b } = TAPE_CLASSES[cls];
                setUnread({});
                set({ zeroMm: end, scaleMmPerM: b, limitsFrom: `class ${c}, from memory` });
              }}
            />
            <SelectField
              label="Read from"
              value={String(draft.fromMarkMm ?? 0) as (typeof MARKS)[number][0]}
              options={MARKS}
              onChange={(mark) => {
                const { fromMarkMm: _old, ...rest } = draft;
                setDraft(mark === "0" ? rest : { ...rest, fromMarkMm: Number(mark) });
              }}
            />
            <SelectField
              label="Read to"
              value={draft.readTo ?? "edge"}
              options={READ_TO.map((r) => [r, r] as const)}
              onChange={(readTo) => set({ readTo })}
            />
          </div>
        ) : null}
        {draft.kind === "spirit level" ? (
          <NumberField
            label="One division of its bubble"
            unit="mm/m"
            min={0.001}
            max={50}
            optional
            value={draft.divisionMmPerM ?? null}
            onChange={(v) => {
              const { divisionMmPerM: _old, ...rest } = draft;
              setDraft(v === null ? rest : { ...rest, divisionMmPerM: v });
            }}
          />
        ) : null}
        {slopes ? (
          <p className="text-sm text-soft">
            0.1° is 1.75 mm/m: a gauge of that step cannot show a fine bed or frame level.
          </p>
        ) : null}
        <FieldFrame id={`${id}-from`} label="Where its limits come from">
          <input
            id={`${id}-from`}
            className={inputClass(false, false, false)}
            value={draft.limitsFrom ?? ""}
            maxLength={120}
            placeholder="class, certificate and date"
            onChange={(e) => set({ limitsFrom: e.target.value })}
          />
        </FieldFrame>
        <FieldFrame id={`${id}-faults`} label="Known faults">
          <input
            id={`${id}-faults`}
            className={inputClass(false, false, false)}
            value={draft.faults ?? ""}
            maxLength={300}
            onChange={(e) => set({ faults: e.target.value })}
          />
        </FieldFrame>
        {wrong ? <FieldMessage severity="error">{wrong}</FieldMessage> : null}
        <Button look="advise" type="submit">
          Put it on the shelf
        </Button>
      </form>
    </Dialog>
  );
}
