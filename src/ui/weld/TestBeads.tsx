"use client";

import dynamic from "next/dynamic";
import { useCallback, useEffect, useMemo, useState } from "react";
import { materialOf, thinnestWallMm, weldOf } from "@/core/job";
import { fixed, physical, wallWords } from "@/core/units";
import { beadsOn, provenOn, type TestBead, type Weld } from "@/core/weld";
import { useJob } from "../job/JobProvider";
import { transport } from "../job/store/transport";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { Fold } from "../parts/Fold";
import { useWarm } from "../parts/useWarm";
import { When } from "../parts/When";
import type { TypedBead } from "./BeadLog";

const log = () => import("./BeadLog");
// Comes when it is opened.
const BeadLog = dynamic(log, { ssr: false });
const LATER = [log];

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
  const [typed, setTyped] = useState<TypedBead>({ seam: "fillet", position: "flat", result: "keep", note: "" });
  useWarm(LATER);
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
        <BeadLog
          own={own}
          on={on}
          settings={{ volts: weld.volts, amps: weld.amps, travelMmPerS: weld.travelMmPerS }}
          words={words}
          typed={typed}
          onTyped={setTyped}
          onLogged={(bead) => setBeads((all) => [bead, ...all])}
        />
      </Fold>
    </div>
  );
}
