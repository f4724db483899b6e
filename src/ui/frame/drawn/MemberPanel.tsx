"use client";

import { Lock, LockOpen } from "lucide-react";
import { useState } from "react";
import {
  CROWNS,
  DIRECTIONS,
  type Direction,
  type DrawnFrame,
  type DrawnMember,
  type EndName,
  isHollow,
  place,
  renameMember,
  SEAMS,
  type StructureMember,
  setLength,
  setMember,
  splitMember,
} from "@/core/frame";
import { norm3, sub3 } from "@/core/numeric";
import { type Length, length, nearLength, physical, stated, type UnitPreference } from "@/core/units";
import { Button } from "../../parts/Button";
import { FieldFrame, FieldMessage, inputClass } from "../../parts/Field";
import { LengthField } from "../../parts/LengthField";
import { NumberField } from "../../parts/NumberField";
import { SelectField } from "../../parts/SelectField";
import { PointFields } from "./PointFields";

interface Props {
  frame: DrawnFrame;
  member: DrawnMember;
  cut: StructureMember | undefined;
  units: UnitPreference;
  problems: readonly { message: string; severity: "error" | "warning" }[];
  onEdit: (frame: DrawnFrame) => void;
  onPick: (ids: string[]) => void;
}

const words = (list: readonly string[]) => list.map((w) => [w, w] as const);

/** Everything that is said of one member. */
export function MemberPanel({ frame, member, cut, units, problems, onEdit, onPick }: Props) {
  const [name, setName] = useState(member.id);
  const [message, setMessage] = useState<string | null>(null);
  const [keep, setKeep] = useState<EndName | "middle">("from");
  const [part, setPart] = useState<Length | null>(null);
  const set = (what: Partial<DrawnMember>) => onEdit(setMember(frame, member.id, what, units));
  const axis = norm3(sub3(place(member.to), place(member.from)));
  const others = frame.members.filter((m) => m.id !== member.id).map((m) => m.id);
  const show = (mm: number): string => nearLength(mm, units);
  const { locked } = member;
  return (
    <div className="grid gap-3">
      {problems.map((p) => (
        <FieldMessage key={p.message} severity={p.severity}>
          {p.message}
        </FieldMessage>
      ))}
      {cut ? (
        <p className="text-sm">
          Cut: long point <span className="fig">{show(cut.longMm)}</span>, short point{" "}
          <span className="fig">{show(cut.shortMm)}</span>, centre <span className="fig">{show(cut.centreMm)}</span>,{" "}
          <span className="fig">{physical("mass", cut.massKg, units, 2)}</span>
        </p>
      ) : null}
      {member.mirror ? (
        <p className="text-sm">
          Kept as the mirror image of <strong>{member.mirror.of}</strong>.{" "}
          <button type="button" className="underline" onClick={() => set({ mirror: null })}>
            Take the link off
          </button>
        </p>
      ) : null}
      <div className="grid grid-cols-[1fr_auto] items-end gap-2">
        <FieldFrame id="member-name" label="Name">
          <input
            id="member-name"
            className={inputClass(message !== null && name !== member.id)}
            value={name}
            maxLength={6}
            autoComplete="off"
            onChange={(e) => setName(e.target.value.toUpperCase())}
            onKeyDown={(e) => {
              if (e.key === "Enter") e.currentTarget.blur();
            }}
            onBlur={() => {
              if (name === member.id) return setMessage(null);
              const done = renameMember(frame, member.id, name);
              setMessage(done.ok ? null : done.message);
              if (!done.ok) return;
              onEdit(done.value);
              onPick([name]);
            }}
          />
        </FieldFrame>
        <Button aria-pressed={locked} onClick={() => set({ locked: !locked })}>
          {locked ? <Lock size={18} aria-hidden="true" /> : <LockOpen size={18} aria-hidden="true" />}
          {locked ? "Locked" : "Lock"}
        </Button>
      </div>
      {message ? <FieldMessage severity="error">{message}</FieldMessage> : null}
      <fieldset disabled={locked || member.mirror !== null} className="grid gap-3 disabled:opacity-60">
        <div className="grid grid-cols-2 gap-2">
          <LengthField
            label="Length"
            hint="on its line"
            units={units}
            value={stated(axis, units)}
            onChange={(v) => {
              if (!v || Math.abs(v.mm - axis) < 1e-6) return;
              const done = setLength(frame, member.id, v.mm, keep, units);
              setMessage(done.ok ? null : done.message);
              if (done.ok) onEdit(done.value);
            }}
          />
          <SelectField
            label="What stays"
            value={keep}
            options={[
              ["from", "first end"],
              ["to", "second end"],
              ["middle", "middle"],
            ]}
            onChange={setKeep}
          />
        </div>
        <PointFields label="First end" value={member.from} units={units} onChange={(from) => set({ from })} />
        <PointFields label="Second end" value={member.to} units={units} onChange={(to) => set({ to })} hints={false} />
      </fieldset>
      <div className="grid grid-cols-2 gap-2">
        <SelectField
          label="Section"
          value={member.section}
          options={frame.sections.map((s) => [s.id, `${s.id}: ${s.profile ?? s.shape}`] as const)}
          onChange={(section) => set({ section })}
        />
        <NumberField
          label="Turned about its axis"
          unit="°"
          min={-360}
          max={360}
          value={member.turnDeg}
          onChange={(v) => v !== null && set({ turnDeg: v })}
        />
        {!cut || isHollow(cut.shape) ? (
          <SelectField
            label="Seam"
            value={member.seam}
            options={words(SEAMS) as never}
            onChange={(seam) => set({ seam })}
          />
        ) : null}
        <SelectField
          label="Crown"
          value={member.crown}
          options={words(CROWNS) as never}
          onChange={(crown) => set({ crown })}
        />
        <SelectField
          label="Flush with"
          value={member.flush?.to ?? ""}
          options={[["", "nothing"], ...others.map((m) => [m, m] as const)]}
          onChange={(to) => set({ flush: to === "" ? null : { to, side: member.flush?.side ?? "up" } })}
        />
        {member.flush ? (
          <SelectField
            label="on its face"
            value={member.flush.side}
            options={words(DIRECTIONS) as readonly (readonly [Direction, string])[]}
            onChange={(side) => member.flush && set({ flush: { ...member.flush, side } })}
          />
        ) : (
          <span />
        )}
        <LengthField
          label="Off its line, across"
          units={units}
          value={member.offset?.across ?? length("0")}
          onChange={(v) => v && set({ offset: { across: v, up: member.offset?.up ?? length("0") } })}
        />
        <LengthField
          label="Off its line, up"
          units={units}
          value={member.offset?.up ?? length("0")}
          onChange={(v) => v && set({ offset: { across: member.offset?.across ?? length("0"), up: v } })}
        />
      </div>
      <div className="grid grid-cols-[1fr_auto] items-start gap-2">
        <LengthField
          label="Split at"
          hint="from the first end"
          units={units}
          value={part}
          optional
          onChange={setPart}
        />
        <Button
          className="mt-6.5"
          onClick={() => {
            const done = splitMember(frame, member.id, part?.mm ?? axis / 2, units);
            setMessage(done.ok ? null : done.message);
            if (done.ok) onEdit(done.value.frame);
          }}
        >
          {part ? "Split there" : "Split in the middle"}
        </Button>
      </div>
    </div>
  );
}
