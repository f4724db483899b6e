"use client";

import { useEffect, useRef, useState } from "react";
import type { FaceLine } from "@/core/frame";
import { type JointFit, jointFitAdvice, predictionKey, type ReadGap, readGaps, withFilled, withShut } from "@/core/job";
import { faceWords, jointWords } from "@/core/plan";
import { plainLength } from "@/core/units";
import type { Predictions } from "@/workers/predictions";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { SelectField } from "../parts/SelectField";
import { Section } from "../parts/Sheet";

/** One gap: what it would do, asked for; whether it is counted in the forecast. */
function GapRow({ gap: read }: { gap: ReadGap }) {
  const { job, evaluation } = useJob("job", "evaluation");
  const { plan, units, edit } = usePlanField();
  const [fit, setFit] = useState<{ key: string; fit: JointFit } | null>(null);
  const [is, setIs] = useState<"quiet" | "working" | "failed">("quiet");
  const [line, setLine] = useState<FaceLine | "round">("round");
  const worker = useRef<Predictions | null>(null);
  useEffect(() => () => worker.current?.end(), []);
  const { structure, limits } = evaluation;
  // What was worked out of the frame as it was is nothing of it as it is; whether this gap is counted changes nothing of what it does.
  const gap: ReadGap = line === "round" ? read : { ...read, line };
  const key = `${gap.mm} ${line} ${predictionKey(withShut(plan, gap.joint))} ${JSON.stringify(plan.limits)}`;
  if (!structure) return null;
  const joint = structure.joints.find((j) => j.id === gap.joint);
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
        <SelectField
          label={`Where ${name} is open`}
          className="max-w-64"
          value={line}
          options={[
            ["round", "all round"],
            ...joint.faces.filter((f) => f.bead).map((f) => [f.line, faceWords(structure, joint, f)] as const),
          ]}
          onChange={setLine}
        />
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
