"use client";

import type { Point } from "@/core/frame";
import type { UnitPreference } from "@/core/units";
import { LengthField } from "../../parts/LengthField";

const AXES = ["x", "y", "z"] as const;
const HINT = { x: "to the right", y: "to the back", z: "up" } as const;

/** Three lengths that make a place, a size or a way. */
export function PointFields({
  label,
  value,
  units,
  onChange,
  hints = true,
}: {
  label: string;
  value: Point;
  units: UnitPreference;
  onChange: (next: Point) => void;
  hints?: boolean;
}) {
  return (
    <fieldset className="min-w-0">
      <legend className="text-sm font-semibold">{label}</legend>
      <div className="grid grid-cols-3 gap-2">
        {AXES.map((a) => (
          <LengthField
            key={a}
            label={<span aria-hidden="true">{a}</span>}
            hint={
              <>
                <span className="sr-only">{`${label}, ${a}`}</span>
                {hints ? <span aria-hidden="true">{HINT[a]}</span> : null}
              </>
            }
            units={units}
            value={value[a]}
            onChange={(v) => v && onChange({ ...value, [a]: v })}
          />
        ))}
      </div>
    </fieldset>
  );
}
