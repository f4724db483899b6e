"use client";

import { useId, useState } from "react";
import { v4 as uuid } from "uuid";
import { wallWords } from "@/core/units";
import { BEAD_RESULTS, PROCESSES, SEAM_KINDS, SEAM_POSITIONS, type TestBead, type Weld } from "@/core/weld";
import { transport } from "../job/store/transport";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { origin } from "../parts/device";
import { FieldMessage, inputClass } from "../parts/Field";
import { SelectField } from "../parts/SelectField";
import { When } from "../parts/When";

/** Beads that are listed. */
const MOST_SHOWN = 6;

type Settings = Pick<Weld, "volts" | "amps" | "travelMmPerS">;

/** What is said of a bead before it is logged. */
export type TypedBead = Pick<TestBead, "seam" | "position" | "result" | "note">;

/** Test beads of the shop on such a wall, and a bead more with the settings as they are. */
export default function BeadLog({
  own,
  on,
  settings,
  words,
  typed,
  onTyped,
  onLogged,
}: {
  own: readonly TestBead[];
  on: Pick<TestBead, "process" | "wallMm" | "material">;
  settings: Settings;
  words: (settings: Settings) => string;
  typed: TypedBead;
  onTyped: (typed: TypedBead) => void;
  onLogged: (bead: TestBead) => void;
}) {
  const { units } = usePlanField();
  const [said, setSaid] = useState<string | null>(null);
  const id = useId();
  const log = async () => {
    const bead: TestBead = {
      id: uuid(),
      at: new Date().toISOString(),
      origin: origin(),
      ...on,
      ...settings,
      ...typed,
      note: typed.note.trim(),
    };
    try {
      const { status, body } = await transport("POST", "/api/test-beads", bead);
      if (status !== 200) {
        setSaid((body as { message?: string } | null)?.message ?? "The server did not take it.");
        return;
      }
      setSaid(null);
      onTyped({ ...typed, note: "" });
      onLogged(bead);
    } catch {
      setSaid("The server cannot be reached just now, and the bead is not logged. Try again in a moment.");
    }
  };
  return (
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
          value={typed.seam}
          options={SEAM_KINDS.map((k) => [k, k] as const)}
          onChange={(seam) => onTyped({ ...typed, seam })}
        />
        <SelectField
          label="Position"
          value={typed.position}
          options={SEAM_POSITIONS.map((k) => [k, k] as const)}
          onChange={(position) => onTyped({ ...typed, position })}
        />
        <SelectField
          label="It came out"
          value={typed.result}
          options={BEAD_RESULTS.map((k) => [k, k === "keep" ? "well: keep these" : k] as const)}
          onChange={(result) => onTyped({ ...typed, result })}
        />
        <div>
          <label htmlFor={id} className="text-sm font-semibold">
            Note
          </label>
          <input
            id={id}
            className={inputClass(false)}
            value={typed.note}
            maxLength={300}
            onChange={(e) => onTyped({ ...typed, note: e.target.value })}
          />
        </div>
      </div>
      <div aria-live="polite">{said ? <FieldMessage severity="error">{said}</FieldMessage> : null}</div>
      <Button className="justify-self-start" onClick={() => void log()}>
        Log this test bead
      </Button>
    </div>
  );
}
