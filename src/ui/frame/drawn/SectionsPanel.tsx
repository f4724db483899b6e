"use client";

import { Plus, Trash2 } from "lucide-react";
import {
  type DrawnFrame,
  type DrawnSection,
  isRound,
  MATERIAL_NAMES,
  MATERIALS,
  PROFILES,
  profilesFor,
  SHAPES,
  shapeOf,
} from "@/core/frame";
import { length, type Problem, stated, type UnitPreference } from "@/core/units";
import { Button } from "../../parts/Button";
import { LengthField } from "../../parts/LengthField";
import { SelectField } from "../../parts/SelectField";

const OWN = "own size";
const SHAPE_WORDS: Record<DrawnSection["shape"], string> = {
  tube: "square or rectangular tube",
  "round tube": "round tube",
  angle: "angle",
  channel: "channel",
  flat: "flat bar",
  bar: "round bar",
};

/** Sections that the members are made of. */
export function SectionsPanel({
  frame,
  units,
  problems,
  onEdit,
}: {
  frame: DrawnFrame;
  units: UnitPreference;
  problems: readonly Problem[];
  onEdit: (frame: DrawnFrame) => void;
}) {
  const set = (id: string, what: Partial<DrawnSection>) =>
    onEdit({ ...frame, sections: frame.sections.map((s) => (s.id === id ? { ...s, ...what } : s)) });
  const problem = (path: string) => problems.find((p) => p.path === path);
  const free = Array.from({ length: 99 }, (_, i) => `S${i + 1}`).find((id) => !frame.sections.some((s) => s.id === id));
  return (
    <div className="grid gap-4">
      {frame.sections.map((s) => {
        const used = frame.members.filter((m) => m.section === s.id).length;
        const round = isRound(shapeOf(s));
        const solid = s.shape === "flat" || s.shape === "bar";
        return (
          <fieldset key={s.id} className="grid gap-2 border-t border-line pt-2">
            <legend className="sr-only">Section {s.id}</legend>
            <div className="flex items-baseline justify-between gap-2">
              <p>
                <strong>{s.id}</strong>{" "}
                <span className="text-sm text-soft">{used === 1 ? "one member" : `${used} members`}</span>
              </p>
              <Button
                look="quiet"
                aria-label={`Take section ${s.id} out`}
                disabled={used > 0 || frame.sections.length === 1}
                onClick={() => onEdit({ ...frame, sections: frame.sections.filter((x) => x.id !== s.id) })}
              >
                <Trash2 size={18} aria-hidden="true" />
              </Button>
            </div>
            <div className="grid grid-cols-2 gap-2">
              <SelectField
                label={`Shape of ${s.id}`}
                value={s.shape}
                options={SHAPES.map((x) => [x, SHAPE_WORDS[x]] as const)}
                onChange={(shape) => set(s.id, { shape, profile: null })}
              />
              {s.shape === "tube" ? (
                <SelectField
                  label={`Size of ${s.id}`}
                  value={s.profile ?? OWN}
                  options={[...profilesFor(units).map((p) => [p.name, p.name] as const), [OWN, OWN] as const]}
                  onChange={(name) => {
                    const p = PROFILES.find((x) => x.name === name);
                    set(
                      s.id,
                      p
                        ? {
                            profile: p.name,
                            width: stated(p.smallMm, units),
                            height: stated(p.largeMm, units),
                            wall: stated(p.wallMm, units),
                          }
                        : { profile: null },
                    );
                  }}
                />
              ) : (
                <span />
              )}
              <LengthField
                label={round ? `${s.id} diameter` : `${s.id} width`}
                units={units}
                value={s.width}
                problem={problem(`frame.drawn.sections.${s.id}.width`)}
                onChange={(width) => width && set(s.id, { width, profile: null })}
              />
              {round ? null : (
                <LengthField
                  label={`${s.id} height`}
                  units={units}
                  value={s.height}
                  problem={problem(`frame.drawn.sections.${s.id}.height`)}
                  onChange={(height) => height && set(s.id, { height, profile: null })}
                />
              )}
              {solid ? null : (
                <LengthField
                  label={`${s.id} wall`}
                  units={units}
                  value={s.wall}
                  problem={problem(`frame.drawn.sections.${s.id}.wall`)}
                  onChange={(wall) => wall && set(s.id, { wall, profile: null })}
                />
              )}
              <SelectField
                label={`${s.id} material`}
                value={s.material}
                options={MATERIAL_NAMES.map((m) => [m, MATERIALS[m].label] as const)}
                onChange={(material) => set(s.id, { material })}
              />
            </div>
          </fieldset>
        );
      })}
      <Button
        className="justify-self-start"
        disabled={!free || frame.sections.length >= 20}
        onClick={() => {
          const last = frame.sections.at(-1);
          if (free && last) onEdit({ ...frame, sections: [...frame.sections, { ...last, id: free }] });
        }}
      >
        <Plus size={18} aria-hidden="true" /> Another section
      </Button>
      <LengthField
        label="Root gap at every joint"
        units={units}
        value={frame.gap}
        problem={problem("frame.drawn.gap")}
        onChange={(gap) => gap && onEdit({ ...frame, gap: gap ?? length("0") })}
      />
    </div>
  );
}
