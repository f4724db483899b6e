"use client";

import { type ReactNode, useId, useState } from "react";
import { FieldFrame, FieldMessage, inputClass } from "./Field";

interface Props {
  label: ReactNode;
  unit: string;
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
  if (tidy === "") return { ok: false, message: `Give a number in ${unit}.` };
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(tidy))
    return { ok: false, message: `Cannot read "${text.trim()}": give a plain number in ${unit}.` };
  const value = Number(tidy);
  if (value < min || value > max) return { ok: false, message: `Must lie between ${min} and ${max} ${unit}.` };
  return { ok: true, value };
}

/** A plain number with its unit. */
export function NumberField({
  label,
  unit,
  value,
  kept,
  min,
  max,
  optional = false,
  onChange,
  onUnread,
  problem,
  className,
}: Props) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const unread = typed ?? kept;
  const empty = unread !== undefined && unread.trim() === "" && optional;
  const read = unread === undefined || empty ? null : readNumber(unread, unit, min, max);
  const error = read && !read.ok ? read.message : problem?.severity === "error" ? problem.message : null;
  return (
    <FieldFrame id={id} label={label} hint={unit} className={className ?? ""}>
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
