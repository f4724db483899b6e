"use client";

import { Check, ChevronLeft, ChevronRight } from "lucide-react";
import dynamic from "next/dynamic";
import Link from "next/link";
import { useCallback, useEffect, useId, useRef, useState } from "react";

import {
  effectWords,
  type GateAdvice,
  type GateReading,
  gateReading,
  measuring,
  STAGE_CAUTIONS,
  seamFacts,
  stepEffect,
  timeOf,
  weldOf,
} from "@/core/job";
import { jointWords, likeRun, SCHOOL_NAMES, type Step, seamCaution, weldWords } from "@/core/plan";
import { CarriesCaution } from "../job/CarriesCaution";
import { Forecasts, LikelyFailure } from "../job/Forecasts";
import { useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { PredictionStatus } from "../job/PredictionStatus";
import { roundPath, stagePath } from "../job/stages";
import { Button, buttonClass } from "../parts/Button";
import { FieldMessage, inputClass } from "../parts/Field";
import { Caution, Section } from "../parts/Sheet";
import { useAddress } from "../parts/useAddress";
import { useWakeLock } from "../parts/useWakeLock";
import { Verdict } from "../parts/Verdict";
import { WhenSeen } from "../parts/WhenSeen";
import { Cooling } from "./Cooling";
import { TooHotYet, useWarmth, WarmthWords } from "./Heat";
import { OrderPanel } from "./OrderPanel";
import { PredictionPanel } from "./PredictionPanel";
import { LetGo, ReplayForces, ReplayNumbers, StepSlider, StepsThatDidMost } from "./ReplayPanel";
import { SeamHow } from "./SeamHow";
import { useStepWords } from "./useStepWords";
import { WentOtherwise, WorkedOtherwise } from "./WentOtherwise";
import { WorkDrawing } from "./WorkDrawing";

// Comes when the order is changed.
const OrderEditor = dynamic(() => import("./OrderEditor").then((m) => m.OrderEditor), { ssr: false });
// Come when they are seen.
const WeldSettings = dynamic(() => import("./WeldSettings").then((m) => m.WeldSettings), { ssr: false });
/** Room kept for them, px. */
const SETTINGS_PX = 560;

function StepList({ steps, now, onPick }: { steps: readonly Step[]; now: Step | null; onPick: (s: Step) => void }) {
  const { evaluation } = useJob("evaluation");
  const wordsOf = useStepWords();
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
              className={`flex tap w-full items-center gap-3 px-2 py-1.5 text-left leading-tight ${on ? "bg-plum-soft font-semibold" : ""} ${s.id.do === "measure" ? "text-brass" : ""}`}
            >
              <span className="fig w-7 shrink-0 text-right text-sm text-soft">{i + 1}</span>
              <span
                className={`grid size-6 shrink-0 place-items-center border ${done ? "border-ink bg-ink text-sheet" : "border-edge"}`}
              >
                {done ? <Check size={17} aria-hidden="true" /> : null}
              </span>
              <span>
                {wordsOf(s).say}
                {done ? <span className="sr-only">, done</span> : null}
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}

/** What the last reading before welding asks for, and what it moved; a limit that is likely to fail is said above it. */
function FromHere({ advice }: { advice: GateAdvice }) {
  return (
    <div data-testid="from-here">
      <p className="text-lg font-semibold">{advice.say}</p>
      {advice.moved.map((m) => (
        <p key={m} className="text-sm text-soft">
          {m}
        </p>
      ))}
    </div>
  );
}

/** With what a tack or bead is laid. */
function AtSeam({ step }: { step: Step }) {
  const { job, evaluation } = useJob("job", "evaluation");
  const { structure } = evaluation;
  if (!structure || step.joint === null) return null;
  const facts = seamFacts(structure, weldOf(job.plan), step, job.plan.units);
  return (
    <div className="mt-2 grid max-w-prose gap-1 text-lg" data-testid="at-seam">
      {facts ? <p>{facts}</p> : null}
      <AtOnce step={step} />
      <TooHotYet step={step} />
    </div>
  );
}

/** What a tack or bead will do to the frame. */
function DoesToFrame({ step }: { step: Step }) {
  const { evaluation, predicted, units } = useJob("evaluation", "predicted", "units");
  const { structure, steps } = evaluation;
  if (!structure || step.joint === null) return null;
  const effect = predicted.replay && stepEffect(structure, predicted.replay, steps, step);
  const isComing = predicted.state.status === "working";
  if (!effect && !isComing) return null;
  return (
    <p className={`max-w-prose text-lg ${effect ? "" : "text-soft"}`} data-testid="does-to-frame">
      {effect ? effectWords(effect, units) : "What it does to the frame is being worked out…"}
    </p>
  );
}

/** Who lays a weld where two weld at once, and what the other lays meanwhile. */
function AtOnce({ step }: { step: Step }) {
  const { job, evaluation } = useJob("job", "evaluation");
  const { structure, steps } = evaluation;
  const time = job.plan.hands?.two ? timeOf(job) : null;
  const own = time?.steps.get(step.key);
  if (!structure || !time || !own) return null;
  const meanwhile = steps.find((s) => {
    const other = time.steps.get(s.key);
    return (
      other !== undefined &&
      other.welder !== own.welder &&
      s.joint !== null &&
      other.atS < own.atS + own.takesS &&
      own.atS < other.atS + other.takesS
    );
  });
  const words =
    meanwhile && (meanwhile.id.do === "tack" || meanwhile.id.do === "bead") ? weldWords(structure, meanwhile.id) : null;
  return (
    <p data-testid="at-once">
      {own.welder === 1 ? "The first" : "The second"} of two lays it
      {words ? `; meanwhile the other lays the ${words}` : ", the other waits"}.
    </p>
  );
}

/** What a step that asks for readings found, and the way past it, with a reason. */
function AtGate({ gate, done, onGoOn }: { gate: GateReading; done: boolean; onGoOn: (why: string) => void }) {
  const [why, setWhy] = useState("");
  const [said, setSaid] = useState<string | null>(null);
  const id = useId();
  const { evaluation } = useJob("evaluation");
  if (gate.state === "read")
    return (
      <div className="grid max-w-prose gap-1">
        <p className="flex flex-wrap items-center gap-3">
          <Verdict verdict="pass" /> Read in the round {gate.round?.round.gate} {gate.round?.number}.
        </p>
        {evaluation.atGate && evaluation.atGate.do !== "act" && !evaluation.cold ? (
          <FromHere advice={evaluation.atGate} />
        ) : null}
      </div>
    );
  if (done) return null;
  return (
    <div className="grid max-w-prose gap-2 border-l-4 border-close py-0.5 pl-4">
      {gate.state === "failed" ? (
        <p>
          <Verdict verdict="fail" /> {gate.why}
        </p>
      ) : (
        <p>Not read yet. The step is done when its readings are there.</p>
      )}
      <form
        className="grid gap-1"
        onSubmit={(e) => {
          e.preventDefault();
          if (why.trim() === "") setSaid("Say why: it is kept with the job.");
          else onGoOn(why.trim());
        }}
      >
        <label htmlFor={id} className="text-sm font-semibold">
          {gate.state === "failed" ? "Go on although it fails, because" : "Go on without, because"}
        </label>
        <div className="flex flex-wrap gap-2">
          <input
            id={id}
            className={`${inputClass(said !== null)} max-w-80`}
            value={why}
            maxLength={400}
            aria-invalid={said !== null}
            aria-describedby={`${id}-said`}
            onChange={(e) => {
              setSaid(null);
              setWhy(e.target.value);
            }}
          />
          <Button type="submit" big>
            Go on
          </Button>
        </div>
        <div id={`${id}-said`} aria-live="polite">
          {said ? <FieldMessage severity="error">{said}</FieldMessage> : null}
        </div>
      </form>
    </div>
  );
}

/** Sixth stage: the order, one instruction at a time, to be ticked. */
export function WeldStage() {
  const { job, evaluation, store, predicted } = useJob("job", "evaluation", "store", "predicted");
  const { structure, order, steps, ticked } = evaluation;
  const { replay, wantReplay } = predicted;
  const { units } = job.plan;
  const wordsOf = useStepWords();
  const [asked, move] = useAddress("step");
  const [editing, setEditing] = useState(false);
  const warmth = useWarmth();
  useWakeLock();
  useEffect(wantReplay, [wantReplay]);
  const show = useCallback(
    (i: number) => {
      const step = steps[i];
      if (step) move(step.key, "replace");
    },
    [steps, move],
  );
  if (!structure || !order) return <NotYet stage="Tack and weld" />;
  const next = steps.find((s) => !ticked.has(s.key)) ?? null;
  const now = steps.find((s) => s.key === asked) ?? next;
  const words = now && wordsOf(now);
  const caution = now && (words?.caution ?? seamCaution(structure, now, units));
  const index = now ? steps.indexOf(now) : -1;
  const go = (s: Step | undefined) => s && move(s.key);
  const done = now ? ticked.has(now.key) : true;
  const gate = now && gateReading(now, evaluation);
  const count = steps.filter((s) => ticked.has(s.key)).length;
  const tick = () => {
    if (!now) return;
    store.add({ kind: "tick", step: now.id, done: !done });
    if (done) return;
    const after = [...steps.slice(index + 1), ...steps.slice(0, index)].find((s) => !ticked.has(s.key));
    move(after?.key ?? null, "replace");
  };
  const run = now ? likeRun(steps, now, ticked) : [];
  const whereOf = (s: Step): string => {
    const joint = structure.joints.find((j) => j.id === s.joint);
    return joint ? jointWords(structure, joint) : s.key;
  };
  const tickRun = () => {
    for (const s of run) store.add({ kind: "tick", step: s.id, done: true });
    const last = steps.indexOf(run.at(-1) as Step);
    const all = new Set([...ticked, ...run.map((s) => s.key)]);
    const after = [...steps.slice(last + 1), ...steps.slice(0, last)].find((s) => !all.has(s.key));
    move(after?.key ?? null, "replace");
  };
  // With every step ticked the drawing shows the cold frame.
  const shownStep = now ?? steps.at(-1);
  return (
    <>
      <h1 className="sr-only">Tack and weld</h1>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-5 xl:sticky xl:top-4 xl:self-start">
          {now ? (
            <div className="border-l-4 border-plum pl-4" data-testid="now">
              <p className="text-sm text-soft">
                Step <span className="fig">{index + 1}</span> of <span className="fig">{steps.length}</span>,{" "}
                {order.by === "schools" ? SCHOOL_NAMES[order[now.part]].toLowerCase() : `${order.by} order`} · {now.up}{" "}
                face up
                {done ? " · done" : ""}
              </p>
              <p className="mt-1 text-3xl leading-tight font-bold text-plum" aria-live="polite">
                {words?.say}
              </p>
              <p className="mt-2 max-w-prose text-lg">{words?.why}</p>
              <AtSeam step={now} />
              {replay ? <LetGo replay={replay} step={now} /> : null}
            </div>
          ) : (
            <div className="border-l-4 border-plum pl-4" data-testid="now">
              <p className="text-2xl font-semibold text-plum">All {steps.length} steps are ticked.</p>
              <p className="mt-1">Measure the cold frame next.</p>
            </div>
          )}
          {caution ? <Caution>{caution}</Caution> : null}
          <div className="flex flex-wrap gap-2">
            {now && !(gate && (!done || gate.state === "read")) ? (
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
            {now?.id.do === "hold" ? (
              <Link href={stagePath(job.id, "layout")} className={`${buttonClass("plain", true)} no-underline`}>
                What goes where
              </Link>
            ) : null}
            {now && gate ? (
              <Link
                href={roundPath(
                  job.id,
                  now.gate === "cold" ? "check" : "square",
                  gate.round?.round.id ?? null,
                  measuring(structure, steps).get(now.key)?.of,
                )}
                className={`${buttonClass(done ? "plain" : "advise", true)} no-underline`}
              >
                {gate.state === "unread" ? "Measure now" : "See the readings"}
              </Link>
            ) : null}
          </div>
          {now?.waitsFor && !done ? <Cooling until={now.waitsFor} stepKey={now.key} /> : null}
          {run.length > 1 ? (
            <div className="flex flex-wrap items-center gap-x-4 gap-y-2" data-testid="run">
              <p className="max-w-prose text-soft">
                {run.length} alike, one after the other: <span className="text-ink">{run.map(whereOf).join(", ")}</span>
                .
              </p>
              <Button big onClick={tickRun}>
                All {run.length} done
              </Button>
            </div>
          ) : null}
          {now && gate ? (
            <AtGate
              key={now.key}
              gate={gate}
              done={done}
              onGoOn={(why) => {
                store.add({
                  kind: "note",
                  text: `Went on at “${words?.say ?? now.key}” ${gate.state === "failed" ? "although it failed" : "without readings"}: ${why}`,
                });
                tick();
              }}
            />
          ) : null}
          {/* Below what is pressed: these come when they are worked out, and move nothing under a finger. */}
          {now ? <DoesToFrame step={now} /> : null}
          <LikelyFailure />
          <WorkDrawing
            structure={structure}
            replay={replay}
            steps={steps}
            now={now}
            say={words?.say ?? null}
            shown={shownStep}
            ticked={ticked}
            warmth={warmth}
            units={units}
          />
          <WarmthWords warmth={warmth} />
          {replay && shownStep ? (
            <StepSlider steps={steps} index={steps.indexOf(shownStep)} onIndex={show} />
          ) : (
            <PredictionStatus />
          )}
          {now?.joint && !done ? <SeamHow key={`how ${now.key}`} step={now} /> : null}
          {now?.joint && !done ? (
            <WentOtherwise
              key={now.key}
              step={now}
              say={words?.say ?? now.key}
              onDone={() => move(steps[index + 1]?.key ?? null, "replace")}
            />
          ) : null}
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
            <WorkedOtherwise />
            {editing ? <OrderEditor /> : <StepList steps={steps} now={now} onPick={go} />}
          </Section>
          <Section title="Which order">
            <OrderPanel editing={editing} onEdit={setEditing} />
          </Section>
          <Forecasts />
          {replay && shownStep ? (
            <Section title="What this step does">
              <div className="grid grid-cols-[minmax(0,1fr)] gap-6">
                <ReplayNumbers replay={replay} step={shownStep} before={steps[steps.indexOf(shownStep) - 1]} />
                <ReplayForces replay={replay} step={shownStep} />
                <StepsThatDidMost replay={replay} onStep={(key) => go(steps.find((s) => s.key === key))} />
              </div>
            </Section>
          ) : null}
          <Section title="Predicted when cold" aside={<span className="text-sm text-soft">nine frames in ten</span>}>
            <PredictionPanel />
          </Section>
          <Section title="Settings">
            <WhenSeen heightPx={SETTINGS_PX}>
              <WeldSettings />
            </WhenSeen>
          </Section>
          <Caution>{STAGE_CAUTIONS.weld}</Caution>
          <CarriesCaution />
        </div>
      </div>
    </>
  );
}
