"use client";

import { useId } from "react";
import {
  aimOf,
  angleLimit,
  boundWords,
  FLAT_CLASSES,
  flatLimitMm,
  LINEAR_CLASSES,
  type Limit,
  type Limits,
  linearLimitMm,
} from "@/core/check";
import { CARRIES, type Carries, overallSizeMm, type Plan } from "@/core/job";
import { length, type UnitPreference, unitOf } from "@/core/units";
import { FrameDrawing, useScene } from "../drawing";
import { Choice } from "../parts/Choice";
import { FieldFrame, FieldMessage, inputClass } from "../parts/Field";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";
import { Now, Section } from "../parts/Sheet";
import { CarriesCaution } from "./CarriesCaution";
import { useJob } from "./JobProvider";
import { usePlanField } from "./usePlanField";

const CARRIES_WORDS: Record<Carries, string> = {
  furniture: "Furniture, shelves",
  machine: "A machine",
  vehicle: "Part of a vehicle or trailer",
  lifting: "Lifting gear",
  people: "People (deck, stair, gate)",
};

type OwnLimits = Extract<Limits, { kind: "own" }>;
type ClassLimits = Extract<Limits, { kind: "class" }>;

/** The numbers of a class as limits of one's own, to go on from. */
function ownFromClass(limits: ClassLimits, [lengthMm, widthMm]: [number, number]): OwnLimits {
  const stated = (mm: number) => length(String(mm));
  const { confirmed } = limits;
  const range = (mm: number, looked: number | undefined) => {
    const limit = looked ?? linearLimitMm(limits.linear, mm);
    return { lower: stated(-limit), upper: stated(limit) };
  };
  return {
    kind: "own",
    length: range(lengthMm, confirmed.lengthMm),
    width: range(widthMm, confirmed.widthMm),
    square: {
      as: "mm/m",
      limit: confirmed.angleMmPerM ?? angleLimit(limits.linear, Math.min(lengthMm, widthMm)).mmPerM,
    },
    flat: stated(confirmed.flatMm ?? flatLimitMm(limits.flat, Math.max(lengthMm, widthMm))),
    levelMmPerM: limits.levelMmPerM,
    gap: null,
    flush: null,
  };
}

function OwnLimitFields({ limits, set }: { limits: OwnLimits; set: (limits: OwnLimits) => void }) {
  const { units, field } = usePlanField();
  const range = (key: "length" | "width", label: string) => (
    <>
      <LengthField
        label={`${label}, lower`}
        hint="from nominal"
        units={units}
        optional
        value={limits[key].lower}
        {...field(`limits.${key}.lower`)}
        onChange={(lower) => set({ ...limits, [key]: { ...limits[key], lower } })}
      />
      <LengthField
        label={`${label}, upper`}
        hint="from nominal"
        units={units}
        optional
        value={limits[key].upper}
        {...field(`limits.${key}.upper`)}
        onChange={(upper) => set({ ...limits, [key]: { ...limits[key], upper } })}
      />
    </>
  );
  const { square } = limits;
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      {range("length", "AB and CD")}
      {range("width", "BC and DA")}
      {aimOf({ ...limits, aim: "middle" }).lengthMm !== 0 || aimOf({ ...limits, aim: "middle" }).widthMm !== 0 ? (
        <div className="sm:col-span-2">
          <Choice
            label="Cut and set up for"
            value={limits.aim ?? "middle"}
            options={[
              ["middle", "the middle of the limits (advised)"],
              ["drawing", "the drawing's size"],
            ]}
            onChange={(aim) => set({ ...limits, aim })}
          />
        </div>
      ) : null}
      <SelectField
        label="Squareness stated as"
        value={square?.as ?? "none"}
        options={[
          ["diagonal", "difference of the diagonals"],
          ["mm/m", `worst corner, ${unitOf("slope", units)}`],
          ["none", "no limit"],
        ]}
        onChange={(as) =>
          set({
            ...limits,
            square:
              as === "none"
                ? null
                : as === "diagonal"
                  ? { as, limit: units === "mm" ? length("3") : length("1/8", "in") }
                  : { as, limit: 2 },
          })
        }
      />
      {square?.as === "diagonal" ? (
        <LengthField
          label="Diagonals apart, at most"
          units={units}
          value={square.limit}
          {...field("limits.square.limit")}
          onChange={(limit) => limit && set({ ...limits, square: { as: "diagonal", limit } })}
        />
      ) : square ? (
        <NumberField
          label="Corner from square, at most"
          unit=""
          kind={{ is: "slope", units }}
          min={0.05}
          max={100}
          value={square.limit}
          {...field("limits.square.limit")}
          onChange={(limit) => limit !== null && set({ ...limits, square: { as: "mm/m", limit } })}
        />
      ) : (
        <div />
      )}
      <LengthField
        label="Out of flat, at most"
        units={units}
        optional
        value={limits.flat}
        {...field("limits.flat")}
        onChange={(flat) => set({ ...limits, flat })}
      />
      <LengthField
        label="Bow of a member, at most"
        units={units}
        optional
        value={limits.straight ?? null}
        {...field("limits.straight")}
        onChange={(straight) => set({ ...limits, straight })}
      />
      <LengthField
        label="Gap at a joint, at most"
        units={units}
        optional
        value={limits.gap}
        {...field("limits.gap")}
        onChange={(gap) => set({ ...limits, gap })}
      />
      <LengthField
        label="Step where faces are flush, at most"
        units={units}
        optional
        value={limits.flush}
        {...field("limits.flush")}
        onChange={(flush) => set({ ...limits, flush })}
      />
    </div>
  );
}

