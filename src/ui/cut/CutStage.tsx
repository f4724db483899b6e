"use client";

import dynamic from "next/dynamic";
import Link from "next/link";
import { useState } from "react";
import { inRuns, matchWords, templatesOf } from "@/core/cut";
import {
  addedWords,
  cutToWords,
  pieceSection,
  predictedDecimals,
  STAGE_CAUTIONS,
  settingsWords,
  sharedWords,
} from "@/core/job";
import { formatSmall, nearLength, physical } from "@/core/units";
import { FrameDrawing, useScene } from "../drawing";
import { useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { PredictionStatus } from "../job/PredictionStatus";
import { usePlanField } from "../job/usePlanField";
import { buttonClass } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { Download } from "../parts/Download";
import { Fold } from "../parts/Fold";
import { Caution, Now, Section } from "../parts/Sheet";
import { useWarm } from "../parts/useWarm";
import { WhenSeen } from "../parts/WhenSeen";
import { Holes } from "./Holes";
import { LengthOf } from "./LengthOf";
import { PiecePicture } from "./PiecePicture";
import { RiseRun } from "./RiseRun";
import { SawCard } from "./SawCard";
import { SawTest } from "./SawTest";

/** Room kept for what comes when it is seen, px. */
const BARS_PX = 700;
const AS_CUT_PX = 500;
const MARKS_PX = 300;
const templates = () => import("./Templates");
const bars = () => import("./BuyingList");
const marks = () => import("./MarkingOut");
const asCut = () => import("./AsCutLog");
const Templates = dynamic(() => templates().then((m) => m.Templates), { ssr: false });
const BuyingList = dynamic(() => bars().then((m) => m.BuyingList), { ssr: false });
const AsCutLog = dynamic(() => asCut().then((m) => m.AsCutLog), { ssr: false });
const MarkingOut = dynamic(() => marks().then((m) => m.MarkingOut), { ssr: false });
const LATER = [bars, marks, asCut];

/** Why a piece is cut by more, or less, than its own weld takes. */
const Shared = ({ words }: { words: string | null }) =>
  words ? <span className="ml-auto block max-w-44 text-sm text-soft">{words}</span> : null;

/** Third stage: what to cut. */
export function CutStage() {
  const { job, evaluation, predicted } = useJob("job", "evaluation", "predicted");
  const { edit } = usePlanField();
  // By a member: a line may come apart while its length is said.
  const [picked, setPicked] = useState<string | null>(null);
  useWarm(LATER);
  const { units } = job.plan;
  const { structure, cut, prediction } = evaluation;
  const scene = useScene(structure);
  if (!structure || !scene) return <NotYet stage="Cut" />;
  const pieces = cut.reduce((n, p) => n + p.quantity, 0);
  const chosen = cut.find((p) => p.members.includes(picked ?? "")) ?? cut[0];
  const mitres = cut.some((p) => p.sawDeg.some((d) => d !== 0));
  const waits = predicted.state.status === "working";
  const aimed = cut.some((p) => p.aimMm !== 0);
  return (
    <>
      <h1 className="sr-only">Cut</h1>
      <Now
        say={`Cut ${pieces} pieces. Set the stop to the last column.`}
        why={`Nominal size and the allowance for shrinkage are stated apart: the allowance puts the cold frame where it is aimed. Its band is where nine frames in ten end. It rests on ${settingsWords(job.plan)}.`}
      />
      <PredictionStatus />
      <Caution>{STAGE_CAUTIONS.cut}</Caution>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: scrolls sideways on a phone, so the keyboard must reach it */}
      <section className="overflow-x-auto" aria-label="Cut list" tabIndex={0}>
        <table className="w-full min-w-[52rem] text-left">
          <thead className="text-sm text-soft">
            <tr>
              <th className="py-2 pr-3 font-normal">Pieces</th>
              <th className="py-2 pr-3 font-normal">Members</th>
              <th className="py-2 pr-3 font-normal">Ends</th>
              <th className="py-2 pr-3 text-right font-normal">Long point</th>
              <th className="py-2 pr-3 text-right font-normal">Short point</th>
              <th className="py-2 pr-3 text-right font-normal">Shrinkage, added</th>
              {aimed ? <th className="py-2 pr-3 text-right font-normal">To the middle of the limits</th> : null}
              <th className="py-2 text-right font-normal">Cut to, long point</th>
            </tr>
          </thead>
          <tbody>
            {cut.map((p) => (
              <tr
                key={p.members.join()}
                className={`border-t border-line align-top ${p === chosen ? "bg-plum-soft" : ""}`}
              >
                <td className="fig py-3 pr-3 pl-1 text-xl font-bold whitespace-nowrap">{p.quantity} ×</td>
                <td className="py-3 pr-3">
                  <button
                    type="button"
                    aria-pressed={p === chosen}
                    onClick={() => setPicked(p.members[0] ?? null)}
                    className="tap text-left font-semibold underline md:min-h-6"
                  >
                    {inRuns(p.members)}
                  </button>
                  <span className="block text-sm text-soft">{pieceSection(job.plan, p)}</span>
                </td>
                <td className="py-3 pr-3 text-sm">
                  <PiecePicture piece={p} />
                  {p.ends}
                  {p.handed ? (
                    <span className="block font-semibold text-close">
                      One hand only{p.handed.mirrorOf.length > 0 ? `; ${p.handed.mirrorOf.join(", ")} the other` : ""}.
                    </span>
                  ) : null}
                </td>
                <td className="fig py-3 pr-3 text-right whitespace-nowrap">{nearLength(p.longPointMm, units)}</td>
                <td className="fig py-3 pr-3 text-right whitespace-nowrap">{nearLength(p.shortPointMm, units)}</td>
                <td className="fig py-3 pr-3 text-right text-plum">
                  {addedWords(p, units)}
                  <Shared words={sharedWords(job.plan, p, prediction, units)} />
                </td>
                {aimed ? (
                  <td className="fig py-3 pr-3 text-right text-plum">
                    {p.fixed || p.toGap
                      ? "–"
                      : formatSmall(p.aimMm, units, { decimals: predictedDecimals(units), signed: true })}
                  </td>
                ) : null}
                <td className="fig py-3 pr-1 text-right text-xl font-bold whitespace-nowrap">
                  {cutToWords(p, units, waits)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <FrameDrawing
          scene={scene}
          units={units}
          label={`Pieces ${chosen?.members.join(", ") ?? ""} in the frame`}
          selected={chosen?.members ?? []}
          maxHeight={380}
        />
        <div className="grid content-start gap-6">
          <Section title="Where the allowance comes from">
            {prediction ? (
              <ul className="grid max-w-prose gap-2">
                {prediction.reasons.map((r) => (
                  <li key={r}>{r}</li>
                ))}
              </ul>
            ) : (
              <p>
                {waits
                  ? "It is being worked out: until then nothing is known to cut to."
                  : "Without a prediction nothing is added for the weld."}
              </p>
            )}
          </Section>
          {chosen ? <LengthOf piece={chosen} structure={structure} /> : null}
          <Choice
            label="The saw's scale counts from"
            value={job.plan.sawScale ?? "square"}
            options={[
              ["square", "a square cut"],
              ["line", "the tube's line"],
            ]}
            onChange={(sawScale) => edit((p) => ({ ...p, sawScale }))}
          />
          <Section title="Before the saw">
            <ul className="grid max-w-prose gap-2">
              {mitres ? <li>Cut two test mitres and hold them in a square: see the test of the saw below.</li> : null}
              <li>Cut what is alike to one stop. {matchWords(structure, units)}</li>
              {units === "inch-fraction" ? (
                <li>“And 0.015 in more” lies that far beyond the mark, “less 0.010 in” that far short of it.</li>
              ) : null}
              <li>
                Weight of all pieces about{" "}
                {physical(
                  "mass",
                  cut.reduce((s, p) => s + p.quantity * p.massKg, 0),
                  units,
                )}
                .
              </li>
            </ul>
          </Section>
          <div className="screen-only flex flex-wrap gap-2">
            <Link href={`/jobs/${job.id}/cut/print`} className={buttonClass()}>
              Print the cut list
            </Link>
            <Download href={`/api/jobs/${job.id}/cut`}>As CSV</Download>
          </div>
        </div>
      </div>
      <SawCard />
      {templatesOf(structure, "outer").length > 0 ? (
        <div className="min-w-0">
          <Templates />
        </div>
      ) : null}
      <div className="grid gap-8 xl:grid-cols-2">
        {mitres || job.plan.saw ? <SawTest /> : null}
        <Fold title="Rise over run" note="a slope as an angle">
          <RiseRun />
        </Fold>
        <Holes />
      </div>
      <Section title="Marking out" aside={<span className="text-sm text-soft">running distances from one end</span>}>
        <WhenSeen heightPx={MARKS_PX}>
          <MarkingOut />
        </WhenSeen>
        <p className="screen-only mt-3">
          <Download href={`/api/jobs/${job.id}/sheet?name=marking&paper=${units === "mm" ? "A4" : "Letter"}`}>
            As a sheet (PDF)
          </Download>
        </p>
      </Section>
      <Section title="Bars" aside={<span className="text-sm text-soft">fewest by a proven plan</span>}>
        <WhenSeen heightPx={BARS_PX}>
          <BuyingList />
        </WhenSeen>
      </Section>
      <Section
        title="As cut"
        aside={<span className="text-sm text-soft">a pair cut unequal shows here, not after welding</span>}
      >
        <WhenSeen heightPx={AS_CUT_PX}>
          <AsCutLog />
        </WhenSeen>
      </Section>
    </>
  );
}
