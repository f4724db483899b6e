"use client";

import dynamic from "next/dynamic";
import { useState } from "react";
import { CORNERS, SPANS, type Span } from "@/core/frame";
import { type FrameRound, misreadWords, nudgeWords, plusMinus } from "@/core/job";
import type { Gate } from "@/core/plan";
import type { Measured } from "@/core/square";
import { fixed, formatLength, formatSmall } from "@/core/units";
import { FrameDrawing, type SpanMark } from "../drawing";
import { useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { nextUnread, ReadingPad, RoundTabs, spanQuantities, useRounds, WhatCanBeProven } from "../measure";
import { Choice } from "../parts/Choice";
import { fieldText } from "../parts/LengthField";
import { Now, Section } from "../parts/Sheet";
import { Verdict } from "../parts/Verdict";
import { WhenSeen } from "../parts/WhenSeen";

/** Room kept for the chart, px. */
const CHART_PX = 160;
// The chart, and what draws it, comes when it is seen.
const RoundsChart = dynamic(() => import("./RoundsChart").then((m) => m.RoundsChart), { ssr: false });

/** Marks on the drawing: what was read on each span, the next one strong. */
export function spanMarks(
  round: FrameRound | null,
  now: string | null,
  show: (span: Span) => string | null,
): SpanMark[] {
  return SPANS.flatMap((span): SpanMark[] => {
    const text = show(span);
    if (text === null && now !== span) return [];
    const suspect = round?.square?.fit.diagnosis.candidates.some((c) => c.id === span) ?? false;
    return [
      { span, text: text === null ? `${span}?` : suspect ? `${text} ?` : text, tone: "brass", active: now === span },
    ];
  });
}

const lean = ({ value, u }: Measured): string =>
  Math.abs(value) <= 2 * u
    ? "no more than the tape can tell"
    : value > 0
      ? "AC is the long diagonal"
      : "BD is the long diagonal";

function Shape({ round }: { round: FrameRound }) {
  const { job } = useJob();
  const { units } = job.plan;
  const s = round.square;
  if (!s?.angleDeg || !s.shearMmPerM || !s.taperLengthMm || !s.taperWidthMm) return null;
  const rows: [string, string, string][] = [
    [
      "Out of square (shear)",
      `${fixed(s.shearMmPerM.value, 2)} ± ${fixed(2 * s.shearMmPerM.u, 2)} mm/m`,
      lean(s.shearMmPerM),
    ],
    [
      "Taper of the length, AB − CD",
      plusMinus(s.taperLengthMm.value, s.taperLengthMm.u, units, true),
      "cut or gap; a nudge cannot change it",
    ],
    [
      "Taper of the width, BC − DA",
      plusMinus(s.taperWidthMm.value, s.taperWidthMm.u, units, true),
      "cut or gap; a nudge cannot change it",
    ],
    ...(s.diagonalDifferenceMm
      ? [
          [
            "Diagonals, AC − BD",
            plusMinus(s.diagonalDifferenceMm.value, s.diagonalDifferenceMm.u, units, true),
            "alone it proves only that the mid-lines cross square",
          ] as [string, string, string],
        ]
      : []),
  ];
  return (
    <Section title={`Fitted shape: ${s.shape ?? ""}`} aside={<span className="text-sm text-soft">± is 95 %</span>}>
      <dl className="grid gap-2">
        {rows.map(([name, value, note]) => (
          <div key={name} className="grid gap-x-4 border-t border-line pt-2 sm:grid-cols-[11.5rem_1fr]">
            <dt>{name}</dt>
            <dd>
              <span className="fig text-lg font-semibold text-brass">{value}</span>{" "}
              <span className="text-sm text-soft">{note}</span>
            </dd>
          </div>
        ))}
        <div className="grid gap-x-4 border-t border-line pt-2 sm:grid-cols-[11.5rem_1fr]">
          <dt>Corner angles</dt>
          <dd className="fig grid grid-cols-2 gap-x-6 text-brass">
            {CORNERS.map((c) => (
              <span key={c}>
                {c} {fixed(s.angleDeg?.[c].value ?? 90, 2)}° ± {fixed(2 * (s.angleDeg?.[c].u ?? 0), 2)}°
              </span>
            ))}
          </dd>
        </div>
      </dl>
      <p className="mt-3 max-w-prose border-t border-line pt-2">{misreadWords(s, units)}</p>
    </Section>
  );
}

function OtherWays({ round }: { round: FrameRound }) {
  const { job } = useJob();
  const { units } = job.plan;
  const ways = round.square?.nudges ?? [];
  if (ways.length === 0 || round.square?.fit.agree === false) return null;
  return (
    <Section title="The same by another side">
      <ul className="grid gap-1">
        {ways.map((n) => (
          <li key={n.side} className="grid grid-cols-[1fr_auto] gap-x-4 border-t border-line pt-1">
            <span>
              {n.side}: push {n.push} toward {n.towards}
            </span>
            <span className="fig text-plum">{plusMinus(n.shiftMm, n.uMm, units)}</span>
            <span className="col-span-2 text-sm text-soft">
              by habit {formatSmall(n.habitMm, units)}, which leaves {Math.round(100 * n.habitLeaves)} %
            </span>
          </li>
        ))}
      </ul>
      {round.square?.rack ? (
        <p className="mt-3 max-w-prose text-soft">
          Hinging on its tacks with AB held: C goes{" "}
          {formatSmall(Math.abs(round.square.rack.cAlongMm), units, { decimals: 2 })}{" "}
          {Math.abs(round.square.rack.cAlongMm) < 0.005
            ? "nowhere"
            : round.square.rack.cAlongMm < 0
              ? "toward D"
              : "away from D"}
          , both diagonals then read{" "}
          <span className="fig">{formatLength(round.square.rack.diagonalMm, units).text}</span>.
        </p>
      ) : null}
    </Section>
  );
}

const TAPED = ["size", "diagonal", "corner"] as const;

/** Fifth stage: is it square, and which way to push. */
export function SquareStage() {
  const { job, evaluation } = useJob();
  const { units } = job.plan;
  const { frame, setUp, limits, ticked } = evaluation;
  const rounds = evaluation.frameRounds.filter((r) => r.round.gate !== "cold");
  const inSight = useRounds(rounds);
  const { current, roundId, stand, show, fresh, picked } = inSight;
  const begun = [...ticked].some((k) => k.startsWith("tack/"));
  const [gate, setGate] = useState<Gate | null>(null);
  if (!frame) return <NotYet stage="Square" />;
  const nextGate = gate ?? (begun ? "tacked" : "dry fit");
  const quantities = spanQuantities(frame, setUp);
  const now = picked ?? nextUnread(stand, quantities);
  const words = nudgeWords(current ?? { square: null, impossible: null }, units);
  const best = current?.square?.nudges[0];
  const squareLimit = limits.find((l) => l.id === "square");
  const verdict = current?.verdicts.find((v) => v.limit.id === "square");
  const limitMmPerM =
    squareLimit?.kind === "corner"
      ? squareLimit.upper
      : squareLimit?.upper
        ? (1000 * squareLimit.upper * Math.hypot(frame.lengthMm, frame.widthMm)) / (2 * frame.lengthMm * frame.widthMm)
        : null;
  const drawing = (
    <FrameDrawing
      frame={frame}
      units={units}
      bare
      label={`Sides and diagonals as read; next: ${now ?? "none"}`}
      spans={spanMarks(current, now, (span) => {
        const r = current?.readings.get(span);
        return r ? fieldText(r.value, units) : null;
      })}
      slide={words.act === "slide" && best ? { ...best, text: formatSmall(best.shiftMm, units) } : null}
      maxHeight={420}
    />
  );
  return (
    <>
      <h1 className="sr-only">Square</h1>
      <Now say={words.say} why={words.why}>
        {verdict?.result ? (
          <p className="mt-2 flex flex-wrap items-center gap-x-3">
            <Verdict verdict={verdict.result.verdict} />
            <span className="text-sm text-soft">{verdict.why}</span>
          </p>
        ) : null}
      </Now>
      <RoundTabs rounds={rounds} current={current} fresh={fresh} onShow={show} />
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <div className="grid content-start gap-6">
          <div className="max-xl:hidden">{drawing}</div>
          {current ? <Shape round={current} /> : null}
        </div>
        <div className="grid content-start gap-6 max-xl:order-first">
          {fresh ? (
            <Choice
              label="Measured at the gate"
              value={nextGate}
              options={[
                ["dry fit", "dry fit"],
                ["tacked", "tacked"],
                ["hot", "welded, hot"],
              ]}
              onChange={setGate}
            />
          ) : null}
          <ReadingPad
            gate={nextGate}
            rounds={inSight}
            quantities={quantities}
            firstInstrument="tape-ii"
            figure={drawing}
          />
          {current ? <OtherWays round={current} /> : null}
          {stand.size === 0 ? (
            <Section title="What can be proven" aside={<span className="text-sm text-soft">before measuring</span>}>
              <WhatCanBeProven kinds={TAPED} />
            </Section>
          ) : null}
          <Section
            title="Round by round"
            aside={
              <span className="text-sm text-soft">
                out of square, mm/m{limitMmPerM === null ? "" : "; shaded: inside the limit"}
              </span>
            }
          >
            {rounds.some((r) => r.square?.shearMmPerM) ? (
              <WhenSeen heightPx={CHART_PX}>
                <RoundsChart rounds={rounds} currentId={roundId} limitMmPerM={limitMmPerM} />
              </WhenSeen>
            ) : (
              <p className="text-soft">
                Nothing measured yet. Five of the six readings fix the shape; the sixth checks them.
              </p>
            )}
          </Section>
          {setUp ? (
            <p className="max-w-prose text-sm text-soft">
              Set up a little large for what the weld takes: AB {formatLength(setUp.targets.AB, units).text}, BC{" "}
              {formatLength(setUp.targets.BC, units).text}, AC {formatLength(setUp.targets.AC, units).text}, BD{" "}
              {formatLength(setUp.targets.BD, units).text}.
            </p>
          ) : null}
        </div>
      </div>
    </>
  );
}
