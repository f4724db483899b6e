"use client";

import { useEffect, useRef, useState } from "react";
import type { FaceLine } from "@/core/frame";
import { type JointFit, jointFitAdvice, predictionKey, type ReadGap, readGaps, withFilled, withShut } from "@/core/job";
import { faceAlone, jointWords } from "@/core/plan";
import { type Length, plainLength, stated } from "@/core/units";
import type { Predictions } from "@/workers/predictions";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { LengthField } from "../parts/LengthField";
import { Section } from "../parts/Sheet";

/** One gap: what it would do, asked for; whether it is counted in the forecast. */
function GapRow({ gap: read }: { gap: ReadGap }) {
  const { job, evaluation } = useJob("job", "evaluation");
  const { plan, units, edit } = usePlanField();
  const [fit, setFit] = useState<{ key: string; fit: JointFit } | null>(null);
  const [is, setIs] = useState<"quiet" | "working" | "failed">("quiet");
  const [where, setWhere] = useState<"round" | "faces">("round");
  const [typed, setTyped] = useState<Partial<Record<FaceLine, Length | null>>>({});
  const worker = useRef<Predictions | null>(null);
  useEffect(() => () => worker.current?.end(), []);
  const { structure, limits } = evaluation;
  // What was worked out of the frame as it was is nothing of it as it is; whether this gap is counted changes nothing of what it does.
  const joint = structure?.joints.find((j) => j.id === read.joint);
  const welded = joint?.faces.filter((f) => f.bead) ?? [];
  const openAt = (line: FaceLine): Length | null =>
    typed[line] === undefined ? stated(read.mm, units) : (typed[line] ?? null);
  const faces = welded.flatMap(({ line }) => {
    const { mm } = openAt(line) ?? { mm: 0 };
    return mm > 0 ? [{ line, mm }] : [];
  });
  const gap: ReadGap =
    where === "round" || faces.length === 0 ? read : { ...read, mm: Math.max(...faces.map((f) => f.mm)), faces };
  const key = `${JSON.stringify(gap)} ${predictionKey(withShut(plan, gap.joint))} ${JSON.stringify(plan.limits)}`;
  if (!structure) return null;
  const name = joint ? jointWords(structure, joint) : gap.joint;
  const isCounted = plan.found?.some((f) => f.id === gap.joint) === true;
  const ask = async () => {
    setIs("working");
    const failed = () => setIs("failed");
    try {
      const { Predictions } = await import("@/workers/predictions");
      worker.current?.end();
      const mine = new Predictions(failed);
      worker.current = mine;
      const found = await mine.jointFit(job, gap);
      mine.end();
      if (found) setFit({ key, fit: found });
      setIs("quiet");
    } catch {
      failed();
    }
  };
  const told = fit?.key === key ? jointFitAdvice(structure, fit.fit, limitOf(limits), units) : null;
  return (
    <li className="grid gap-2 border-t border-line py-2" data-testid={`gap-${gap.joint}`}>
      <p>
        <span className="font-semibold">{name}</span>: <span className="fig">{plainLength(gap.mm, units)}</span> open
        {isCounted ? ", counted in the forecast as filled" : ""}.
      </p>
      {joint && !isCounted ? (
        <div className="grid gap-2">
          <Choice
            label={`How ${name} is open`}
            value={where}
            options={[
              ["round", "the same all round"],
              ["faces", "face by face"],
            ]}
            onChange={setWhere}
          />
          {where === "faces" ? (
            <>
              <p className="text-sm text-soft">A face left empty is shut.</p>
              <div className="grid max-w-prose grid-cols-2 gap-3">
                {welded.map((f) => (
                  <LengthField
                    key={f.line}
                    label={sentence(faceAlone(structure, joint, f))}
                    units={units}
                    optional
                    value={openAt(f.line)}
                    onChange={(v) => setTyped((all) => ({ ...all, [f.line]: v }))}
                  />
                ))}
              </div>
            </>
          ) : null}
        </div>
      ) : null}
      {told ? (
        <ul className="grid max-w-prose gap-1" aria-live="polite" data-testid="gap-advice">
          {told.words.map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
      ) : null}
      {is === "failed" ? <p>It could not be worked out. Try again.</p> : null}
      <div className="flex flex-wrap gap-2">
        <Button disabled={is === "working"} onClick={() => void ask()}>
          {is === "working" ? "Working it out" : `What the gap at ${name} does`}
        </Button>
        <Button onClick={() => edit((p) => (isCounted ? withShut(p, gap.joint) : withFilled(p, gap)))}>
          {isCounted ? "It is shut now: count it no more" : "It is filled so: count it"}
        </Button>
      </div>
    </li>
  );
}

const sentence = (text: string): string => text.replace(/^./, (c) => c.toUpperCase());

const limitOf = (limits: readonly { kind: string; upper: number | null }[]): number | null =>
  limits.find((l) => l.kind === "gap")?.upper ?? null;

/** Gaps that were read at joints: what each does, and what to do about it. */
export function JointFits() {
  const { evaluation } = useJob("evaluation");
  const { frameRounds, places } = evaluation;
  const gaps = places ? readGaps(frameRounds, places.joints) : [];
  return gaps.length > 0 ? (
    <Section title="Gaps at joints">
      <ul>
        {gaps.map((g) => (
          <GapRow key={g.joint} gap={g} />
        ))}
      </ul>
    </Section>
  ) : null;
}
