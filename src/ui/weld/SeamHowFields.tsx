"use client";

import { useState } from "react";
import type { Structure } from "@/core/frame";
import {
  type HeldWeld,
  HOLD_UNTIL,
  type HoldUntil,
  holdOf,
  holdUntilWords,
  type Step,
  seamRun,
  stepKey,
  weldWords,
} from "@/core/plan";
import { PROCESSES, type ProcessName, seamHow, withSeamHow } from "@/core/weld";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { SelectField } from "../parts/SelectField";

/** In how many lengths a bead may be laid. */
const LENGTHS = [1, 2, 3, 4, 5, 6];

/** What can be said of one weld. @param own the weld that the step lays. */
export default function SeamHowFields({ step, own, structure }: { step: Step; own: HeldWeld; structure: Structure }) {
  const { evaluation } = useJob("evaluation");
  const { plan, edit } = usePlanField();
  const [after, setAfter] = useState("");
  const [until, setUntil] = useState<HoldUntil>("cold");
  const joint = structure.joints.find((j) => j.id === own.joint);
  const face = joint?.faces.find((f) => f.line === own.line);
  if (!joint || !face) return null;
  const how = seamHow(plan.weld, own);
  const lay = (change: Parameters<typeof withSeamHow>[2]) =>
    edit((p) => {
      const { seams, ...weld } = p.weld;
      const next = withSeamHow(seams, own, change);
      return { ...p, weld: next ? { ...weld, seams: next } : weld };
    });
  const run = seamRun(structure, {}, joint, face, step.up);
  const others = evaluation.steps.flatMap((s): (readonly [string, HeldWeld])[] =>
    (s.id.do === "tack" || s.id.do === "bead") && s.key !== stepKey(own)
      ? [[s.key, { do: s.id.do, joint: s.id.joint, line: s.id.line }]]
      : [],
  );
  const first = others.find(([key]) => key === after) ?? others[0];
  const isBead = own.do === "bead";
  return (
    <div className="grid max-w-prose gap-3" data-testid="seam-how">
      {isBead && run ? (
        <Choice
          label="Run"
          value={how.turned ? "turned" : "usual"}
          options={[
            ["usual", `From ${run.from} to ${run.to}`],
            ["turned", `From ${run.to} to ${run.from}`],
          ]}
          onChange={(way) => lay({ turned: way === "turned" ? true : undefined })}
        />
      ) : null}
      {isBead ? (
        <div className="grid gap-3 sm:grid-cols-2">
          <SelectField
            label="Laid"
            value={String(how.lengths ?? 1)}
            options={LENGTHS.map((n) => [String(n), n === 1 ? "as its school lays it" : `in ${n} lengths`])}
            onChange={(n) => lay({ lengths: Number(n) > 1 ? Number(n) : undefined })}
          />
          <SelectField
            label="Process"
            value={how.process ?? "same"}
            options={[
              ["same", "as the other beads"],
              ...(Object.keys(PROCESSES) as ProcessName[])
                .filter((p) => p !== plan.weld.process)
                .map((p) => [p, PROCESSES[p].label] as const),
            ]}
            onChange={(p) => lay({ process: p === "same" ? undefined : (p as ProcessName) })}
          />
        </div>
      ) : null}
      {first ? (
        <div className="grid gap-2">
          <SelectField
            label="Not before"
            value={first[0]}
            options={others.map(([key, weld]) => [key, weldWords(structure, weld)])}
            onChange={setAfter}
          />
          <div className="flex flex-wrap items-end gap-2">
            <SelectField
              label="That"
              value={until}
              options={HOLD_UNTIL.map((u) => [u, holdUntilWords(u)])}
              onChange={setUntil}
              className="min-w-0 grow"
            />
            <Button
              onClick={() => {
                const hold = holdOf(own, first[1], until);
                edit((p) => ({ ...p, holds: [...(p.holds ?? []).filter((h) => h.id !== hold.id), hold] }));
              }}
            >
              Let it wait
            </Button>
          </div>
        </div>
      ) : null}
    </div>
  );
}
