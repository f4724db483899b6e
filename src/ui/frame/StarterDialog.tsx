"use client";

import { useState } from "react";
import {
  type DrawnFrame,
  type DrawnSection,
  STARTERS,
  type Starter,
  type StarterField,
  type StarterValues,
  starterProblems,
  usualValues,
} from "@/core/frame";
import { type Length, stated, type UnitPreference } from "@/core/units";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { FieldMessage } from "../parts/Field";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";

interface Props {
  units: UnitPreference;
  section: DrawnSection;
  /** Sizes of the frame that stand already, mm: what the shapes begin with. */
  typed?: Readonly<Record<string, number>>;
  onStart: (frame: DrawnFrame) => void;
  onClose: () => void;
}

/** Fields that a choice makes idle: the other ways to give a rise. */
const IDLE: Record<string, Record<string, readonly string[]>> = {
  how: {
    "rise over the run": ["angle", "heightStart", "heightEnd"],
    angle: ["rise", "heightStart", "heightEnd"],
    "two heights from a string": ["rise", "angle"],
  },
};

const idle = (starter: Starter, values: StarterValues, key: string): boolean =>
  starter.fields.some((f) => IDLE[f.key]?.[String(values[f.key])]?.includes(key));

function Field({
  field,
  value,
  units,
  onChange,
}: {
  field: StarterField;
  value: number | string;
  units: UnitPreference;
  onChange: (value: number | string) => void;
}) {
  // What cannot be read is kept in its field; beside it stands what was read last.
  const [last, setLast] = useState<Length | null>(() =>
    field.kind !== "length" || Number.isNaN(Number(value)) ? null : stated(Number(value), units),
  );
  switch (field.kind) {
    case "length":
      return (
        <LengthField
          label={field.label}
          units={units}
          value={last}
          onChange={(v) => {
            setLast(v);
            onChange(v ? v.mm : Number.NaN);
          }}
          onUnread={(t) => {
            if (t !== null) onChange(Number.NaN);
          }}
        />
      );
    case "count":
    case "angle":
      return (
        <NumberField
          label={field.label}
          unit={field.kind === "angle" ? "°" : "pieces"}
          min={field.from}
          max={field.to}
          value={Number.isNaN(Number(value)) ? null : Number(value)}
          onChange={(v) => onChange(v ?? Number.NaN)}
          onUnread={(t) => {
            if (t !== null) onChange(Number.NaN);
          }}
        />
      );
    default:
      return (
        <SelectField
          label={field.label}
          value={String(value)}
          options={field.words.map((w) => [w, w] as const)}
          onChange={onChange}
        />
      );
  }
}

/** Starts a frame from a shape that many people build, with a handful of sizes. */
export function StarterDialog({ units, section, typed, onStart, onClose }: Props) {
  const [starter, setStarter] = useState<Starter>(STARTERS[0] as Starter);
  const [all, setAll] = useState<Record<string, StarterValues>>({});
  const values = all[starter.name] ?? usualValues(starter, units, typed, section);
  const wrong = starterProblems(starter, values, units).filter((p) => !idle(starter, values, p.key));
  const built = wrong.length === 0 ? starter.build(values, section, units) : null;
  const message = wrong[0]?.message ?? (built && !built.ok ? built.message : null);
  return (
    <Dialog
      open
      onClose={onClose}
      title="Start from a shape"
      description="Sizes can be changed afterwards, member by member. What is drawn now is replaced; undo brings it back."
    >
      <form
        className="grid gap-4"
        onSubmit={(e) => {
          e.preventDefault();
          if (built?.ok) onStart(built.value);
        }}
      >
        <SelectField
          label="Shape"
          value={starter.name}
          options={STARTERS.map((s) => [s.name, s.name] as const)}
          onChange={(name) => setStarter(STARTERS.find((s) => s.name === name) as Starter)}
        />
        <p className="text-soft">{starter.says}</p>
        <div className="grid gap-x-4 gap-y-2 sm:grid-cols-2">
          {starter.fields
            .filter((f) => !idle(starter, values, f.key))
            .map((f) => (
              <Field
                key={`${starter.name}/${f.key}`}
                field={f}
                value={values[f.key] ?? ""}
                units={units}
                onChange={(v) => setAll({ ...all, [starter.name]: { ...values, [f.key]: v } })}
              />
            ))}
        </div>
        {message ? <FieldMessage severity="error">{message}</FieldMessage> : null}
        <div className="flex gap-2">
          <Button look="advise" type="submit" disabled={!built?.ok}>
            Start with this: {starter.name}
          </Button>
          <Button onClick={onClose}>Keep what is drawn</Button>
        </div>
      </form>
    </Dialog>
  );
}
