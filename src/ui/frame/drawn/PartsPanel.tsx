"use client";

import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import {
  addPart,
  capOpenEnds,
  copyPart,
  type DrawnFrame,
  type DrawnPart,
  fitPart,
  openEnds,
  PART_KINDS,
  type PartTarget,
  place,
  type Structure,
  thicknessOf,
} from "@/core/frame";
import { length, type Problem, stated, type UnitPreference } from "@/core/units";
import { Button } from "../../parts/Button";
import { FieldMessage } from "../../parts/Field";
import { Fold } from "../../parts/Fold";
import { LengthField } from "../../parts/LengthField";
import { SelectField } from "../../parts/SelectField";
import type { PointedEnd } from "./AddMember";
import { PointFields } from "./PointFields";

const WORDS = { from: "start", middle: "middle", to: "end" } as const;

/** What a part can be put on, by one word: an end, a middle, or the inside of a joint. */
function targetsOf(structure: Structure, picked: readonly string[]): (readonly [string, string])[] {
  const members = structure.members.filter((m) => picked.length === 0 || picked.includes(m.id));
  const joints = structure.joints.filter((j) => picked.length === 0 || picked.includes(j.a) || picked.includes(j.b));
  return [
    ...members.flatMap((m) =>
      (["from", "to", "middle"] as const).map(
        (end) =>
          [
            `${m.id} ${end}`,
            `${m.id}, its ${WORDS[end]}${end !== "middle" && m.ends[end].hollow === "open" ? " (open)" : ""}`,
          ] as const,
      ),
    ),
    ...joints.map((j) => [`joint ${j.id}`, `in the corner at ${j.id}`] as const),
  ];
}

const targetOf = (word: string): PartTarget => {
  const [first = "", ...rest] = word.split(" ");
  return first === "joint"
    ? { joint: rest.join(" ") }
    : { member: first, end: (rest[0] ?? "middle") as "from" | "to" | "middle" };
};

