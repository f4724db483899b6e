"use client";

import { type ReactNode, useId, useState } from "react";
import { asKept, inField, type PhysicalKind, type UnitPreference, unitOf } from "@/core/units";
import { FieldFrame, FieldMessage, inputClass } from "./Field";

interface Props {
  label: ReactNode;
  /** What is said after the label: the unit, or more of it where `kind` gives the unit. */
  unit: string;
  /** Kept in SI and shown in the system that one works in: `value`, `min` and `max` are as it is kept. */
  kind?: { is: PhysicalKind; units: UnitPreference };
  value: number | null;
  kept?: string | undefined;
  min: number;
  max: number;
  optional?: boolean;
  onChange: (value: number | null) => void;
  onUnread?: (text: string | null) => void;
  problem?: { message: string; severity: "error" | "warning" } | undefined;
  className?: string;
}

/** @returns the number that a text says (decimal comma allowed), or why not. */
function readNumber(
  text: string,
  unit: string,
  min: number,
  max: number,
): { ok: true; value: number } | { ok: false; message: string } {
  const tidy = text.trim().replace(",", ".").replace("−", "-");
  const inUnit = unit ? ` in ${unit}` : "";
  if (tidy === "") return { ok: false, message: `Give a number${inUnit}.` };
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(tidy))
    return { ok: false, message: `Cannot read "${text.trim()}": give a plain number${inUnit}.` };
  const value = Number(tidy);
  if (value < min || value > max)
    return { ok: false, message: `Must lie between ${min} and ${max}${unit ? ` ${unit}` : ""}.` };
  return { ok: true, value };
}

/** A plain number with its unit. */
export function NumberField({
  label,
  unit: note,
  kind,
  value: stored,
  kept,
  min: least,
  max: most,
  optional = false,
  onChange: onStored,
  onUnread,
  problem,
  className,
}: Props) {
  const shown = (x: number): number => (kind ? inField(kind.is, x, kind.units) : x);
  const unit = kind ? unitOf(kind.is, kind.units) : note;
  const hint = kind ? [unit, note].filter((w) => w !== "").join(", ") : note;
  const [value, min, max] = [stored === null ? null : shown(stored), shown(least), shown(most)];
  const onChange = (x: number | null) => onStored(x === null || !kind ? x : asKept(kind.is, x, kind.units));
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const unread = typed ?? kept;
  const empty = unread !== undefined && unread.trim() === "" && optional;
  const read = unread === undefined || empty ? null : readNumber(unread, unit, min, max);
  const error = read && !read.ok ? read.message : problem?.severity === "error" ? problem.message : null;
  return (
    <FieldFrame id={id} label={label} hint={hint} className={className ?? ""}>
      <input
        id={id}
        className={inputClass(error !== null)}
        value={unread ?? (value === null ? "" : String(value))}
        inputMode="decimal"
        autoComplete="off"
        maxLength={40}
        aria-invalid={error !== null}
        aria-describedby={error || problem ? `${id}-message` : undefined}
        onChange={(e) => {
          const next = e.target.value;
          setTyped(next);
          if (next.trim() === "" && optional) {
            onUnread?.(null);
            onChange(null);
            return;
          }
          const now = readNumber(next, unit, min, max);
          onUnread?.(now.ok ? null : next);
          if (now.ok) onChange(now.value);
        }}
        onBlur={() => {
          if (read?.ok || empty) setTyped(null);
        }}
      />
      {error ? (
        <FieldMessage id={`${id}-message`} severity="error">
          {error}
        </FieldMessage>
      ) : problem ? (
        <FieldMessage id={`${id}-message`} severity="warning">
          {problem.message}
        </FieldMessage>
      ) : null}
    </FieldFrame>
  );
}
