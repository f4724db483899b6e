"use client";

import { useJob } from "../job/JobProvider";
import { NumberField } from "../parts/NumberField";

/** How much hotter the work is than what measures it, for a round that is begun. */
export function WarmerField({ value, onChange }: { value: number; onChange: (warmerK: number) => void }) {
  const { units } = useJob("units");
  return (
    <NumberField
      label="The frame is warmer than the tape by"
      unit="0 when both are cold"
      kind={{ is: "warmth", units }}
      min={-80}
      max={900}
      value={value}
      onChange={(v) => v !== null && onChange(v)}
    />
  );
}
