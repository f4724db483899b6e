"use client";

import { useId } from "react";

interface Props<T extends string> {
  label: string;
  /** Null: not chosen yet. */
  value: T | null;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
}

/** A choice between a few, all in sight. Arrow keys move within it, as the browser does by itself. */
export function Choice<T extends string>({ label, value, options, onChange }: Props<T>) {
  const id = useId();
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{label}</legend>
      <div className="flex flex-wrap gap-1">
        {options.map(([key, words]) => (
          <label
            key={key}
            className="tap relative inline-flex cursor-pointer items-center rounded-[3px] border border-edge bg-well px-3 text-left has-checked:border-ink has-checked:bg-ink has-checked:text-sheet has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-plum"
          >
            <input
              type="radio"
              name={id}
              checked={key === value}
              onChange={() => onChange(key)}
              className="absolute inset-0 cursor-pointer opacity-0"
            />
            {words}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
