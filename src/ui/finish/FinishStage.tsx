"use client";

import { finishesOffered } from "@/core/cut";
import { finishSteps, STAGE_CAUTIONS } from "@/core/job";
import { FINISH_WORDS } from "../cut/Holes";
import { CarriesCaution } from "../job/CarriesCaution";
import { useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { usePlanField } from "../job/usePlanField";
import { Choice } from "../parts/Choice";
import { Caution, Now, Section } from "../parts/Sheet";
import { Tick } from "../parts/Tick";
import { GrindMoves } from "./GrindMoves";

/** After the check: what is ground and left, cleaned, coated, fitted. */
export function FinishStage() {
  const { job, store, evaluation } = useJob("job", "store", "evaluation");
  const { edit } = usePlanField();
  const { structure, ticked, cold, summary } = evaluation;
  if (!structure) return <NotYet stage="Finish" />;
  const steps = finishSteps(job.plan, structure);
  const left = steps.filter((s) => !ticked.has(s.key));
  const [next] = left;
  const minutes = left.reduce((s, x) => s + x.minutes, 0);
  return (
    <>
      <h1 className="sr-only">Finish</h1>
      <Now
        say={next ? `${next.say}.` : "Finished: close the job under Log."}
        why={
          next
            ? `${next.why} ${left.length} to do, about ${minutes} minutes of your own.${cold ? "" : " It has not been checked cold yet: what is coated is no longer put right."}`
            : "Every step is ticked."
        }
      />
      {cold && summary.verdict === "fail" ? (
        <Caution>It is outside a limit: correct it before it is coated, or agree on it with whoever takes it.</Caution>
      ) : null}
      <CarriesCaution />
      <Choice
        label="Finish"
        value={job.plan.finish}
        options={finishesOffered(structure, job.plan.finish).map((f) => [f, FINISH_WORDS[f]] as const)}
        onChange={(finish) => edit((p) => ({ ...p, finish }))}
      />
      <Section
        title="Step by step"
        aside={
          <span className="text-sm text-soft">
            {steps.length - left.length} of {steps.length} done
          </span>
        }
      >
        <ol className="grid gap-1" aria-label="Steps of finishing">
          {steps.map((s) => {
            const done = ticked.has(s.key);
            return (
              <li
                key={s.key}
                className={`grid gap-x-6 gap-y-1 border-t border-line py-2 md:grid-cols-[minmax(0,20rem)_minmax(0,1fr)] ${s === next ? "border-l-4 border-l-plum pl-3" : ""}`}
              >
                <div>
                  <Tick checked={done} onChange={(on) => store.add({ kind: "tick", step: s.id, done: on })}>
                    <span className="text-base font-semibold">{s.say}</span>
                  </Tick>
                  <p className="text-sm text-soft">
                    {s.minutes > 0 ? `About ${s.minutes} minutes` : "No time of your own"}
                    {s.who ? `; done by ${s.who}` : ""}
                  </p>
                </div>
                <div className="max-w-prose text-sm">
                  <p className="text-soft">{s.why}</p>
                  {s.caution ? (
                    <p>
                      <strong>Mind: </strong>
                      {s.caution}
                    </p>
                  ) : null}
                </div>
              </li>
            );
          })}
        </ol>
      </Section>
      {steps.some((s) => s.id.do === "finish" && s.id.step === "grind") ? <GrindMoves /> : null}
      <Caution>{STAGE_CAUTIONS.finish}</Caution>
    </>
  );
}
