"use client";

import { useCallback, useEffect, useId, useMemo, useState } from "react";
import { v4 as uuid } from "uuid";
import { materialOf, thinnestWallMm, weldOf } from "@/core/job";
import { fixed, physical, wallWords } from "@/core/units";
import {
  BEAD_RESULTS,
  beadsOn,
  PROCESSES,
  provenOn,
  SEAM_KINDS,
  SEAM_POSITIONS,
  type SeamKind,
  type SeamPosition,
  type TestBead,
  type Weld,
} from "@/core/weld";
import { useJob } from "../job/JobProvider";
import { transport } from "../job/store/transport";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { origin } from "../parts/device";
import { FieldMessage, inputClass } from "../parts/Field";
import { Fold } from "../parts/Fold";
import { SelectField } from "../parts/SelectField";
import { When } from "../parts/When";

/** Beads that are listed. */
const MOST_SHOWN = 6;

type Settings = Pick<Weld, "volts" | "amps" | "travelMmPerS">;

/** The shop's log of test beads: what it has proven on such a wall, to be taken, and a bead more. */
export function TestBeads({ onUse }: { onUse: (settings: Settings) => void }) {
  const { plan, units } = usePlanField();
  const { job } = useJob("job");
  const weld = weldOf(plan);
  const on = useMemo(
    () => ({ process: weld.process, wallMm: thinnestWallMm(plan), material: materialOf(plan) }),
    [weld.process, plan],
  );
  const [beads, setBeads] = useState<readonly TestBead[]>([]);
  const [said, setSaid] = useState<string | null>(null);
  const [seam, setSeam] = useState<SeamKind>("fillet");
  const [position, setPosition] = useState<SeamPosition>("flat");
  const [result, setResult] = useState<TestBead["result"]>("keep");
  const [note, setNote] = useState("");
  const id = useId();
  const load = useCallback(async () => {
    try {
      const { status, body } = await transport("GET", "/api/test-beads");
      if (status === 200) setBeads(body as TestBead[]);
    } catch {
      // Without the server there is no log to show: the settings stand on their own.
    }
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: read anew for another job
  useEffect(() => void load(), [load, job.id]);
  const own = beadsOn(beads, on);
  const proven = provenOn(beads, on);
  const words = (b: Settings): string =>
    `${fixed(b.volts, 1)} V, ${fixed(b.amps, 0)} A, ${physical("speed", b.travelMmPerS, units)}`;
  const isUsed =
    proven !== null &&
    proven.volts === weld.volts &&
    proven.amps === weld.amps &&
    proven.travelMmPerS === weld.travelMmPerS;
  const log = async () => {
    const bead: TestBead = {
      id: uuid(),
      at: new Date().toISOString(),
      origin: origin(),
      ...on,
      volts: weld.volts,
      amps: weld.amps,
      travelMmPerS: weld.travelMmPerS,
      seam,
      position,
      result,
      note: note.trim(),
    };
    try {
      const { status, body } = await transport("POST", "/api/test-beads", bead);
      if (status !== 200) {
        setSaid((body as { message?: string } | null)?.message ?? "The server did not take it.");
        return;
      }
      setSaid(null);
      setNote("");
      setBeads((all) => [bead, ...all]);
    } catch {
      setSaid("The server cannot be reached just now, and the bead is not logged. Try again in a moment.");
    }
  };
  return (
    <div className="grid gap-2 sm:col-span-2" data-testid="test-beads">
      {proven && !isUsed ? (
        <p className="max-w-prose">
          Proven here on {wallWords(proven.wallMm, units)} by a test bead: <span className="fig">{words(proven)}</span>.{" "}
          <Button onClick={() => onUse(proven)}>Use them</Button>
        </p>
      ) : null}
      {proven && isUsed ? (
        <p className="text-sm text-soft">
          Proven here by a test bead on {wallWords(proven.wallMm, units)}, {proven.origin}, <When at={proven.at} />.
        </p>
      ) : null}
      <Fold title="Test beads" note={own.length === 0 ? "none on such a wall" : String(own.length)}>
        <div className="grid gap-3">
          {own.length > 0 ? (
            <ul className="text-sm">
              {own.slice(0, MOST_SHOWN).map((b) => (
                <li key={b.id} className="border-t border-line py-1">
                  <span className="font-semibold">{b.result}</span>: <span className="fig">{words(b)}</span> on{" "}
                  {wallWords(b.wallMm, units)}, {b.seam}, {b.position}; {b.origin}, <When at={b.at} />
                  {b.note ? `: ${b.note}` : ""}
                </li>
              ))}
            </ul>
          ) : null}
          <p className="text-sm text-soft">
            On scrap of {wallWords(on.wallMm, units)} with the settings above ({PROCESSES[on.process].label}):
          </p>
          <div className="grid gap-3 sm:grid-cols-2">
            <SelectField
              label="Seam"
              value={seam}
              options={SEAM_KINDS.map((k) => [k, k] as const)}
              onChange={setSeam}
            />
            <SelectField
              label="Position"
              value={position}
              options={SEAM_POSITIONS.map((k) => [k, k] as const)}
              onChange={setPosition}
            />
            <SelectField
              label="It came out"
              value={result}
              options={BEAD_RESULTS.map((k) => [k, k === "keep" ? "well: keep these" : k] as const)}
              onChange={setResult}
            />
            <div>
              <label htmlFor={id} className="text-sm font-semibold">
                Note
              </label>
              <input
                id={id}
                className={inputClass(false)}
                value={note}
                maxLength={300}
                onChange={(e) => setNote(e.target.value)}
              />
            </div>
          </div>
          <div aria-live="polite">{said ? <FieldMessage severity="error">{said}</FieldMessage> : null}</div>
          <Button className="justify-self-start" onClick={() => void log()}>
            Log this test bead
          </Button>
        </div>
      </Fold>
    </div>
  );
}
