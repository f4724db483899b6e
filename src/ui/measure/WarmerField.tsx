"use client";

import { NumberField } from "../parts/NumberField";

/** How much hotter the work is than what measures it, for a round that is begun. */
export function WarmerField({ value, onChange }: { value: number; onChange: (warmerK: number) => void }) {
  return (
    <NumberField
      label="The frame is warmer than the tape by"
      unit="°C, 0 when both are cold"
      min={-80}
      max={900}
      value={value}
      onChange={(v) => v !== null && onChange(v)}
    />
  );
}
