"use client";

import { useState } from "react";
import { riseRun } from "@/core/cut";
import { fixed, formatLength, type Length, physical } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { LengthField } from "../parts/LengthField";

/** A slope as rise over run, in every way that a saw, a level or a drawing states it. */
export function RiseRun() {
  const { units } = useJob("units");
  const [rise, setRise] = useState<Length | null>(null);
  const [run, setRun] = useState<Length | null>(null);
  const found = rise && run && run.mm > 0 ? riseRun(rise.mm, run.mm) : null;
  return (
    <div className="grid max-w-prose gap-3">
      <div className="grid grid-cols-2 gap-3">
        <LengthField label="Rise" units={units} value={rise} optional onChange={setRise} />
        <LengthField label="Run" units={units} value={run} optional onChange={setRun} />
      </div>
      {run && run.mm <= 0 ? (
        <p className="text-fail">Run is nought or less: measure it level, more than nought.</p>
      ) : null}
      {found ? (
        <p aria-live="polite">
          <strong className="fig">{fixed(found.angleDeg, 2)}°</strong> from level, {fixed(90 - found.angleDeg, 2)}° from
          upright; <span className="fig">{physical("slope", found.mmPerM, units)}</span> or {fixed(found.percent, 1)} %.
          Along the slope it is <span className="fig">{formatLength(found.lengthMm, units).text}</span>.
        </p>
      ) : null}
    </div>
  );
}
