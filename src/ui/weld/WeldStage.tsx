"use client";

import { Check, ChevronLeft, ChevronRight } from "lucide-react";
import Link from "next/link";
import { useCallback, useEffect, useMemo, useRef } from "react";
import type { ResolvedFrame } from "@/core/frame";
import { predictedDecimals, STAGE_CAUTIONS } from "@/core/job";
import { type Step, TACK_SCHOOL, WELD_SCHOOL } from "@/core/plan";
import type { Replay } from "@/core/shrink";
import { formatSmall, type UnitPreference } from "@/core/units";
import { FrameDrawing } from "../drawing";
import { useJob } from "../job/JobProvider";
import { CarriesCaution } from "../job/Notices";
import { NotYet } from "../job/NotYet";
import { PredictionStatus } from "../job/PredictionStatus";
import { stagePath } from "../job/stages";
import { Button, buttonClass } from "../parts/Button";
import { Caution, Section } from "../parts/Sheet";
import { useAddress } from "../parts/useAddress";
import { useWakeLock } from "../parts/useWakeLock";
import { jointMark } from "./jointMark";
import { PredictionPanel } from "./PredictionPanel";
import { ReplayForces, ReplayNumbers, StepSlider, StepsThatDidMost } from "./ReplayPanel";
import { cornerLifts, exaggeration, movedOutlines, rowOf } from "./replay";
import { StructureReplay } from "./StructureReplay";
import { WeldSettings } from "./WeldSettings";