/** Two things are called flatness: which one the limit means is the job's choice. */
function FlatByField({ limits, set }: { limits: Limits; set: (limits: Limits) => void }) {
  return (
    <div className="sm:col-span-2">
      <Choice
        label="Out of flat is"
        value={limits.flatBy ?? "slab"}
        options={[
          ["slab", "the thinnest slab that holds it (advised)"],
          ["held", "the gap with one corner held down: twice as much on four corners"],
        ]}
        onChange={(flatBy) => set({ ...limits, flatBy })}
      />
    </div>
  );
}

function LimitFields() {
  const { plan, units, edit, field, forget } = usePlanField();
  const { limits } = plan;
  const set = (next: Limits) => edit((p: Plan) => ({ ...p, limits: next }));
  return (
    <div className="grid gap-4">
      <Choice
        label="Limits come from"
        value={limits.kind}
        options={[
          ["own", "the drawing"],
          ["class", "an ISO 13920 class"],
        ]}
        onChange={(kind) => {
          forget("limits.");
          if (kind === "class") set({ kind, linear: "B", flat: "F", levelMmPerM: limits.levelMmPerM, confirmed: {} });
          else if (limits.kind === "class") set(ownFromClass(limits, overallSizeMm(plan)));
        }}
      />
      <FlatByField limits={limits} set={set} />
      {limits.kind === "own" ? (
        <OwnLimitFields limits={limits} set={set} />
      ) : (
        <div className="grid gap-4 sm:grid-cols-2">
          <SelectField
            label="Sizes and angles"
            hint="A finest"
            value={limits.linear}
            options={LINEAR_CLASSES.map((c) => [c, `Class ${c}`] as const)}
            onChange={(linear) => {
              forget("limits.confirmed.");
              set({ ...limits, confirmed: {}, linear });
            }}
          />
          <SelectField
            label="Flatness"
            hint="E finest"
            value={limits.flat}
            options={FLAT_CLASSES.map((c) => [c, `Class ${c}`] as const)}
            onChange={(flat) => {
              forget("limits.confirmed.");
              set({ ...limits, confirmed: {}, flat });
            }}
          />
          <p className="text-sm text-soft sm:col-span-2">
            The class tables are written from memory: look the figures up in the standard and type what it says, or type
            the limits of the drawing.
          </p>
          {(
            [
              ["lengthMm", "Length, ±", "length"],
              ["widthMm", "Width, ±", "length"],
              ["angleMmPerM", "Angle, ±", "slope"],
              ["flatMm", "Flatness", "length"],
            ] as const
          ).map(([key, label, is]) => (
            <NumberField
              key={key}
              label={label}
              unit="from the standard; empty: from memory"
              kind={{ is, units }}
              optional
              min={0.01}
              max={100}
              value={limits.confirmed[key] ?? null}
              {...field(`limits.confirmed.${key}`)}
              onChange={(v) => {
                const { [key]: _old, ...others } = limits.confirmed;
                set({ ...limits, confirmed: v === null ? others : { ...others, [key]: v } });
              }}
            />
          ))}
        </div>
      )}
      <NumberField
        label="Level along and across, at most"
        unit="empty: nobody minds"
        kind={{ is: "slope", units }}
        optional
        min={0.05}
        max={100}
        value={limits.levelMmPerM}
        {...field("limits.levelMmPerM")}
        onChange={(levelMmPerM) => set({ ...limits, levelMmPerM })}
        className="sm:max-w-80"
      />
    </div>
  );
}

