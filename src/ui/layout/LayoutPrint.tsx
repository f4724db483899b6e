"use client";

import { useMemo } from "react";
import { sceneOf } from "@/core/drawing";
import { type BedKind, measuredFrom } from "@/core/fixture";
import { FROM_ABOVE } from "@/core/frame";
import {
  barsOf,
  clampCaution,
  fixtureChecks,
  laidWords,
  layOut,
  PLACED_AS_WORDS,
  pickList,
  thingWords,
} from "@/core/job";
import { ALONG_WORDS, barWords } from "@/core/plan";
import { FrameDrawing } from "../drawing";
import { useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { stagePath } from "../job/stages";
import { Paper } from "../parts/Paper";
import { BarMarks } from "./BarMarks";
import { BearerMarks } from "./BearerMarks";
import { ElementMarks } from "./ElementMarks";

/** Where places are counted from on a bed that counts them itself. */
const FROM: Partial<Record<BedKind, string>> = {
  holes: "Holes are counted from the first, along and across",
  slots: "Slots are counted from the first; along them it is measured from the same corner as all places",
};

/** The fixture on paper: what goes where, with boxes to tick. */
export function LayoutPrint() {
  const { job, evaluation } = useJob("job", "evaluation");
  const { structure, prediction } = evaluation;
  const { plan } = job;
  const laid = useMemo(() => structure && layOut(plan, structure, prediction), [plan, structure, prediction]);
  const scene = useMemo(
    () => structure && sceneOf(structure, { view: FROM_ABOVE, origin: measuredFrom(structure) }),
    [structure],
  );
  if (!structure || !laid || !scene) return <NotYet stage="Fixture on paper" />;
  const bars = barsOf(structure, plan);
  const from = FROM[laid.bed]
    ? FROM[laid.bed]
    : plan.fixture?.at
      ? "Measured from the left and the near edge of the bed"
      : structure.quad
        ? "Measured from corner A, along AB and across"
        : "Measured from the lower left of the frame, along and across";
  return (
    <Paper units={plan.units} back="Back to the lay-out" backTo={stagePath(job.id, "layout")}>
      {() => (
        <>
          <h1 className="text-2xl">Fixture: {plan.name}</h1>
          <p>
            {from}; {PLACED_AS_WORDS[laid.placed]}. Version {job.version}.
          </p>
          <FrameDrawing scene={scene} units={plan.units} label={`Fixture of ${plan.name}`} bare maxHeight={320}>
            {(p) => (
              <>
                <BearerMarks plan={plan} p={p} />
                <BarMarks structure={structure} plan={plan} p={p} />
                <ElementMarks laid={laid} moving={null} p={p} />
              </>
            )}
          </FrameDrawing>
          <h2 className="text-lg">From the shelf</h2>
          <ul data-testid="pick-list">
            {pickList(plan, laid, bars).map(({ count, what }) => (
              <li key={what} className="flex break-inside-avoid gap-3 border-t border-line py-1">
                <span aria-hidden="true">☐</span>
                <span className="fig w-12 shrink-0 text-right">{count}</span>
                <span className="grow">{what}</span>
              </li>
            ))}
          </ul>
          <h2 className="text-lg">Stops and clamps</h2>
          <ol data-testid="fixture-sheet">
            {laid.elements.map((e) => (
              <li key={e.element.id} className="flex break-inside-avoid gap-3 border-t border-line py-1">
                <span aria-hidden="true">☐</span>
                <span className="w-32 shrink-0 font-semibold">{e.element.id}</span>
                <span className="grow">
                  {laidWords(e, plan.units)}. {thingWords(e)}
                </span>
              </li>
            ))}
          </ol>
          {bars.length > 0 ? <p>{ALONG_WORDS}</p> : null}
          {bars.map((bar) => (
            <p key={bar.id}>
              <span className="font-semibold">{bar.id}</span>: {barWords(structure, bar, true, plan.units).say}.
            </p>
          ))}
          {fixtureChecks(structure, laid, plan.units, evaluation.bedRounds.at(-1)?.verdict ?? null).map((c) => (
            <p key={c.id}>{c.say}</p>
          ))}
          <p>{clampCaution(plan.units)}</p>
        </>
      )}
    </Paper>
  );
}
