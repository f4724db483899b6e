"use client";

import { useState } from "react";
import {
  addMember,
  byAngle,
  byJog,
  type DrawnFrame,
  type EndName,
  type Placed,
  place,
  statedPoint,
  turnedBy,
  untilMember,
} from "@/core/frame";
import { add3, scale3, sub3, type Vec3 } from "@/core/numeric";
import { type Length, length, ok, type Result, type UnitPreference } from "@/core/units";
import { Button } from "../../parts/Button";
import { FieldMessage } from "../../parts/Field";
import { LengthField } from "../../parts/LengthField";
import { NumberField } from "../../parts/NumberField";
import { SelectField } from "../../parts/SelectField";
import { PointFields } from "./PointFields";

const WAYS = [
  ["to", "to a place"],
  ["by", "on by x, y, z"],
  ["angle", "at an angle, so long"],
  ["until", "at an angle, until it meets"],
  ["jog", "over, in and up"],
] as const;
type Way = (typeof WAYS)[number][0];

/** An end of a member, as it is chosen: `M1 from`. */
export interface PointedEnd {
  member: string;
  end: EndName;
}

const WORDS = { from: "start", to: "end" } as const;

/** Draws a member by numbers: from a place or an end, to a place, by an angle and a length, by a jog, or up to another. */
export function AddMember({
  frame,
  placed,
  section,
  units,
  pointed,
  onEdit,
  onPick,
}: {
  frame: DrawnFrame;
  placed: ReadonlyMap<string, Placed>;
  section: string;
  units: UnitPreference;
  /** The end that was pressed in the drawing last. */
  pointed: PointedEnd | null;
  onEdit: (frame: DrawnFrame) => void;
  onPick: (ids: string[]) => void;
}) {
  const none = (): Length => length("0", units === "mm" ? "mm" : "in");
  const [from, setFrom] = useState(statedPoint([0, 0, 0], units));
  const [to, setTo] = useState(statedPoint([0, 0, 0], units));
  const [said, setSaid] = useState<string | null>(null);
  const [how, setHow] = useState<Way>("to");
  const [angle, setAngle] = useState<number | null>(0);
  const [long, setLong] = useState<Length | null>(null);
  const [until, setUntil] = useState("");
  const [jog, setJog] = useState<Record<"over" | "in" | "up", Length>>({ over: none(), in: none(), up: none() });
  const [message, setMessage] = useState<string | null>(null);
  const start = said ?? (pointed ? `${pointed.member} ${pointed.end}` : "place");
  const [member, end] = start.split(" ") as [string, EndName | undefined];
  const begun = placed.get(member);
  const ends = [...placed.keys()].flatMap((id) =>
    (["from", "to"] as const).map((e) => [`${id} ${e}`, `${id}, its ${WORDS[e]}`] as const),
  );
  const a: Vec3 = begun && end ? begun[end] : place(from);
  // Straight on from the member that it begins at; to the right where it begins at a place.
  const onward: Vec3 = begun ? (end === "from" ? scale3(begun.axes[0], -1) : begun.axes[0]) : [1, 0, 0];
  const others = [...placed.keys()].filter((id) => id !== member);
  const target = others.includes(until) ? until : (others[0] ?? "");
  const centre = (): Vec3 => {
    const all = [...placed.values()].flatMap((m) => [m.from, m.to]);
    return scale3(all.reduce(add3, [0, 0, 0] as Vec3), 1 / Math.max(1, all.length));
  };
  const goal = (): Result<Vec3> => {
    switch (how) {
      case "to":
        return ok(place(to));
      case "by":
        return ok(add3(a, place(to)));
      case "angle":
        return angle === null || !long || long.mm <= 0
          ? { ok: false, message: "Give the angle and how long it is." }
          : ok(byAngle(a, onward, angle, long.mm));
      case "until": {
        const other = placed.get(target);
        return angle === null || !other
          ? { ok: false, message: "Give the angle, and the member that it goes up to." }
          : untilMember(a, turnedBy(onward, angle), other);
      }
      case "jog":
        return ok(
          byJog(a, onward, { overMm: jog.over.mm, inMm: jog.in.mm, upMm: jog.up.mm }, sub3(centre(), [0, 0, 0])),
        );
    }
  };
  return (
    <div className="grid gap-3">
      <SelectField
        label="Begins at"
        value={start}
        options={[["place", "a place, below"] as const, ...ends]}
        onChange={setSaid}
      />
      {begun ? null : <PointFields label="From" value={from} units={units} onChange={setFrom} />}
      <SelectField label="and goes" value={how} options={WAYS} onChange={setHow} />
      {how === "to" || how === "by" ? (
        <PointFields label={how === "to" ? "To" : "On by"} value={to} units={units} onChange={setTo} hints={false} />
      ) : null}
      {how === "angle" || how === "until" ? (
        <>
          <div className="grid grid-cols-2 gap-2">
            <NumberField
              label={begun ? `Angle from the line of ${member}` : "Angle from left to right"}
              unit="°, anticlockwise +"
              min={-180}
              max={180}
              value={angle}
              onChange={setAngle}
            />
            {how === "angle" ? (
              <LengthField label="Length" units={units} optional value={long} onChange={setLong} />
            ) : (
              <SelectField
                label="until it meets"
                value={target}
                options={others.map((id) => [id, id] as const)}
                onChange={setUntil}
              />
            )}
          </div>
          <p className="text-sm text-soft">
            Seen from above. {how === "until" ? "Its end is cut to the face that it meets." : ""}
          </p>
        </>
      ) : null}
      {how === "jog" ? (
        <div className="grid grid-cols-3 gap-2">
          {(
            [
              ["over", "Over"],
              ["in", "In"],
              ["up", "Up"],
            ] as const
          ).map(([key, label]) => (
            <LengthField
              key={key}
              label={label}
              units={units}
              value={jog[key]}
              onChange={(v) => v && setJog({ ...jog, [key]: v })}
            />
          ))}
        </div>
      ) : null}
      {message ? <FieldMessage severity="error">{message}</FieldMessage> : null}
      <Button
        className="justify-self-start"
        onClick={() => {
          const b = goal();
          const done = b.ok ? addMember(frame, a, b.value, section, units) : b;
          setMessage(done.ok ? null : done.message);
          if (!done.ok) return;
          onEdit(done.value.frame);
          onPick([done.value.id]);
        }}
      >
        Add the member
      </Button>
    </div>
  );
}
