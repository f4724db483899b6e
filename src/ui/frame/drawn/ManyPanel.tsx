"use client";

import { useState } from "react";
import {
  type Axis,
  centreOn,
  copiesWithin,
  copyMembers,
  type DrawnFrame,
  deleteMembers,
  flipMembers,
  mirrorMembers,
  moveMembers,
  place,
  sectionWords,
  setSection,
  spaceEqually,
  statedPoint,
} from "@/core/frame";
import type { length, UnitPreference } from "@/core/units";
import { Button } from "../../parts/Button";
import { FieldMessage } from "../../parts/Field";
import { LengthField } from "../../parts/LengthField";
import { NumberField } from "../../parts/NumberField";
import { SelectField } from "../../parts/SelectField";
import { Tick } from "../../parts/Tick";
import { PointFields } from "./PointFields";

interface Props {
  frame: DrawnFrame;
  picked: readonly string[];
  units: UnitPreference;
  together: boolean;
  /** Middle of the frame, mm: where a mirror stands unless another place is typed. */
  middle: readonly [number, number];
  onEdit: (frame: DrawnFrame) => void;
  onPick: (ids: string[]) => void;
}

/** What can be done with everything that is picked: move, copy, mirror, space, take out. */
export function ManyPanel({ frame, picked, units, together, middle, onEdit, onPick }: Props) {
  const [by, setBy] = useState(statedPoint([0, 0, 0], units));
  const [times, setTimes] = useState<number | null>(1);
  const [axis, setAxis] = useState<"x" | "y">("x");
  const [at, setAt] = useState<Record<"x" | "y", ReturnType<typeof length> | null>>({ x: null, y: null });
  const [link, setLink] = useState(true);
  const [along, setAlong] = useState<Axis>("x");
  const [message, setMessage] = useState<string | null>(null);
  const [within, setWithin] = useState<ReturnType<typeof length> | null>(null);
  const [onRail, setOnRail] = useState("");
  const rails = frame.members.filter((m) => !picked.includes(m.id)).map((m) => m.id);
  const rail = rails.includes(onRail) ? onRail : (rails[0] ?? "");
  const sections = [...new Set(frame.members.filter((m) => picked.includes(m.id)).map((m) => m.section))];
  const where = at[axis]?.mm ?? middle[axis === "x" ? 0 : 1];
  const way = place(by);
  const still = way.every((v) => v === 0);
  return (
    <div className="grid gap-4">
      <div className="grid gap-2">
        <PointFields label="By" value={by} units={units} onChange={setBy} />
        <div className="flex flex-wrap items-end gap-2">
          <Button disabled={still} onClick={() => onEdit(moveMembers(frame, picked, way, units, together))}>
            Move
          </Button>
          <Button
            disabled={still || !times}
            onClick={() => {
              const done = copyMembers(frame, picked, way, Math.round(times ?? 1), units);
              onEdit(done.frame);
              onPick(done.ids);
            }}
          >
            Copy
          </Button>
          <NumberField
            label="Copies"
            unit="times"
            min={1}
            max={50}
            value={times}
            onChange={setTimes}
            className="w-28"
          />
        </div>
        <div className="flex flex-wrap items-end gap-2">
          <LengthField
            label="or as many as fit in"
            units={units}
            optional
            value={within}
            onChange={(v) => {
              setWithin(v);
              if (v && !still) setTimes(Math.min(50, copiesWithin(way, v.mm)));
            }}
            className="w-40"
          />
          {within && !still ? (
            <p className="fig pb-6 text-sm text-soft">{copiesWithin(way, within.mm)} more, one each step</p>
          ) : null}
        </div>
        <div className="flex flex-wrap items-end gap-2">
          <SelectField
            label="Middle of them on"
            value={rail}
            options={rails.map((id) => [id, id] as const)}
            onChange={setOnRail}
            className="w-40"
          />
          <Button
            disabled={rail === ""}
            onClick={() => {
              const done = centreOn(frame, picked, rail, units);
              setMessage(done.ok ? null : done.message);
              if (done.ok) onEdit(done.value);
            }}
          >
            Centre them there
          </Button>
        </div>
        {frame.sections.length > 1 ? (
          <SelectField
            label={picked.length === 1 ? "Made of" : "All made of"}
            value={sections.length === 1 ? (sections[0] ?? "") : ""}
            options={[
              ...(sections.length === 1 ? [] : [["", "several sections"] as const]),
              ...frame.sections.map((s) => [s.id, sectionWords(frame, s.id)] as const),
            ]}
            onChange={(s) => s && onEdit(setSection(frame, picked, s, units))}
          />
        ) : null}
      </div>
      <div className="grid gap-2">
        <div className="grid grid-cols-2 gap-2">
          <SelectField
            label="Mirror"
            value={axis}
            options={[
              ["x", "left to right"],
              ["y", "front to back"],
            ]}
            onChange={setAxis}
          />
          <LengthField
            label="about"
            hint={axis}
            units={units}
            value={at[axis] ?? statedPoint([where, where, 0], units).x}
            onChange={(v) => setAt({ ...at, [axis]: v })}
          />
        </div>
        <Tick checked={link} onChange={setLink}>
          The image follows its original, and both count as left and right
        </Tick>
        <div className="flex flex-wrap gap-2">
          <Button
            onClick={() => {
              const done = mirrorMembers(frame, picked, axis, where, link, units);
              onEdit(done.frame);
              onPick(done.ids);
            }}
          >
            Add the mirror image
          </Button>
          <Button onClick={() => onEdit(flipMembers(frame, picked, axis, where, units))}>
            Mirror them as they are
          </Button>
        </div>
      </div>
      <div className="flex flex-wrap items-end gap-2">
        <SelectField
          label="Equal gaps along"
          value={along}
          options={[
            ["x", "x, left to right"],
            ["y", "y, front to back"],
            ["z", "z, up"],
          ]}
          onChange={setAlong}
        />
        <Button
          onClick={() => {
            const done = spaceEqually(frame, picked, along, units);
            setMessage(done.ok ? null : done.message);
            if (done.ok) onEdit(done.value);
          }}
        >
          Space equally
        </Button>
      </div>
      {message ? <FieldMessage severity="error">{message}</FieldMessage> : null}
      <Button
        className="justify-self-start"
        onClick={() => {
          onEdit(deleteMembers(frame, picked, units));
          onPick([]);
        }}
      >
        Take {picked.length === 1 ? picked[0] : `${picked.length} members`} out
      </Button>
    </div>
  );
}
