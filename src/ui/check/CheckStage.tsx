"use client";

import dynamic from "next/dynamic";
import { useState } from "react";
import { type Limit, type LimitVerdict, limitName, steelTubes } from "@/core/check";
import { bandWords, coldSet, type FrameRound, plusMinus, quantityKey, quantityWords, twistWords } from "@/core/job";
import type { Places } from "@/core/square";
import { formatLength, formatSmall, physical } from "@/core/units";
import { CarriesCaution } from "../job/CarriesCaution";
import { useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { PredictionStatus } from "../job/PredictionStatus";
import {
  BeforeMeasuring,
  frameQuantity,
  MeasuredDrawing,
  nextUnread,
  ReadingPad,
  RoundTabs,
  SomethingElse,
  spanQuantities,
  useMore,
  useRounds,
  usualTape,
} from "../measure";
import { WarmerField } from "../measure/WarmerField";
import { Fold } from "../parts/Fold";
import { Now, Section } from "../parts/Sheet";
import { Verdict } from "../parts/Verdict";
import { WhenSeen } from "../parts/WhenSeen";

/** Room kept for the chart, px. */
const CHART_PX = 160;
// The chart, and what draws it, comes when it is seen.
const TubeItself = dynamic(() => import("./TubeItself"), { ssr: false });
const Correct = dynamic(() => import("./Correct").then((m) => m.Correct), { ssr: false });
const Teach = dynamic(() => import("./Teach").then((m) => m.Teach), { ssr: false });
const LossChart = dynamic(() => import("./LossChart").then((m) => m.LossChart), { ssr: false });

/** A chance in words that do not pretend to more than is known. */
const chance = (pc: number): string =>
  pc > 0.995 ? "over 99 %" : pc < 0.005 ? "under 1 %" : `${Math.round(100 * pc)} %`;

function VerdictRow({ v }: { v: LimitVerdict }) {
  const { units } = useJob("units");
  const value = !v.measured
    ? "—"
    : v.limit.unit === "mm/m"
      ? `${physical("slope", v.measured.value, units, undefined, true)} ± ${physical("slope", 2 * v.measured.u, units)}`
      : v.limit.kind === "size"
        ? `${formatLength(v.measured.value, units, { decimals: 2, bare: true }).text} ± ${formatSmall(2 * v.measured.u, units, { decimals: 2 })}`
        : plusMinus(v.measured.value, v.measured.u, units);
  return (
    <li className="grid gap-x-4 gap-y-1 border-t border-line py-2 sm:grid-cols-[12rem_1fr_auto]">
      <span className="font-semibold">{v.limit.label}</span>
      <span className="fig text-brass">{value}</span>
      <Verdict verdict={v.result?.verdict ?? "not measured"} />
      <span className="text-sm text-soft sm:col-span-3">
        {v.why} {v.result ? `Chance that it is inside: ${chance(v.result.pc)}. ` : ""}
        <span className="whitespace-nowrap">({v.limit.source})</span>
      </span>
    </li>
  );
}

/** What is read of a cold frame, in a sentence. */
const readWords = (quad: boolean, { beyond, feet }: Places): string => {
  const between = feet.pairs.length > 0 ? " the ways between its feet," : "";
  return quad
    ? `Four sides, both diagonals,${beyond.length > 0 ? ` the ways from the corners to ${beyond.join(" and ")},` : ""}${between} four corner heights.`
    : `The distances between its places,${between} and their heights.`;
};

function headline(
  round: FrameRound | null,
  left: readonly Limit[],
  quad: boolean,
  places: Places,
): { say: string; why: string } {
  if (!round || round.readings.size + round.slants.size === 0)
    return {
      say: "Let it get cold, then measure.",
      why: `A hot side reads long. ${readWords(quad, places)}`,
    };
  if (round.impossible) return { say: `Read ${round.impossible.span} again.`, why: round.impossible.message };
  const bad = round.verdicts.filter((v) => v.result?.verdict === "fail");
  const close = round.verdicts.filter((v) => v.result?.verdict === "too close to call");
  if (round.square?.fit.agree === false)
    return {
      say: "Measure again before judging.",
      why: "The sides and diagonals contradict each other: one is misread.",
    };
  if (bad.length > 0)
    return {
      say: `Outside its limit: ${bad.map((v) => limitName(v.limit)).join(", ")}.`,
      why: "Every limit is listed below with its margin; what can be done about it, and what comes of that, stands under Correct it.",
    };
  if (left.length > 0)
    return {
      say: `Still to read: ${left.map((l) => limitName(l)).join(", ")}.`,
      why: "No verdict until every limit has its reading.",
    };
  if (close.length > 0)
    return {
      say: `Too close to call: ${close.map((v) => limitName(v.limit)).join(", ")}.`,
      why: "The margin is smaller than the readings may be off. Read again with a finer instrument, or agree on it with whoever takes the frame.",
    };
  return { say: "Every limit is met.", why: "Each by more than its reading may be off: leave it as it is." };
}

const ALL_KINDS = ["size", "diagonal", "corner", "flat"] as const;

const MORE = ["rock", "edge", "straightness", "level", "distance", "angle", "flush", "height"] as const;
/** Eighth stage: the cold frame against its limits, and predicted against measured. */
export function CheckStage() {
  const { evaluation, units } = useJob("evaluation", "units");
  const { structure, places, losses, shapes, limits } = evaluation;
  const quad = structure?.quad ?? null;
  const rounds = evaluation.frameRounds.filter((r) => r.round.gate === "cold");
  const inSight = useRounds(rounds);
  const { current, stand, show, fresh, picked } = inSight;
  const [warmerK, setWarmerK] = useState(0);
  const spans = new Map(quad ? spanQuantities(quad, null, current).map((q) => [q.key, q]) : []);
  const usual = places
    ? coldSet(evaluation).flatMap((q) => spans.get(quantityKey(q)) ?? frameQuantity(q, places, current, units) ?? [])
    : [];
  const { more, add } = useMore(current, places, new Set(usual.map((q) => q.key)));
  if (!places) return <NotYet stage="Check" />;
  const quantities = [...usual, ...more];
  const nowKey = picked ?? nextUnread(stand, quantities);
  const now = quantities.find((q) => q.key === nowKey) ?? null;
  const needed = limits.filter((l) => !l.optional);
  const left = current?.verdicts.filter((v) => !v.result).map((v) => v.limit) ?? needed;
  const words = headline(current, left, quad !== null, places);
  const measured = losses.filter((l) => l.measured);
  const drawing = (
    <MeasuredDrawing
      round={current}
      now={now}
      label={`Cold readings on the frame; next: ${now ? quantityWords(now.what) : "none"}`}
      maxHeight={400}
    />
  );
  // A frame that fails, or may: what is read for it decides what can be done.
  const isOutside =
    current !== null &&
    current === evaluation.cold &&
    current.verdicts.some((v) => v.result !== null && v.result.verdict !== "pass");
  return (
    <>
      <h1 className="sr-only">Check</h1>
      <Now say={words.say} why={words.why}>
        {current ? <Verdict verdict={current.overall} big className="mt-2" /> : null}
      </Now>
      <CarriesCaution />
      <RoundTabs rounds={rounds} current={current} fresh={fresh} onShow={show} />
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <div className="max-xl:hidden xl:sticky xl:top-4 xl:self-start">{drawing}</div>
        <div className="grid content-start gap-6">
          {fresh ? (
            <WarmerField value={warmerK} onChange={setWarmerK} />
          ) : current?.round.warmerK ? (
            <p className="text-sm text-soft">
              Read {physical("warmth", current.round.warmerK, units)} warmer than the tape: lengths are taken as they
              will be when cold.
            </p>
          ) : null}
          <ReadingPad
            gate="cold"
            warmerK={warmerK}
            rounds={inSight}
            quantities={quantities}
            firstInstrument={usualTape(units)}
            figure={drawing}
          />
          <SomethingElse
            note="rock, edges, straightness"
            kinds={MORE}
            onAdd={(what) => {
              add(what);
              inSight.pick(quantityKey(what));
            }}
          />
          {structure && steelTubes(structure).length > 0 ? (
            <Fold title="What the tube itself brings" note="tolerances as bought">
              <TubeItself />
            </Fold>
          ) : null}
          {evaluation.cold === null && quad ? <BeforeMeasuring kinds={ALL_KINDS} /> : null}
        </div>
      </div>
      <div className="mt-6 grid content-start gap-8 xl:grid-cols-2">
        <Section
          title="Against the limits"
          aside={<span className="text-sm text-soft">± is 95 %; a pass holds even so</span>}
        >
          {limits.length === 0 ? <p>This job has no limits: set them under Job.</p> : null}
          <ul>
            {(
              current?.verdicts ??
              needed.map((limit) => ({ limit, measured: null, result: null, why: "Not measured yet." }))
            ).map((v) => (
              <VerdictRow key={v.limit.id} v={v} />
            ))}
          </ul>
          {current?.twist ? <p className="mt-2 max-w-prose">{twistWords(current.twist, units)}</p> : null}
          {current?.flatMm ? (
            <p className="mt-2 text-sm text-soft">
              Flatness by {current.flatMm.by}. Which of its two meanings the limit has is chosen under Job.
            </p>
          ) : null}
        </Section>
        <Section
          title="Predicted against measured"
          aside={
            <span className="text-sm text-soft">
              {structure?.quad ? "loss per side" : "loss of each way that is taped"}
              {measured.length > 0 ? " since last read before welding" : ""}, {units === "mm" ? "mm" : "in"}
            </span>
          }
        >
          {losses.length === 0 ? (
            <PredictionStatus />
          ) : (
            <>
              <WhenSeen heightPx={CHART_PX}>
                <LossChart losses={losses} units={units} />
              </WhenSeen>
              <ul className="mt-2 grid gap-1 text-sm">
                {losses.map((l) => (
                  <li key={l.name}>
                    <strong className="fig">{l.name}</strong> predicted{" "}
                    <span className="fig text-plum">{bandWords(l.predicted, units)}</span>
                    {l.measured ? (
                      <>
                        , lost{" "}
                        <span className="fig text-brass">{plusMinus(l.measured.value, l.measured.u, units)}</span>:{" "}
                        {l.agrees === "cannot tell" ? "the tape cannot tell" : l.agrees}
                      </>
                    ) : null}
                  </li>
                ))}
                {shapes.map((x) => (
                  <li key={x.id}>
                    <strong>{x.label}</strong>: predicted change{" "}
                    <span className="fig text-plum">{bandWords(x.predicted, units)}</span>
                    {x.measured ? (
                      <>
                        , {x.id === "square" ? "changed by" : "measured"}{" "}
                        <span className="fig text-brass">{plusMinus(x.measured.value, x.measured.u, units, true)}</span>
                        : {x.agrees === "cannot tell" ? "the readings cannot tell" : x.agrees}
                      </>
                    ) : null}
                  </li>
                ))}
              </ul>
              {measured.length === 0 ? (
                <p className="mt-2 text-sm text-soft">
                  Measured loss needs {structure?.quad ? "all four sides" : "all of them"} before welding (dry fit or
                  tacked) and cold, best with one tape.
                </p>
              ) : null}
            </>
          )}
        </Section>
        {isOutside ? <Correct /> : null}
        {evaluation.cold ? <Teach /> : null}
      </div>
    </>
  );
}
