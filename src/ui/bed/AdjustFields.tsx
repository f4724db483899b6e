"use client";

import { useState } from "react";
import type { Plan } from "@/core/job";
import { bareUnit, type Length, readLength, typedText } from "@/core/units";
import { usePlanField } from "../job/usePlanField";
import { Choice } from "../parts/Choice";
import { FieldFrame, FieldMessage, inputClass } from "../parts/Field";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";

const LEAVES_PATH = "bed.leaves.text";

/** Shims at hand, typed as a list. */
function Leaves() {
  const { plan, units, edit, field } = usePlanField();
  const { kept: unread, onUnread } = field(LEAVES_PATH);
  const leaves = plan.bed.leaves;
  const [typed, setTyped] = useState<string | null>(null);
  const kept = typed ?? unread;
  const shown = kept ?? leaves.map((l) => typedText(l, units)).join(", ");
  const read = shown
    .split(/[;,\s]\s*(?=[\d.])/)
    .map((t) => t.trim())
    .filter((t) => t !== "")
    .map((t) => ({ t, read: readLength(t, bareUnit(units)) }));
  const bad = read.find((r) => !r.read.ok);
  return (
    <FieldFrame id="bed-leaves" label="Shims at hand" hint="each once; empty: a common set">
      <input
        id="bed-leaves"
        className={inputClass(bad !== undefined)}
        value={shown}
        maxLength={400}
        autoComplete="off"
        placeholder="0.1, 0.2, 0.5, 1, 2"
        aria-invalid={bad !== undefined}
        aria-describedby="bed-leaves-said"
        onChange={(e) => {
          const text = e.target.value;
          setTyped(text);
          const parts = text
            .split(/[;,\s]\s*(?=[\d.])/)
            .map((t) => t.trim())
            .filter((t) => t !== "")
            .map((t) => readLength(t, bareUnit(units)));
          const fine = parts.flatMap((p): Length[] => (p.ok ? [p.value] : []));
          onUnread(fine.length === parts.length ? null : text);
          if (fine.length === parts.length) edit((p) => ({ ...p, bed: { ...p.bed, leaves: fine } }));
        }}
        onBlur={() => {
          if (!bad) setTyped(null);
        }}
      />
      <div id="bed-leaves-said" aria-live="polite">
        {bad && !bad.read.ok ? (
          <FieldMessage severity="error">
            {bad.t}: {bad.read.message}
          </FieldMessage>
        ) : null}
      </div>
    </FieldFrame>
  );
}

/** How the bed is brought right: surface or three points, shims or feet, into which plane. */
export function AdjustFields() {
  const { plan, units, edit, field } = usePlanField();
  const { bed } = plan;
  const set = (change: Partial<Plan["bed"]>) => edit((p) => ({ ...p, bed: { ...p.bed, ...change } }));
  return (
    <div className="grid gap-4">
      <Choice
        label="Flat by"
        value={bed.school}
        options={[
          ["surface", "a surface under it all"],
          ["three", "three points"],
        ]}
        onChange={(school) => set({ school })}
      />
      <p className="max-w-prose text-sm text-soft">
        {bed.school === "three"
          ? "Three rests never rock, whatever the floor. Advised for a stiff frame that is tacked and turned; clamp nothing down between them, or it takes the clamp's shape."
          : "A surface can be clamped against while it is tacked. Advised for long, limp frames and for many cross members; it must be flat, or the frame springs to the bed's shape."}
      </p>
      <NumberField
        label="Level along and across, at most"
        unit="empty: nobody minds"
        kind={{ is: "slope", units }}
        optional
        min={0.05}
        max={100}
        value={plan.limits.levelMmPerM}
        {...field("limits.levelMmPerM")}
        onChange={(levelMmPerM) => edit((p) => ({ ...p, limits: { ...p.limits, levelMmPerM } }))}
      />
      <Choice
        label="Rests are set by"
        value={bed.adjust}
        options={[
          ["shims", "shims"],
          ["feet", "screw feet"],
        ]}
        onChange={(adjust) => set({ adjust })}
      />
      <SelectField
        label="Bring them into"
        value={bed.mode}
        options={[
          ["level", "level with the highest rest"],
          ["best_fit", "the bed's own slope: flat, not level"],
          ["least_total", "the plane with the least shimming"],
        ]}
        onChange={(mode) => set({ mode })}
      />
      {bed.adjust === "feet" ? (
        <div className="grid gap-4 sm:grid-cols-2">
          <LengthField
            label="Thread pitch"
            units={units}
            value={bed.pitch}
            {...field("bed.pitch")}
            onChange={(pitch) => pitch && set({ pitch })}
          />
          <SelectField
            label="Thread"
            value={bed.thread}
            options={[
              ["right", "right-hand"],
              ["left", "left-hand"],
            ]}
            onChange={(thread) => set({ thread })}
          />
          <fieldset className="sm:col-span-2">
            <legend className="mb-1 text-sm font-semibold">
              Rests on a foot <span className="font-normal text-soft">the others stay as they stand</span>
            </legend>
            <div className="flex flex-wrap gap-1">
              {bed.rests.map(({ id }) => {
                const on = !bed.feet || bed.feet.includes(id);
                const feet = bed.feet ?? bed.rests.map((r) => r.id);
                return (
                  <button
                    key={id}
                    type="button"
                    aria-pressed={on}
                    className={`tap fig min-w-12 rounded-[3px] border px-2 ${on ? "border-ink bg-ink text-sheet" : "border-edge bg-well"}`}
                    onClick={() => set({ feet: on ? feet.filter((f) => f !== id) : [...feet, id] })}
                  >
                    {id}
                  </button>
                );
              })}
            </div>
          </fieldset>
        </div>
      ) : (
        <Leaves />
      )}
    </div>
  );
}
