"use client";

import { Check } from "lucide-react";
import type { ReactNode } from "react";

/** A box to tick with what it says; the whole line is pressed. */
export function Tick({
  checked,
  onChange,
  children,
}: {
  checked: boolean;
  onChange: (checked: boolean) => void;
  children: ReactNode;
}) {
  return (
    <label className="tap relative inline-flex cursor-pointer items-center gap-2 text-sm has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-plum">
      <input
        type="checkbox"
        checked={checked}
        onChange={(e) => onChange(e.target.checked)}
        className="absolute inset-0 size-full cursor-pointer opacity-0"
      />
      <span
        aria-hidden="true"
        className={`grid size-5.5 shrink-0 place-content-center border ${checked ? "border-ink bg-ink text-sheet" : "border-edge bg-well"}`}
      >
        {checked ? <Check size={16} strokeWidth={3} /> : null}
      </span>
      {children}
    </label>
  );
}
