"use client";

import { type KeyboardEvent, type ReactNode, type Ref, useId, useState } from "react";
import {
  bareUnit,
  formatLength,
  type Length,
  nearLength,
  parseLength,
  readLength,
  typedText,
  type UnitPreference,
} from "@/core/units";
import { FieldFrame, FieldMessage, inputClass } from "./Field";

/** What was understood: in both systems where one works in millimetres, as fraction and decimal where one works in inches. */
export function understood(mm: number, units: UnitPreference): string {
  const small = Math.abs(mm) < 25;
  if (units !== "mm") {
    const decimal = formatLength(mm, "inch-decimal", { decimals: 1, trim: true }).text;
    const fraction = formatLength(mm, "inch-fraction", { denominator: 64 });
    return Math.abs(fraction.roundingMm) < 1e-6 && fraction.text !== decimal
      ? `${fraction.text} · ${decimal}`
      : decimal;
  }
  const metric = formatLength(mm, "mm", { decimals: small ? 2 : 1, trim: true }).text;
  const inches = small ? nearLength(mm, "inch-decimal", { decimals: 1 }) : nearLength(mm, "inch-fraction");
  return `${metric} · ${inches}`;
}

interface Props {
  label: ReactNode;
  hint?: ReactNode;
  units: UnitPreference;
  value: Length | null;
  /** Text that could not be read, kept from before. */
  kept?: string | undefined;
  onChange: (value: Length | null) => void;
  /** A text that cannot be read is handed here (null when it can), so that it is not lost. */
  onUnread?: (text: string | null) => void;
  /** Empty means none. */
  optional?: boolean;
  problem?: { message: string; severity: "error" | "warning" } | undefined;
  onEnter?: (event: KeyboardEvent) => void;
  inputRef?: Ref<HTMLInputElement>;
  big?: boolean;
  className?: string;
}

/**
 * Takes a length as people write it, shows back what it understood in both systems, and keeps what it could not read.
 */
export function LengthField(props: Props) {
  const {
    label,
    hint,
    units,
    value,
    kept,
    onChange,
    onUnread,
    optional = false,
    problem,
    onEnter,
    inputRef,
    big = false,
    className,
  } = props;
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? kept ?? (value ? typedText(value, units) : "");
  const unread = typed ?? kept;
  const parsed =
    unread === undefined || (unread.trim() === "" && optional) ? null : readLength(unread, bareUnit(units));
  const meant = parsed?.ok ? parseLength(parsed.value.text, parsed.value.unit) : null;
  const note = meant?.ok ? meant.value.note : undefined;
  const error = parsed && !parsed.ok ? parsed.message : problem?.severity === "error" ? problem.message : null;
  const shown = parsed?.ok ? parsed.value : unread === undefined ? value : null;
  const described = error ? `${id}-error` : `${id}-shown`;

  const take = (next: string) => {
    setTyped(next);
    if (next.trim() === "" && optional) {
      onUnread?.(null);
      onChange(null);
      return;
    }
    const read = readLength(next, bareUnit(units));
    onUnread?.(read.ok ? null : next);
    if (read.ok) onChange(read.value);
  };

  return (
    <FieldFrame id={id} label={label} hint={hint} className={className ?? ""}>
      <input
        id={id}
        ref={inputRef}
        className={inputClass(error !== null, big)}
        value={text}
        inputMode="text"
        enterKeyHint="done"
        autoComplete="off"
        spellCheck={false}
        maxLength={80}
        aria-invalid={error !== null}
        aria-describedby={described}
        onChange={(e) => take(e.target.value)}
        onBlur={() => {
          // Once it is stored, show the stored text again; what cannot be read stays as typed.
          if (parsed?.ok || (typed?.trim() === "" && optional)) setTyped(null);
        }}
        onKeyDown={(e) => {
          if (e.key === "Enter") onEnter?.(e);
        }}
      />
      {error ? (
        <FieldMessage id={`${id}-error`} severity="error">
          {error}
        </FieldMessage>
      ) : (
        <p id={`${id}-shown`} className="fig mt-1 min-h-5 text-sm text-soft">
          {shown ? understood(shown.mm, units) : ""}
        </p>
      )}
      {note ? <FieldMessage severity="note">{note}</FieldMessage> : null}
      {problem?.severity === "warning" && !error ? (
        <FieldMessage severity="warning">{problem.message}</FieldMessage>
      ) : null}
    </FieldFrame>
  );
}
