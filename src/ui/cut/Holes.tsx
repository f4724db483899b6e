"use client";

import { Plus, Trash2 } from "lucide-react";
import {
  DRILL_FACES,
  DRILL_FOR,
  type Drill,
  drillList,
  type Finish,
  finishesOffered,
  type HoleAdvice,
  holeAdvice,
  inRuns,
  openMembers,
  preparations,
} from "@/core/cut";
import { drillWords, formatLength, length, stated, type UnitPreference } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { LengthField } from "../parts/LengthField";
import { SelectField } from "../parts/SelectField";
import { Caution, Section } from "../parts/Sheet";
import { Tick } from "../parts/Tick";

/** Finishes as one says them. */
export const FINISH_WORDS: Record<Finish, string> = {
  bare: "bare",
  paint: "paint",
  powder: "powder coat",
  "zinc dip": "hot-dip zinc",
};

/** Volumes that want the same holes are said together. */
function together(advice: readonly HoleAdvice[]): { names: string; list: HoleAdvice[] }[] {
  const rows = new Map<string, HoleAdvice[]>();
  for (const a of advice) {
    const key = a.volume.members.length > 1 ? a.volume.members.join() : `${a.count}/${a.diameterMm}/${a.where}`;
    rows.set(key, [...(rows.get(key) ?? []), a]);
  }
  return [...rows.values()].map((list) => ({
    list,
    names:
      list[0]?.volume.members.join() === "AB,BC,CD,DA"
        ? "The four sides"
        : inRuns(list.map((a) => a.volume.members.join(" and "))),
  }));
}

function Places({ advice, units }: { advice: readonly HoleAdvice[]; units: UnitPreference }) {
  return (
    <details className="mt-1">
      <summary className="tap cursor-pointer text-sm underline">Where, piece by piece</summary>
      <ul className="text-sm">
        {advice
          .flatMap((a) => a.places)
          .map((p) => (
            <li key={`${p.member}/${p.fromFirstEndMm}/${p.face}`}>
              {p.member}: <span className="fig">{formatLength(p.fromFirstEndMm, units).text}</span> from its first end,{" "}
              {p.face}
            </li>
          ))}
      </ul>
    </details>
  );
}

/** Holes that every closed tube needs before it is welded shut, or dipped; and what the ends need before they are fitted. */
export function Holes() {
  const { evaluation } = useJob("evaluation");
  const { plan, units, edit } = usePlanField();
  const { structure } = evaluation;
  const finish = plan.finish;
  if (!structure) return null;
  const advice = holeAdvice(structure, finish);
  const total = advice.reduce((s, a) => s + a.count, 0);
  const open = openMembers(structure);
  const ends = preparations(structure, finish, units);
  return (
    <Section title="Holes" aside={<span className="text-sm text-soft">{total} to drill before the last beads</span>}>
      <Choice
        label="Finish"
        value={finish}
        options={finishesOffered(structure, finish).map((f) => [f, FINISH_WORDS[f]] as const)}
        onChange={(f) => edit((p) => ({ ...p, finish: f }))}
      />
      <ul className="mt-3 grid max-w-prose gap-2">
        {together(advice).map(({ names, list }) => (
          <li key={names} className="border-t border-line pt-2">
            <strong>{names}</strong> <span className="text-soft">({list[0]?.volume.why})</span>:{" "}
            <span className="text-plum">
              {list[0]?.count === 1 ? "one hole" : `${list[0]?.count} holes`} of{" "}
              {drillWords(list[0]?.diameterMm ?? 0, units)}
              {list.length > 1 ? " each" : ""}
            </span>
            , {list[0]?.where}.
            <Places advice={list} units={units} />
          </li>
        ))}
      </ul>
      {open.length > 0 ? (
        <p className="mt-2 max-w-prose text-sm">
          Open at an end, so they breathe: {open.join(", ")}. An end cap closes one: count its holes again then.
        </p>
      ) : null}
      <div className="mt-3">
        <Caution>
          {advice[0]?.why ?? "No closed tube: nothing to vent."}
          {finish === "zinc dip" ? " Sizes are from memory of EN ISO 14713-2: settle them with the galvanizer." : ""}
        </Caution>
      </div>
      <DrillList />
      <h3 className="mt-4 font-semibold">Every end, before it is fitted</h3>
      <ul className="mt-1 grid max-w-prose gap-1 text-sm">
        {ends.map((p) => (
          <li key={p.sections.join()}>
            {ends.length > 1 ? `Section${p.sections.length > 1 ? "s" : ""} ${p.sections.join(", ")}: ` : ""}
            {p.steps.join(" ")}
          </li>
        ))}
      </ul>
    </Section>
  );
}

