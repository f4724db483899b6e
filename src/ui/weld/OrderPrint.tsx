"use client";

import { gateLines, runWords, STAGE_CAUTIONS, settingsWords, timeOf, weldOf } from "@/core/job";
import { orderWords, partsOfSteps, seamCaution, timeWords } from "@/core/plan";
import { FrameDrawing, useScene } from "../drawing";
import { useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { stagePath } from "../job/stages";
import { Paper } from "../parts/Paper";
import { useStepWords } from "./useStepWords";

/** The order on paper: boxes to tick and room for readings. */
export function OrderPrint() {
  const { job, evaluation } = useJob("job", "evaluation");
  const { plan } = job;
  const { units } = plan;
  const { structure, places, order, steps, ticked } = evaluation;
  const wordsOf = useStepWords();
  const scene = useScene(structure);
  if (!structure || !places || !order || !scene) return <NotYet stage="Order of work on paper" />;
  const time = timeOf(job);
  const parts = partsOfSteps(structure, steps);
  return (
    <Paper units={units} back="Back to the order" backTo={stagePath(job.id, "weld")}>
      {() => (
        <>
          <h1 className="text-2xl">Order of work: {job.plan.name}</h1>
          <p>
            {orderWords(order)}; {steps.length} steps{time ? `, about ${timeWords(time.totalS)}` : ""}. Version{" "}
            {job.version}. {settingsWords(job.plan).replace(/^./, (c) => c.toUpperCase())}.
          </p>
          <p>{STAGE_CAUTIONS.weld}</p>
          {[...new Set(steps.flatMap((s) => seamCaution(structure, s, units) ?? []))].map((c) => (
            <p key={c}>{c}</p>
          ))}
          <FrameDrawing scene={scene} units={units} label={`Frame of ${job.plan.name}`} maxHeight={240} />
          <ol className="text-base" data-testid="order-sheet">
            {steps.map((s, i) => {
              const words = wordsOf(s);
              const before = steps[i - 1];
              const lines = gateLines(s, parts.get(s.key), evaluation);
              const welder = time && plan.hands?.two && s.joint ? `welder ${time.steps.get(s.key)?.welder ?? 1}` : null;
              const run = [welder, runWords(structure, weldOf(plan), s, units)].filter((w) => w !== null).join(", ");
              return (
                <li key={s.key} className="flex break-inside-avoid gap-3 border-t border-line py-1">
                  <span aria-hidden="true">{ticked.has(s.key) ? "☑" : "☐"}</span>
                  <span className="fig w-8 shrink-0 text-right">{i + 1}</span>
                  <span className="grow">
                    <span className={s.joint === null ? "font-semibold" : ""}>{words.say}</span>
                    {s.up !== (before?.up ?? "top") ? <span> ({s.up} face up from here)</span> : null}
                    {run ? <span className="block text-sm">{run}</span> : null}
                    {words.caution ? <span className="block text-sm">Mind: {words.caution}</span> : null}
                    {lines.length > 0 ? (
                      <span className="mt-1 grid grid-cols-4 gap-x-4 gap-y-2 text-sm">
                        {lines.map((l) => (
                          <span key={l} className="flex items-end gap-1">
                            {l} <span className="grow border-b border-ink">&nbsp;</span>
                          </span>
                        ))}
                      </span>
                    ) : null}
                  </span>
                </li>
              );
            })}
          </ol>
        </>
      )}
    </Paper>
  );
}
