"use client";

import { Plus, Trash2 } from "lucide-react";
import {
  type DrawnFrame,
  type DrawnPart,
  PART_KINDS,
  type PartKind,
  place,
  type Structure,
  statedPoint,
  thicknessOf,
} from "@/core/frame";
import { add3, scale3, type Vec3 } from "@/core/numeric";
import { length, type Problem, stated, type UnitPreference } from "@/core/units";
import { Button } from "../../parts/Button";
import { FieldMessage } from "../../parts/Field";
import { LengthField } from "../../parts/LengthField";
import { SelectField } from "../../parts/SelectField";
import { PointFields } from "./PointFields";

/** Sizes to start a part from, mm: two larger ones and a thickness. */
const USUAL: Record<PartKind, Vec3> = {
  plate: [100, 100, 5],
  tab: [40, 50, 5],
  gusset: [80, 80, 4],
  foot: [60, 60, 6],
  cap: [40, 40, 3],
  bracket: [60, 40, 4],
};

/** Where a part goes that sits on a member: feet under, caps at the end, the rest at its middle. */
function placeFor(kind: PartKind, structure: Structure, on: string | null): Vec3 {
  const m = structure.members.find((x) => x.id === on);
  if (!m) return [0, 0, 0];
  const low = m.ends.from.at[2] <= m.ends.to.at[2] ? m.ends.from.at : m.ends.to.at;
  if (kind === "foot") return add3(low, [0, 0, -USUAL.foot[2] / 2]);
  if (kind === "cap") {
    const open = m.ends.to.hollow === "open" ? ("to" as const) : ("from" as const);
    return add3(m.ends[open].at, scale3(m.axes[0], open === "to" ? 1.5 : -1.5));
  }
  return scale3(add3(m.ends.from.at, m.ends.to.at), 0.5);
}

/** Plates, tabs, gussets, feet, caps and brackets with their holes. */
export function PartsPanel({
  frame,
  structure,
  units,
  problems,
  onEdit,
}: {
  frame: DrawnFrame;
  structure: Structure;
  units: UnitPreference;
  problems: readonly Problem[];
  onEdit: (frame: DrawnFrame) => void;
}) {
  const set = (id: string, what: Partial<DrawnPart>) =>
    onEdit({ ...frame, parts: frame.parts.map((p) => (p.id === id ? { ...p, ...what } : p)) });
  const free = Array.from({ length: 99 }, (_, i) => `P${i + 1}`).find((id) => !frame.parts.some((p) => p.id === id));
  const members = [["", "no member"] as const, ...frame.members.map((m) => [m.id, m.id] as const)];
  /** Two holes on the middle line, a quarter in from each end. */
  const twoHoles = (p: DrawnPart) => {
    const size = place(p.size);
    const long = Math.max(...size.filter((_, i) => i !== thicknessOf(size)));
    return [-1, 1].map((s) => ({ x: stated((s * long) / 4, units), y: length("0"), diameter: length("9") }));
  };
  return (
    <div className="grid gap-4">
      {frame.parts.length === 0 ? (
        <p className="text-soft">None yet: plates, tabs, gussets, feet, caps, brackets.</p>
      ) : null}
      {frame.parts.map((p) => (
        <fieldset key={p.id} className="grid gap-2 border-t border-line pt-2">
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
            label={`${p.id}, size`}
            value={p.size}
            units={units}
            onChange={(size) => set(p.id, { size })}
            hints={false}
          />
          <div className="flex flex-wrap gap-2">
            <Button
              onClick={() => set(p.id, { at: statedPoint(placeFor(p.kind, structure, p.on), units) })}
              disabled={!p.on}
            >
              Put it {p.kind === "foot" ? "under" : p.kind === "cap" ? "on the open end of" : "on the middle of"}{" "}
              {p.on ?? "its member"}
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
      ))}
      <div className="flex flex-wrap gap-2">
        {PART_KINDS.map((kind) => (
          <Button
            key={kind}
            disabled={!free}
            onClick={() => {
              const on = frame.members[0]?.id ?? null;
              if (free)
                onEdit({
                  ...frame,
                  parts: [
                    ...frame.parts,
                    {
                      id: free,
                      kind,
                      at: statedPoint(placeFor(kind, structure, on), units),
                      size: statedPoint(USUAL[kind], units),
                      triangular: kind === "gusset",
                      on,
                      material: frame.sections[0]?.material ?? "mild steel",
                      holes: [],
                    },
                  ],
                });
            }}
          >
            <Plus size={18} aria-hidden="true" /> {kind}
          </Button>
        ))}
      </div>
    </div>
  );
}
