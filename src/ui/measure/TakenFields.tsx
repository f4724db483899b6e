"use client";

import { formatLength, typedText } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { Fold } from "../parts/Fold";
import { LengthField } from "../parts/LengthField";
import type { HowTaken } from "./useTaken";

/** What is done besides reading the tape: a block gone past, marks set in from the corners. Kept for the next readings too. */
export function TakenFields({ taken, onChange }: { taken: HowTaken; onChange: (taken: HowTaken) => void }) {
  const { units } = useJob("units");
  const note = [
    ...(taken.setIn ? [`crosses set in by ${formatLength(taken.setIn.mm, units, { trim: true }).text}`] : []),
    ...(taken.plus ? [`plus ${typedText(taken.plus, units)}`] : []),
  ].join(", ");
  const put = (key: keyof HowTaken, value: HowTaken[keyof HowTaken] | null) => {
    const { [key]: _old, ...rest } = taken;
    onChange(value && value.mm !== 0 ? { ...rest, [key]: value } : rest);
  };
  return (
    <Fold title="How it is taped" note={note === "" ? "corner to corner" : note}>
      <div className="grid gap-3 sm:grid-cols-2">
        <LengthField
          label="Crosses set in from both edges"
          hint="of each corner"
          units={units}
          optional
          value={taken.setIn ?? null}
          onChange={(v) => put("setIn", v)}
        />
        <LengthField
          label="Added to every reading"
          hint="block, radius past a weld"
          units={units}
          optional
          value={taken.plus ?? null}
          onChange={(v) => put("plus", v)}
        />
      </div>
      <p className="text-sm text-soft">
        Both stay for the next readings. What is taped from cross to cross is brought to the corners.
      </p>
    </Fold>
  );
}
