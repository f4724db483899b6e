"use client";

import { useState } from "react";
import { addMember, type DrawnFrame, place, statedPoint } from "@/core/frame";
import { add3 } from "@/core/numeric";
import type { UnitPreference } from "@/core/units";
import { Button } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { FieldMessage } from "../../parts/Field";
import { PointFields } from "./PointFields";

/** Draws a member by numbers: from a place, to a place or on by so much. */
export function AddMember({
  frame,
  section,
  units,
  onEdit,
  onPick,
}: {
  frame: DrawnFrame;
  section: string;
  units: UnitPreference;
  onEdit: (frame: DrawnFrame) => void;
  onPick: (ids: string[]) => void;
}) {
  const [from, setFrom] = useState(statedPoint([0, 0, 0], units));
  const [to, setTo] = useState(statedPoint([0, 0, 0], units));
  const [how, setHow] = useState<"to" | "by">("to");
  const [message, setMessage] = useState<string | null>(null);
  return (
    <div className="grid gap-3">
      <PointFields label="From" value={from} units={units} onChange={setFrom} />
      <Choice
        label="and"
        value={how}
        options={[
          ["to", "to a place"],
          ["by", "on by"],
        ]}
        onChange={setHow}
      />
      <PointFields label={how === "to" ? "To" : "On by"} value={to} units={units} onChange={setTo} hints={false} />
      {message ? <FieldMessage severity="error">{message}</FieldMessage> : null}
      <Button
        className="justify-self-start"
        onClick={() => {
          const a = place(from);
          const b = how === "to" ? place(to) : add3(a, place(to));
          const done = addMember(frame, a, b, section, units);
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
