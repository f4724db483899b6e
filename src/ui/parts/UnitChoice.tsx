import type { UnitPreference } from "@/core/units";
import { Choice } from "./Choice";

/** In which system lengths are told and taken. */
export function UnitChoice({ value, onChange }: { value: UnitPreference; onChange: (value: UnitPreference) => void }) {
  return (
    <Choice
      label="Lengths in"
      value={value}
      options={[
        ["mm", "mm"],
        ["inch-fraction", "inch, fractions"],
        ["inch-decimal", "inch, decimal"],
      ]}
      onChange={onChange}
    />
  );
}
