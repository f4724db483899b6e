"use client";

import type { Plan } from "@/core/job";
import { fixed, formatSmall } from "@/core/units";
import { filletOfHeat, heatJPerMm, PROCESSES, type ProcessName } from "@/core/weld";
import { usePlanField } from "../job/usePlanField";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";

/** Settings as read on the machine; heat and the prediction follow from them. */
export function WeldSettings() {
  const { plan, units, edit, field } = usePlanField();
  const { weld } = plan;
  const set = (change: Partial<Plan["weld"]>) => edit((p) => ({ ...p, weld: { ...p.weld, ...change } }));
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <SelectField
        label="Process"
        value={weld.process}
        options={(Object.keys(PROCESSES) as ProcessName[]).map((p) => [p, PROCESSES[p].label] as const)}
        onChange={(process) => set({ process })}
        className="sm:col-span-2"
      />
      <NumberField
        label="Voltage"
        unit="V"
        min={5}
        max={50}
        value={weld.volts}
        {...field("weld.volts")}
        onChange={(volts) => volts !== null && set({ volts })}
      />
      <NumberField
        label="Current"
        unit="A"
        min={5}
        max={600}
        value={weld.amps}
        {...field("weld.amps")}
        onChange={(amps) => amps !== null && set({ amps })}
      />
      <NumberField
        label="Travel"
        unit="mm/s"
        min={0.5}
        max={50}
        value={weld.travelMmPerS}
        {...field("weld.travelMmPerS")}
        onChange={(travelMmPerS) => travelMmPerS !== null && set({ travelMmPerS })}
      />
      <LengthField
        label="Tack length"
        units={units}
        value={weld.tackLength}
        {...field("weld.tackLength")}
        onChange={(tackLength) => tackLength && set({ tackLength })}
      />
      <p className="sm:col-span-2">
        Heat <span className="fig font-semibold">{fixed(heatJPerMm(weld), 0)} J/mm</span>{" "}
        <span className="text-sm text-soft">
          = efficiency {PROCESSES[weld.process].efficiency} × volts × amps / travel; about a{" "}
          {formatSmall(filletOfHeat(weld.process, heatJPerMm(weld)), units)} fillet
        </span>
      </p>
    </div>
  );
}