/** Plates, tabs, gussets, feet, caps and brackets with their holes. */
export function PartsPanel({
  frame,
  structure,
  units,
  problems,
  picked,
  pointed,
  onEdit,
}: {
  frame: DrawnFrame;
  structure: Structure;
  units: UnitPreference;
  problems: readonly Problem[];
  /** Members that are picked: what is put on is put on them. */
  picked: readonly string[];
  /** The end that was pressed in the drawing last. */
  pointed: PointedEnd | null;
  onEdit: (frame: DrawnFrame) => void;
}) {
  const set = (id: string, what: Partial<DrawnPart>) =>
    onEdit({ ...frame, parts: frame.parts.map((p) => (p.id === id ? { ...p, ...what } : p)) });
  const [fresh, setFresh] = useState<string | null>(null);
  /** Puts a part on and shows it. */
  const put = (next: DrawnFrame | null) => {
    if (!next) return;
    setFresh(next.parts.at(-1)?.id ?? null);
    onEdit(next);
  };
  const [said, setSaid] = useState<string | null>(null);
  const targets = targetsOf(structure, picked);
  const wanted = said ?? (pointed ? `${pointed.member} ${pointed.end}` : "");
  const target = targets.some(([w]) => w === wanted) ? wanted : (targets[0]?.[0] ?? "");
  const open = openEnds(structure);
  const refit = (p: DrawnPart) => {
    const fitted = fitPart(p.kind, structure, targetOf(target), units);
    if (fitted) set(p.id, fitted);
  };
  const members = [["", "no member"] as const, ...frame.members.map((m) => [m.id, m.id] as const)];
  /** Two holes on the middle line, a quarter in from each end. */
  const twoHoles = (p: DrawnPart) => {
    const size = place(p.size);
    const long = Math.max(...size.filter((_, i) => i !== thicknessOf(size)));
    return [-1, 1].map((s) => ({
      x: stated((s * long) / 4, units),
      y: stated(0, units),
      diameter: units === "mm" ? length("9") : length("3/8", "in"),
    }));
  };
  return (
    <div className="grid gap-4">
      {frame.parts.length === 0 ? (
        <p className="text-soft">None yet: plates, tabs, gussets, feet, caps, brackets.</p>
      ) : null}
      {frame.parts.map((p) => (
        <Fold key={p.id} title={`${p.id}, ${p.kind}`} note={p.on ? `on ${p.on}` : "by itself"} open={p.id === fresh}>
          <fieldset className="grid gap-2">
            <legend className="sr-only">Part {p.id}</legend>
            {problems
              .filter((x) => x.path === `frame.drawn.parts.${p.id}`)
              .map((x) => (
                <FieldMessage key={x.message} severity={x.severity}>
                  {x.message}
                </FieldMessage>
              ))}
            <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
              <SelectField
                label={`${p.id} is a`}
                value={p.kind}
                options={PART_KINDS.map((k) => [k, k] as const)}
                onChange={(kind) => set(p.id, { kind, triangular: kind === "gusset" })}
              />
              <SelectField
                label={`${p.id} on`}
                value={p.on ?? ""}
                options={members}
                onChange={(on) => set(p.id, { on: on || null })}
              />
              <Button
                look="quiet"
                aria-label={`Take ${p.id} out`}
                onClick={() => onEdit({ ...frame, parts: frame.parts.filter((x) => x.id !== p.id) })}
              >
                <Trash2 size={18} aria-hidden="true" />
              </Button>
            </div>
            <PointFields label={`${p.id}, middle`} value={p.at} units={units} onChange={(at) => set(p.id, { at })} />
            <PointFields
              label={p.like ? `${p.id}, size along ${p.like}, across, up` : `${p.id}, size`}
              value={p.size}
              units={units}
              onChange={(size) => set(p.id, { size })}
              hints={false}
            />
            <div className="flex flex-wrap gap-2">
              <Button onClick={() => refit(p)} disabled={target === ""}>
                Fit it to {targets.find(([w]) => w === target)?.[1] ?? "a member"}
              </Button>
              <Button
                onClick={() => put(copyPart(frame, structure, p.id, targetOf(target), units))}
                disabled={target === ""}
              >
                Copy it there
              </Button>
              <Button onClick={() => set(p.id, { holes: p.holes.length > 0 ? [] : twoHoles(p) })}>
                {p.holes.length > 0 ? "Take its holes out" : "Two holes"}
              </Button>
            </div>
            {p.holes.map((h, i) => (
              <div key={`${p.id}/${String(i)}`} className="grid grid-cols-3 gap-2">
                {(["x", "y", "diameter"] as const).map((k) => (
                  <LengthField
                    key={k}
                    label={`Hole ${i + 1}, ${k}`}
                    units={units}
                    value={h[k]}
                    onChange={(v) => v && set(p.id, { holes: p.holes.map((x, n) => (n === i ? { ...x, [k]: v } : x)) })}
                  />
                ))}
              </div>
            ))}
          </fieldset>
        </Fold>
      ))}
      {targets.length > 0 ? (
        <SelectField label="Put a part on" value={target} options={targets} onChange={setSaid} />
      ) : null}
      <p className="text-sm text-soft">
        It takes its size and direction from there. Press the square at an end of a member in the drawing to point at
        it.
      </p>
      <div className="flex flex-wrap gap-2">
        {PART_KINDS.map((kind) => (
          <Button
            key={kind}
            disabled={target === "" || (kind === "gusset" && !target.startsWith("joint"))}
            onClick={() => put(addPart(frame, structure, kind, targetOf(target), units))}
          >
            <Plus size={18} aria-hidden="true" /> {kind}
          </Button>
        ))}
        {open.length > 0 ? (
          <Button onClick={() => onEdit(capOpenEnds(frame, structure, units))}>
            <Plus size={18} aria-hidden="true" /> a cap on each open end ({open.length})
          </Button>
        ) : null}
      </div>
    </div>
  );
}