function StepList({ steps, now, onPick }: { steps: readonly Step[]; now: Step | null; onPick: (s: Step) => void }) {
  const { evaluation } = useJob();
  const here = useRef<HTMLButtonElement>(null);
  const key = now?.key;
  // biome-ignore lint/correctness/useExhaustiveDependencies: follows the step
  useEffect(() => {
    const button = here.current;
    const list = button?.closest("ol");
    if (button && list) list.scrollTop = button.offsetTop - list.clientHeight / 3;
  }, [key]);
  return (
    <ol
      className="relative max-h-[34rem] overflow-y-auto border-y border-line"
      aria-label="Order of work"
      tabIndex={-1}
    >
      {steps.map((s, i) => {
        const done = evaluation.ticked.has(s.key);
        const on = s.key === key;
        return (
          <li key={s.key} className="border-t border-line first:border-t-0">
            <button
              ref={on ? here : null}
              type="button"
              aria-current={on ? "step" : undefined}
              onClick={() => onPick(s)}
              className={`flex tap w-full items-center gap-3 px-2 py-1.5 text-left leading-tight ${on ? "bg-plum-soft font-semibold" : ""} ${s.kind === "measure" ? "text-brass" : ""}`}
            >
              <span className="fig w-7 shrink-0 text-right text-sm text-soft">{i + 1}</span>
              <span
                className={`grid size-6 shrink-0 place-items-center border ${done ? "border-ink bg-ink text-sheet" : "border-edge"}`}
              >
                {done ? <Check size={17} aria-hidden="true" /> : null}
              </span>
              <span>
                {s.say}
                {done ? <span className="sr-only">, done</span> : null}
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}

/** A rectangle with the joint that is worked on, what is done, and how it has moved by then. */
function RectangleReplay({
  frame,
  replay,
  steps,
  now,
  shown,
  ticked,
  factor,
  units,
}: {
  frame: ResolvedFrame;
  replay: Replay | null;
  steps: readonly Step[];
  now: Step | null;
  shown: Step | undefined;
  ticked: ReadonlySet<string>;
  factor: number;
  units: UnitPreference;
}) {
  const doneJoints = steps.filter((s) => s.joint && ticked.has(s.key)).flatMap((s) => jointMark(frame, s)?.at ?? []);
  const unique = [...new Map(doneJoints.map((q) => [`${q.x}/${q.y}`, q])).values()];
  const row = replay && shown ? rowOf(replay, shown.key) : -1;
  const lifts = replay ? cornerLifts(replay, row) : null;
  return (
    <FrameDrawing
      frame={frame}
      units={units}
      label={now ? `Where to work: ${now.say}` : "The frame"}
      selected={frame.joints.find((j) => j.name === now?.joint)?.members ?? []}
      joint={now ? jointMark(frame, now) : null}
      doneJoints={unique}
      moved={
        replay && row >= 0
          ? {
              outlines: movedOutlines(frame, replay, row, factor),
              note: `Dashed: predicted after this step, drawn ${factor} times as large. At corners: height, ${units === "mm" ? "mm" : "in"}.`,
            }
          : null
      }
      cornerText={
        lifts
          ? Object.fromEntries(
              Object.entries(lifts).map(([c, mm]) => [
                c,
                formatSmall(mm, units, { decimals: predictedDecimals(units), bare: true, signed: true }),
              ]),
            )
          : {}
      }
      cornerTone="cool"
      bare
      maxHeight={400}
    />
  );
}

/** Sixth stage: the order, one instruction at a time, to be ticked. */
export function WeldStage() {
  const { job, evaluation, store, predicted } = useJob();
  const { structure, frame, steps, ticked } = evaluation;
  const { replay, wantReplay } = predicted;
  const { units, free } = job.plan;
  const [asked, move] = useAddress("step");
  useWakeLock();
  useEffect(wantReplay, [wantReplay]);
  const part = (steps.find((s) => s.key === asked) ?? steps.find((s) => !ticked.has(s.key)) ?? steps.at(-1))?.part;
  const factor = useMemo(() => {
    if (!frame || !replay || free) return 1;
    const rows = steps.filter((s) => s.part === part).map((s) => rowOf(replay, s.key));
    return exaggeration(frame, replay, rows);
  }, [frame, replay, steps, part, free]);
  const show = useCallback(
    (i: number) => {
      const step = steps[i];
      if (step) move(step.key, "replace");
    },
    [steps, move],
  );
  if (!structure) return <NotYet stage="Tack and weld" />;
  const next = steps.find((s) => !ticked.has(s.key)) ?? null;
  const now = steps.find((s) => s.key === asked) ?? next;
  const index = now ? steps.indexOf(now) : -1;
  const go = (s: Step | undefined) => s && move(s.key);
  const done = now ? ticked.has(now.key) : true;
  const count = steps.filter((s) => ticked.has(s.key)).length;
  const tick = () => {
    if (!now) return;
    store.add({ kind: "tick", step: now.key, done: !done });
    if (done) return;
    const after = [...steps.slice(index + 1), ...steps.slice(0, index)].find((s) => !ticked.has(s.key));
    move(after?.key ?? null, "replace");
  };
  // With every step ticked the drawing shows the cold frame.
  const shownStep = now ?? steps.at(-1);
  return (
    <>
      <h1 className="sr-only">Tack and weld</h1>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,27rem)]">
        <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-5">
          {now ? (
            <div className="border-l-4 border-plum pl-4" data-testid="now">
              <p className="text-sm text-soft">
                Step <span className="fig">{index + 1}</span> of <span className="fig">{steps.length}</span>,{" "}
                {now.part === "tack" ? TACK_SCHOOL.name.toLowerCase() : WELD_SCHOOL.name.toLowerCase()} · {now.up} face
                up
                {done ? " · done" : ""}
              </p>
              <p className="mt-1 text-3xl leading-tight font-bold text-plum" aria-live="polite">
                {now.say}
              </p>
              <p className="mt-2 max-w-prose text-lg">{now.why}</p>
            </div>
          ) : (
            <div className="border-l-4 border-plum pl-4" data-testid="now">
              <p className="text-2xl font-semibold text-plum">All {steps.length} steps are ticked.</p>
              <p className="mt-1">Measure the cold frame next.</p>
            </div>
          )}
          {now?.caution ? <Caution>{now.caution}</Caution> : null}
          <div className="flex flex-wrap gap-2">
            {now ? (
              <Button look={done ? "plain" : "advise"} big className="min-h-16 grow text-xl md:grow-0" onClick={tick}>
                <Check size={26} aria-hidden="true" /> {done ? "Take the tick back" : "Done"}
              </Button>
            ) : null}
            <Button big disabled={index <= 0} onClick={() => go(steps[index - 1])} aria-label="Step before">
              <ChevronLeft size={24} aria-hidden="true" />
            </Button>
            <Button
              big
              disabled={index < 0 || index >= steps.length - 1}
              onClick={() => go(steps[index + 1])}
              aria-label="Step after"
            >
              <ChevronRight size={24} aria-hidden="true" />
            </Button>
            {now?.kind === "measure" ? (
              <Link
                href={stagePath(job.id, now.gate === "cold" ? "check" : "square")}
                className={`${buttonClass("plain", true)} no-underline`}
              >
                Measure now
              </Link>
            ) : null}
          </div>
          {free || !frame ? (
            <StructureReplay
              structure={structure}
              replay={replay}
              steps={steps}
              now={now}
              shown={shownStep}
              ticked={ticked}
              units={units}
            />
          ) : (
            <RectangleReplay
              frame={frame}
              replay={replay}
              steps={steps}
              now={now}
              shown={shownStep}
              ticked={ticked}
              factor={factor}
              units={units}
            />
          )}
          {replay && shownStep ? (
            <>
              <StepSlider steps={steps} index={steps.indexOf(shownStep)} onIndex={show} />
              <div className="grid grid-cols-[minmax(0,1fr)] gap-6">
                <ReplayNumbers replay={replay} step={shownStep} before={steps[steps.indexOf(shownStep) - 1]} />
                <ReplayForces replay={replay} step={shownStep} />
                <StepsThatDidMost replay={replay} onStep={(key) => go(steps.find((s) => s.key === key))} />
              </div>
            </>
          ) : (
            <PredictionStatus />
          )}
        </div>
        <div className="grid content-start gap-6">
          <Section
            title="Order of work"
            aside={
              <span className="text-sm text-soft">
                <span className="fig">
                  {count} of {steps.length}
                </span>{" "}
                done
              </span>
            }
          >
            <StepList steps={steps} now={now} onPick={go} />
          </Section>
          <Section title="Why this order">
            <dl className="grid max-w-prose gap-2">
              {[TACK_SCHOOL, WELD_SCHOOL].map((s) => (
                <div key={s.name}>
                  <dt className="font-semibold">{s.name}</dt>
                  <dd>
                    {s.says} <span className="text-soft">{s.why}</span>
                  </dd>
                </div>
              ))}
            </dl>
          </Section>
          <Section title="Predicted when cold" aside={<span className="text-sm text-soft">nine frames in ten</span>}>
            <PredictionPanel />
          </Section>
          <Section title="Settings">
            <WeldSettings />
          </Section>
          <Caution>{STAGE_CAUTIONS.weld}</Caution>
          <CarriesCaution />
        </div>
      </div>
    </>
  );
}
