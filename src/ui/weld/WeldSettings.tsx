"use client";

import { materialOf, type Plan, thinnestWallMm, weldOf } from "@/core/job";
import { formatSmall, physical, wallWords } from "@/core/units";
import {
  type ArcSettings,
  consumed,
  fedWords,
  filletOfHeat,
  heatJPerMm,
  PROCESSES,
  type ProcessName,
  processesOf,
  settingsBy,
} from "@/core/weld";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { FieldMessage } from "../parts/Field";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";
import { TestBeads } from "./TestBeads";

type Arc = Pick<ArcSettings, "volts" | "amps" | "travelMmPerS">;

/** What an arc burns with, as it is read on the machine. @param path where its fields are in the plan. */
function ArcFields({ arc, path, onRead }: { arc: Arc; path: string; onRead: (change: Partial<Arc>) => void }) {
  const { units, field } = usePlanField();
  return (
    <>
      <NumberField
        label="Voltage"
        unit="V"
        min={5}
        max={50}
        value={arc.volts}
        {...field(`${path}.volts`)}
        onChange={(volts) => volts !== null && onRead({ volts })}
      />
      <NumberField
        label="Current"
        unit="A"
        min={5}
        max={600}
        value={arc.amps}
        {...field(`${path}.amps`)}
        onChange={(amps) => amps !== null && onRead({ amps })}
      />
      <NumberField
        label="Travel"
        unit=""
        kind={{ is: "speed", units }}
        min={0.5}
        max={50}
        value={arc.travelMmPerS}
        {...field(`${path}.travelMmPerS`)}
        onChange={(travelMmPerS) => travelMmPerS !== null && onRead({ travelMmPerS })}
      />
    </>
  );
}

/** Settings of a process that some welds are laid with besides. */
function OtherProcess({ process }: { process: ProcessName }) {
  const { plan, units, edit, forget, field } = usePlanField();
  const arc = settingsBy(weldOf(plan), process);
  const path = `weld.others.${process}`;
  const { problem } = field(path);
  const keep = (change: Partial<Arc> | null) =>
    edit((p) => {
      const { others, ...weld } = p.weld;
      const { volts, amps, travelMmPerS } = settingsBy(weldOf(p), process);
      const rest = (others ?? []).filter((o) => o.id !== process);
      const own = { id: process, volts, amps, travelMmPerS, ...change, from: "machine" as const };
      const next = change ? [...rest, own] : rest;
      return { ...p, weld: next.length > 0 ? { ...weld, others: next } : weld };
    });
  return (
    <fieldset className="grid gap-4 border-t border-line pt-3 sm:col-span-2 sm:grid-cols-2">
      <legend className="font-semibold">{PROCESSES[process].label}</legend>
      <ArcFields arc={arc} path={path} onRead={keep} />
      <p className="self-end">
        Heat <span className="fig font-semibold">{physical("heat", heatJPerMm(arc), units)}</span>
      </p>
      {problem ? <FieldMessage severity={problem.severity}>{problem.message}</FieldMessage> : null}
      {arc.from === "starting" ? (
        <p className="text-sm sm:col-span-2">To begin with, not read on your machine. Type what it shows.</p>
      ) : (
        <Button
          className="justify-self-start sm:col-span-2"
          onClick={() => {
            forget(`${path}.`);
            keep(null);
          }}
        >
          Back to settings to begin with
        </Button>
      )}
    </fieldset>
  );
}

/** How long tacks are: as the wall asks for until somebody says otherwise. */
function TackLength() {
  const { plan, units, edit, forget, field } = usePlanField();
  const keep = (change: Pick<Plan["weld"], "tackLength">) =>
    edit(({ weld: { tackLength: _, ...weld }, ...p }) => ({ ...p, weld: { ...weld, ...change } }));
  return (
    <div className="grid content-start gap-1">
      <LengthField
        label="Tack length"
        units={units}
        value={weldOf(plan).tackLength}
        {...field("weld.tackLength")}
        onChange={(tackLength) => tackLength && keep({ tackLength })}
      />
      {plan.weld.tackLength ? (
        <Button
          className="justify-self-start"
          onClick={() => {
            forget("weld.tackLength");
            keep({});
          }}
        >
          Back to the usual tack
        </Button>
      ) : (
        <p className="text-sm text-soft">
          To begin with: a little over three times the wall, and no more than two fifths of the narrowest face (from
          memory).
        </p>
      )}
    </div>
  );
}

/** Settings as read on the machine; heat and the prediction follow from them. */
export function WeldSettings() {
  const { plan, units, edit, forget } = usePlanField();
  const weld = weldOf(plan);
  const begins = weld.from === "starting";
  const set = (change: Partial<Plan["weld"]>) => edit((p) => ({ ...p, weld: { ...p.weld, ...change } }));
  // What is typed is read on a machine: the others stay as they are shown.
  const read = (change: Partial<Arc>) =>
    edit((p) => {
      const { volts, amps, travelMmPerS } = weldOf(p);
      return { ...p, weld: { ...p.weld, volts, amps, travelMmPerS, ...change, from: "machine" } };
    });
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <SelectField
        label="Process"
        value={weld.process}
        options={(Object.keys(PROCESSES) as ProcessName[]).map((p) => [p, PROCESSES[p].label] as const)}
        onChange={(process) => set({ process })}
        className="sm:col-span-2"
      />
      <ArcFields arc={weld} path="weld" onRead={read} />
      <TackLength />
      <SelectField
        label="Tacks by"
        value={plan.weld.tackProcess ?? "same"}
        options={[
          ["same", "the same process"],
          ...(Object.keys(PROCESSES) as ProcessName[])
            .filter((p) => p !== weld.process)
            .map((p) => [p, PROCESSES[p].label] as const),
        ]}
        onChange={(p) =>
          edit(({ weld: { tackProcess: _, ...rest }, ...all }) => ({
            ...all,
            weld: p === "same" ? rest : { ...rest, tackProcess: p as ProcessName },
          }))
        }
        className="sm:col-span-2"
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
      {processesOf(weld)
        .slice(1)
        .map((p) => (
          <OtherProcess key={p} process={p} />
        ))}
      <TestBeads
        onUse={({ volts, amps, travelMmPerS }) => {
          forget("weld.");
          read({ volts, amps, travelMmPerS });
        }}
      />
    </div>
  );
}