/** Holes that are wanted for bolts, cables and hooks, with the pilot that each takes. */
function DrillList() {
  const { evaluation } = useJob("evaluation");
  const { plan, units, edit, field, forget } = usePlanField();
  const { structure } = evaluation;
  const drills = plan.drill;
  if (!structure) return null;
  const set = (next: Drill[]) => edit((p) => ({ ...p, drill: next }));
  const change = (id: string, what: Partial<Drill>) => set(drills.map((d) => (d.id === id ? { ...d, ...what } : d)));
  const free = Array.from({ length: 99 }, (_, i) => `H${i + 1}`).find((id) => !drills.some((d) => d.id === id));
  const lines = drillList(structure, drills, units);
  return (
    <div className="mt-4 grid gap-3">
      <h3 className="font-semibold">Other holes</h3>
      {drills.map((d, i) => {
        const line = lines.find((l) => l.drill.id === d.id);
        const member = structure.members.some((m) => m.id === d.member) ? d.member : "";
        return (
          <fieldset key={d.id} className="grid gap-2 border-t border-line pt-2">
            <legend className="sr-only">Hole {d.id}</legend>
            <div className="grid grid-cols-2 gap-2 sm:grid-cols-[1fr_1fr_1fr_auto]">
              <SelectField
                label={`${d.id} for`}
                value={d.for}
                options={DRILL_FOR.map((w) => [w, w] as const)}
                onChange={(v) => change(d.id, { for: v })}
              />
              <SelectField
                label={`${d.id} in`}
                value={member}
                options={[
                  ...(member ? [] : [["", "choose"] as const]),
                  ...structure.members.map((m) => [m.id, m.id] as const),
                ]}
                onChange={(v) => change(d.id, { member: v })}
              />
              <SelectField
                label={`${d.id} on its`}
                value={d.face}
                options={DRILL_FACES.map((w) => [w, w] as const)}
                onChange={(v) => change(d.id, { face: v })}
              />
              <Button
                look="quiet"
                className="mt-6.5"
                aria-label={`Take hole ${d.id} out`}
                onClick={() => {
                  forget(`drill.${d.id}.`);
                  set(drills.filter((x) => x.id !== d.id));
                }}
              >
                <Trash2 size={18} aria-hidden="true" />
              </Button>
            </div>
            <div className="grid grid-cols-2 gap-2">
              <LengthField
                label={`${d.id}, from the first end`}
                units={units}
                value={d.at}
                {...field(`drill.${i}.at`, `drill.${d.id}.at`)}
                onChange={(v) => v && change(d.id, { at: v })}
              />
              <LengthField
                label={`${d.id}, diameter`}
                units={units}
                value={d.diameter}
                {...field(`drill.${i}.diameter`, `drill.${d.id}.diameter`)}
                onChange={(v) => v && change(d.id, { diameter: v })}
              />
            </div>
            <Tick checked={d.through} onChange={(through) => change(d.id, { through })}>
              {d.id} goes through both walls
            </Tick>
            <p className="text-sm">
              {line?.pilotMm ? (
                <>
                  Pilot first, <span className="fig text-plum">{drillWords(line.pilotMm, units)}</span>: a little larger
                  than the drill's web.{" "}
                </>
              ) : null}
              {line?.notes.join(" ")}
            </p>
          </fieldset>
        );
      })}
      <Button
        className="justify-self-start"
        disabled={!free}
        onClick={() => {
          const m = structure.members[0];
          if (free && m)
            set([
              ...drills,
              {
                id: free,
                member: m.id,
                for: "mounting",
                at: stated(units === "mm" ? Math.round(m.centreMm / 2) : 25.4 * Math.round(m.centreMm / 50.8), units),
                face: "top",
                diameter: units === "mm" ? length("9") : length("3/8", "in"),
                through: true,
              },
            ]);
        }}
      >
        <Plus size={18} aria-hidden="true" /> A hole
      </Button>
    </div>
  );
}
