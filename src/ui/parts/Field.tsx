import type { ReactNode } from "react";
import type { Problem } from "@/core/units";

export const inputClass = (wrong: boolean, big = false, figures = true): string =>
  `w-full min-w-0 rounded-[3px] border bg-well px-3 ${figures ? "fig" : ""} ${big ? "min-h-16 text-3xl" : "tap"} ${wrong ? "border-fail border-2" : "border-edge"}`;

/** A message under a field. Wrong things are said with a mark as well as a colour. */
export function FieldMessage({
  id,
  severity,
  children,
}: {
  id?: string;
  severity: Problem["severity"] | "note";
  children: ReactNode;
}) {
  const look = severity === "error" ? "text-fail" : severity === "warning" ? "text-close" : "text-soft";
  return (
    <p id={id} className={`mt-1 text-sm ${look}`}>
      {severity === "note" ? null : <strong>{severity === "error" ? "Not usable: " : "Check: "}</strong>}
      {children}
    </p>
  );
}

/** Label, field and messages in one column. */
export function FieldFrame({
  id,
  label,
  hint,
  children,
  className = "",
}: {
  id: string;
  label: ReactNode;
  hint?: ReactNode;
  children: ReactNode;
  className?: string;
}) {
  return (
    <div className={`min-w-0 ${className}`}>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold">
        {label}
        {hint ? <span className="font-normal text-soft"> {hint}</span> : null}
      </label>
      {children}
    </div>
  );
}
