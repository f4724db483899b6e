"use client";

import { RadioGroup } from "radix-ui";
import { useId } from "react";

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
}

/** A choice between a few, all in sight. */
export function Choice<T extends string>({ label, value, options, onChange }: Props<T>) {
  const id = useId();
  return (
    <div>
      <p id={id} className="mb-1 text-sm font-semibold">
        {label}
      </p>
      <RadioGroup.Root
        aria-labelledby={id}
        value={value}
        onValueChange={(v) => onChange(v as T)}
        className="flex flex-wrap gap-1"
      >
        {options.map(([key, words]) => (
          <RadioGroup.Item
            key={key}
            value={key}
            className="tap rounded-[3px] border border-edge bg-well px-3 text-left data-[state=checked]:border-ink data-[state=checked]:bg-ink data-[state=checked]:text-sheet"
          >
            {words}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </div>
  );
}
