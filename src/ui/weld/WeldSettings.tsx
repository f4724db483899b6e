"use client";

import { materialOf, type Plan, thinnestWallMm, weldOf } from "@/core/job";
import { formatSmall, physical, wallWords } from "@/core/units";
import { consumed, fedWords, filletOfHeat, heatJPerMm, PROCESSES, type ProcessName } from "@/core/weld";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";
import { TestBeads } from "./TestBeads";

/** Settings as read on the machine; heat and the prediction follow from them. */
export function WeldSettings() {
  const { plan, units, edit, field, forget } = usePlanField();
  const weld = weldOf(plan);
  const begins = weld.from === "starting";
  const set = (change: Partial<Plan["weld"]>) => edit((p) => ({ ...p, weld: { ...p.weld, ...change } }));
  // What is typed is read on a machine: the others stay as they are shown.
  const read = (change: Partial<Plan["weld"]>) =>
    edit((p) => ({ ...p, weld: { ...weldOf(p), ...change, from: "machine" } }));
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
        onChange={(volts) => volts !== null && read({ volts })}
      />
      <NumberField
        label="Current"
        unit="A"
        min={5}
        max={600}
        value={weld.amps}
        {...field("weld.amps")}
        onChange={(amps) => amps !== null && read({ amps })}
      />
      <NumberField
        label="Travel"
        unit=""
        kind={{ is: "speed", units }}
        min={0.5}
        max={50}
        value={weld.travelMmPerS}
        {...field("weld.travelMmPerS")}
        onChange={(travelMmPerS) => travelMmPerS !== null && read({ travelMmPerS })}
      />
      <LengthField
        label="Tack length"
        units={units}
        value={weld.tackLength}
        {...field("weld.tackLength")}
        onChange={(tackLength) => tackLength && set({ tackLength })}
      />
      <p className="sm:col-span-2">
        Heat <span className="fig font-semibold">{physical("heat", heatJPerMm(weld), units)}</span>{" "}
        <span className="text-sm text-soft">
          = efficiency {PROCESSES[weld.process].efficiency} × volts × amps / travel; about a{" "}
          {formatSmall(filletOfHeat(weld.process, heatJPerMm(weld)), units)} fillet
        </span>
      </p>
      <p className="text-sm text-soft sm:col-span-2">
        {fedWords(consumed(weld, 0, thinnestWallMm(plan), materialOf(plan)), units)}
      </p>
      {begins ? (
        <p className="text-sm sm:col-span-2" data-testid="starting">
          To begin with, for a wall of {wallWords(thinnestWallMm(plan), units)}: from memory, not read on your machine,
          so the bands are wider. Type what it shows.
        </p>
      ) : (
        <Button
          className="justify-self-start sm:col-span-2"
          onClick={() => {
            forget("weld.");
            set({ from: "starting" });
          }}
        >
          Back to settings to begin with
        </Button>
      )}
      <TestBeads
        onUse={({ volts, amps, travelMmPerS }) => {
          forget("weld.");
          read({ volts, amps, travelMmPerS });
        }}
      />
    </div>
  );
}
