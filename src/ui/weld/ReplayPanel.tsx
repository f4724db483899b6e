"use client";

import { Pause, Play } from "lucide-react";
import { Slider } from "radix-ui";
import { useEffect, useId, useState } from "react";
import type { FaceLine, Structure } from "@/core/frame";
import { bandWords, barsOf, type Plan, predictedDecimals, releaseWords, tacksBearN, weldOf } from "@/core/job";
import { faceWords, type Step } from "@/core/plan";
import {
  largestSteps,
  type OutcomeId,
  outcomeKey,
  outcomeWords,
  predicted,
  type Replay,
  replayed,
  toldOutcomes,
} from "@/core/shrink";
import { formatSmall, physical, type UnitPreference } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { Button } from "../parts/Button";
import { rowOf } from "./replay";
import { useStepWords } from "./useStepWords";

/** A step lasts this long while the replay runs, ms. */
const BEAT_MS = 420;
/** Steps named under "what did most". */
const NAMED = 6;

/** Moves through the order: what the drawing shows follows. */
export function StepSlider({
  steps,
  index,
  onIndex,
}: {
  steps: readonly Step[];
  index: number;
  onIndex: (i: number) => void;
}) {
  const [running, setRunning] = useState(false);
  const wordsOf = useStepWords();
  const step = steps[index];
  const last = steps.length - 1;
  const runs = running && index < last;
  useEffect(() => {
    if (!runs) return;
    const timer = window.setTimeout(() => onIndex(index + 1), BEAT_MS);
    return () => window.clearTimeout(timer);
  }, [runs, index, onIndex]);
  return (
    <div className="flex items-center gap-3">
      <Button
        aria-label={runs ? "Pause the replay" : "Replay the order"}
        onClick={() => {
          if (runs) return setRunning(false);
          if (index >= last) onIndex(0);
          setRunning(true);
        }}
      >
        {runs ? <Pause size={20} aria-hidden="true" /> : <Play size={20} aria-hidden="true" />}
      </Button>
      <Slider.Root
        className="relative flex tap grow touch-none items-center select-none"
        min={0}
        max={Math.max(1, last)}
        step={1}
        value={[Math.max(0, index)]}
        onValueChange={([i]) => {
          setRunning(false);
          if (i !== undefined) onIndex(i);
        }}
      >
        <Slider.Track className="relative h-1.5 grow rounded bg-line">
          <Slider.Range className="absolute h-full rounded bg-plum" />
        </Slider.Track>
        <Slider.Thumb
          className="block size-8 rounded-full border-2 border-sheet bg-plum shadow"
          aria-label="Step of the replay"
          aria-valuetext={`Step ${index + 1} of ${steps.length}: ${step ? wordsOf(step).say : ""}`}
        />
      </Slider.Root>
      <span className="fig w-20 text-right text-sm whitespace-nowrap text-soft">
        {index + 1} / {steps.length}
      </span>
    </div>
  );
}

/** What is told of a replay. */
const toldOf = (replay: Replay): OutcomeId[] =>
  toldOutcomes(
    replay.outcomes.map((o) => o.id),
    (id) => replayed(replay, id)?.after.at(-1) ?? 0,
  );

/** An outcome at the head of a row: sides by their letters. */
const rowWords = (id: OutcomeId): string =>
  id.kind === "span" ? id.span : id.kind === "length" ? id.member : outcomeWords(id);