/** Limits in numbers, the same on every stage. */
function LimitTable() {
  const { evaluation, units } = useJob("evaluation", "units");
  if (evaluation.limits.length === 0) return <p className="text-soft">No limits: nothing will be judged.</p>;
  const value = (limit: Limit, x: number | null) => (x === null ? "open" : boundWords(limit, x, units, true));
  return (
    <table className="w-full text-left">
      <thead className="text-sm text-soft">
        <tr>
          <th className="py-1 font-normal">Limit</th>
          <th className="py-1 text-right font-normal">from</th>
          <th className="py-1 text-right font-normal">to</th>
          <th className="py-1 pl-2 font-normal">unit</th>
        </tr>
      </thead>
      <tbody>
        {evaluation.limits.map((l) => (
          <tr key={l.id} className="border-t border-line">
            <td className="py-1.5">{l.label}</td>
            <td className="fig py-1.5 text-right">{l.nonnegative ? "0" : value(l, l.lower)}</td>
            <td className="fig py-1.5 text-right">{value(l, l.upper)}</td>
            <td className="py-1.5 pl-2 text-sm text-soft">
              {l.unit === "mm/m" ? unitOf("slope", units) : units === "mm" ? "mm" : "in"}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const UNIT_WORDS: readonly (readonly [UnitPreference, string])[] = [
  ["mm", "mm"],
  ["inch-fraction", "inch, fractions"],
  ["inch-decimal", "inch, decimal"],
];

/** First stage: what the job is and what it must keep to. */
export function JobStage() {
  const { job, evaluation, texts, store } = useJob("job", "evaluation", "texts", "store");
  const { plan, edit } = usePlanField();
  const id = useId();
  const scene = useScene(evaluation.structure);
  const name = texts.name ?? plan.name;
  return (
    <>
      <h1 className="sr-only">Job</h1>
      <Now
        say="Say what it must keep to."
        why="Limits decide everything later: whether the bed will do, how far to nudge, and the verdict on the cold frame."
      />
      <CarriesCaution />
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,24rem)]">
        <div className="grid content-start gap-6">
          <Section title="What it is">
            <div className="grid gap-4">
              <FieldFrame id={`${id}-name`} label="Name">
                <input
                  id={`${id}-name`}
                  className={inputClass(name.trim() === "", false, false)}
                  value={name}
                  maxLength={120}
                  aria-invalid={name.trim() === ""}
                  aria-describedby={name.trim() === "" ? `${id}-name-error` : undefined}
                  onBlur={() => name.trim() !== "" && store.keepText("name", null)}
                  onChange={(e) => {
                    const typed = e.target.value;
                    store.keepText("name", typed.trim() === "" || typed !== typed.trim() ? typed : null);
                    if (typed.trim() !== "") edit((p) => ({ ...p, name: typed.trim() }));
                  }}
                />
                {name.trim() === "" ? (
                  <FieldMessage id={`${id}-name-error`} severity="error">
                    Give the job a name. Until then it keeps the name it had.
                  </FieldMessage>
                ) : null}
              </FieldFrame>
              <FieldFrame id={`${id}-purpose`} label="Purpose and notes">
                <textarea
                  id={`${id}-purpose`}
                  className="min-h-24 w-full rounded-[3px] border border-edge bg-well p-3"
                  value={plan.purpose}
                  maxLength={2000}
                  onChange={(e) => edit((p) => ({ ...p, purpose: e.target.value }))}
                />
              </FieldFrame>
              <SelectField
                label="It carries"
                value={plan.carries}
                options={CARRIES.map((c) => [c, CARRIES_WORDS[c]] as const)}
                onChange={(carries) => edit((p) => ({ ...p, carries }))}
              />
              <Choice
                label="Lengths are shown in"
                value={plan.units}
                options={UNIT_WORDS}
                onChange={(units) => edit((p) => ({ ...p, units }))}
              />
            </div>
          </Section>
          <Section title="Limits">
            <LimitFields />
          </Section>
        </div>
        <div className="grid content-start gap-6">
          {scene ? (
            <FrameDrawing scene={scene} units={plan.units} label={`Frame of ${job.plan.name}`} maxHeight={320} />
          ) : null}
          <Section title="In numbers">
            <LimitTable />
          </Section>
        </div>
      </div>
    </>
  );
}