/** True numbers beside the exaggerated drawing: this step, so far, and cold with its band. */
export function ReplayNumbers({ replay, step, before }: { replay: Replay; step: Step; before: Step | undefined }) {
  const { evaluation, units } = useJob("evaluation", "units");
  const row = rowOf(replay, step.key);
  const earlier = before ? rowOf(replay, before.key) : -1;
  const small = (mm: number): string =>
    formatSmall(mm, units, { decimals: predictedDecimals(units), bare: true, signed: true });
  return (
    <table className="w-full text-left text-[0.9rem] sm:text-base">
      <caption className="mb-1 text-left text-sm text-soft">
        Predicted change, {units === "mm" ? "mm" : "in"}; minus is shorter.
        {replayed(replay, { kind: "twist" }) ? " Twist: A and C above B and D." : ""}
      </caption>
      <thead className="text-sm text-soft">
        <tr>
          <th className="font-normal">
            <span className="sr-only">Size</span>
          </th>
          <th className="text-right font-normal">this step</th>
          <th className="text-right font-normal">so far</th>
          <th className="text-right font-normal">cold, nine in ten</th>
        </tr>
      </thead>
      <tbody>
        {toldOf(replay).map((id) => {
          const by = replayed(replay, id);
          const cold = evaluation.prediction && predicted(evaluation.prediction, id);
          if (!by || !cold) return null;
          return (
            <tr key={outcomeKey(id)} className="border-t border-line">
              <th className="fig py-1 font-semibold whitespace-nowrap">{rowWords(id)}</th>
              <td className="fig py-1 pl-2 text-right">{small((by.after[row] ?? 0) - (by.after[earlier] ?? 0))}</td>
              <td className="fig py-1 pl-2 text-right">{small(by.after[row] ?? 0)}</td>
              <td className="fig py-1 pl-2 text-right text-plum">{bandWords(cold, units, false)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const letGoWords = (structure: Structure, plan: Plan, replay: Replay, step: Step, units: UnitPreference): string[] =>
  releaseWords(replay, step.key, barsOf(structure, plan), tacksBearN(structure, weldOf(plan)), units);

/** What is let go at a step: how hard it is held, how far it goes. */
export function LetGo({ replay, step }: { replay: Replay; step: Step }) {
  const { job, evaluation, units } = useJob("job", "evaluation", "units");
  const { structure } = evaluation;
  const words = structure ? letGoWords(structure, job.plan, replay, step, units) : [];
  return words.length > 0 ? (
    <ul className="mt-2 max-w-prose" data-testid="let-go">
      {words.map((w) => (
        <li key={w}>{w}</li>
      ))}
    </ul>
  ) : null;
}

/** What is under force at a step: clamps that hold the frame off where it wants to be, tacks that gave way. */
export function ReplayForces({ replay, step }: { replay: Replay; step: Step }) {
  const { job, evaluation, units } = useJob("job", "evaluation", "units");
  const row = rowOf(replay, step.key);
  const own = replay.ids.flatMap((id, i) => (id === step.key ? [i] : []));
  const before = own[0] !== undefined && step.id.do === "release" ? own[0] - 1 : row;
  const pull = Math.max(0, ...(replay.clampForces[before] ?? []).map((c) => Math.abs(c.forceN)));
  const { structure } = evaluation;
  const place = (name: string, line: FaceLine): string => {
    const joint = structure?.joints.find((j) => j.id === name);
    const face = joint?.faces.find((f) => f.line === line);
    return structure && joint && face ? faceWords(structure, joint, face) : name;
  };
  const gaveWay = replay.yielded
    .filter((y) => own.includes(y.step))
    .flatMap((y) =>
      y.lines.filter((l) => step.id.do !== "bead" || replay.lines[y.step] !== l).map((l) => place(y.joint, l)),
    );
  // What is let go at a step stands with the step itself.
  const isLetGo = structure !== null && letGoWords(structure, job.plan, replay, step, units).length > 0;
  const words = [
    pull >= 20 && !isLetGo
      ? `${step.id.do === "release" ? "Until now clamps and stops hold" : "Clamps and stops hold"} with up to ${physical("force", pull / 1000, units)} each, about ${physical("mass", pull / 9.81, units, 0)}${step.id.do === "release" ? ": let them go slowly" : ""}.`
      : null,
    gaveWay.length > 0
      ? `${gaveWay.length === 1 ? "A tack gives" : "Tacks give"} way a little here: ${gaveWay.join("; ")}.`
      : null,
  ].filter((w) => w !== null);
  return words.length > 0 ? <p className="max-w-prose">{words.join(" ")}</p> : null;
}

/** Outcomes of which one asks what moved them: sizes and shape of the whole, not the line of one member. */
const isAsked = ({ kind }: OutcomeId): boolean =>
  !["angle", "bow", "lift", "place", "taper length", "taper width"].includes(kind);

/** The outcome that is asked about first: squareness where there is one. */
const toldFirst = (replay: Replay): OutcomeId =>
  replayed(replay, { kind: "square" })?.id ?? toldOf(replay)[0] ?? { kind: "flat" };

/** Which steps moved one quantity most, with bars; each leads to its step. */
export function StepsThatDidMost({ replay, onStep }: { replay: Replay; onStep: (key: string) => void }) {
  const { evaluation, units } = useJob("evaluation", "units");
  const choices = replay.outcomes.map((o) => o.id).filter(isAsked);
  const [asked, setAsked] = useState<string | null>(null);
  const outcome = choices.find((c) => outcomeKey(c) === asked) ?? toldFirst(replay);
  const wordsOf = useStepWords();
  const id = useId();
  const named = largestSteps(replay, outcome).slice(0, NAMED);
  const reach = Math.max(...named.map((n) => Math.abs(n.change)), 1e-9);
  return (
    <div className="grid gap-2">
      <label htmlFor={id} className="text-sm text-soft">
        What moved{" "}
        <select
          id={id}
          className="tap rounded-[3px] border border-edge bg-well px-2 text-ink"
          value={outcomeKey(outcome)}
          onChange={(e) => setAsked(e.target.value)}
        >
          {choices.map((c) => (
            <option key={outcomeKey(c)} value={outcomeKey(c)}>
              {outcomeWords(c)}
            </option>
          ))}
        </select>{" "}
        most
      </label>
      {named.length === 0 ? (
        <p className="text-soft">No single step moves it by as much as can be told.</p>
      ) : (
        <ol className="grid">
          {named.map(({ step, change }) => {
            const found = evaluation.steps.find((s) => s.key === step);
            return (
              <li key={step} className="border-t border-line">
                <button
                  type="button"
                  className="grid tap w-full grid-cols-[1fr_5.5rem_4.5rem] items-center gap-2 text-left leading-tight"
                  onClick={() => onStep(step)}
                >
                  <span>{found ? wordsOf(found).say : step}</span>
                  <span className="relative h-3" aria-hidden="true">
                    <span className="absolute inset-y-0 left-1/2 w-px bg-edge" />
                    <span
                      className="absolute inset-y-0 bg-plum"
                      style={{
                        left: change < 0 ? `${50 - (50 * -change) / reach}%` : "50%",
                        width: `${(50 * Math.abs(change)) / reach}%`,
                      }}
                    />
                  </span>
                  <span className="fig text-right">
                    {formatSmall(change, units, { decimals: predictedDecimals(units), bare: true, signed: true })}
                  </span>
                </button>
              </li>
            );
          })}
        </ol>
      )}
      <p className="text-sm text-soft">
        What is left of each step in the cold frame. All steps add up to the nominal change; scatter is in its band.
      </p>
    </div>
  );
}
