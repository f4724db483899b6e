"use client";

import dynamic from "next/dynamic";
import { useState } from "react";
import { CORNERS } from "@/core/frame";
import { type FrameRound, type Hold, heldWords, misreadWords, type NudgeWords, plusMinus, tapWords } from "@/core/job";
import type { Gate } from "@/core/plan";
import { type Measured, walkingSet } from "@/core/square";
import { fixed, formatLength, formatSmall } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { usePlanField } from "../job/usePlanField";
import {
  frameQuantity,
  MeasuredDrawing,
  MoreToRead,
  nextUnread,
  ReadingPad,
  RoundTabs,
  spanQuantities,
  useMore,
  useRounds,
  WhatCanBeProven,
} from "../measure";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { Fold } from "../parts/Fold";
import { NumberField } from "../parts/NumberField";
import { Now, Section } from "../parts/Sheet";
import { Verdict } from "../parts/Verdict";
import { WhenSeen } from "../parts/WhenSeen";

/** Room kept for the chart, px. */
const CHART_PX = 160;
const NETWORK_PX = 420;
// The chart, and what draws it, comes when it is seen.
const NetworkPicture = dynamic(() => import("./NetworkPicture"), { ssr: false });
const WhatToMeasure = dynamic(() => import("./WhatToMeasure"), { ssr: false });
const RoundsChart = dynamic(() => import("./RoundsChart").then((m) => m.RoundsChart), { ssr: false });

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
      <p className="mt-3 max-w-prose border-t border-line pt-2">{misreadWords(s, units, round.help)}</p>
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

/** Any frame: where each place must go, farthest off first. */
function Taps({ round, places }: { round: FrameRound; places: number }) {
  const { job } = useJob();
  const { units } = job.plan;
  const { general } = round;
  if (!general) return null;
  const { fit, farthest, taps, untied, apart } = general;
  const alone = untied.filter((p) => !apart.some((a) => a.from === p || a.to === p));
  return (
    <Section
      title="Place by place"
      aside={<span className="text-sm text-soft">{places} places, laid over the drawing</span>}
    >
      {alone.length > 0 ? (
        <p className="mb-2 text-close">{alone.join(", ")}: reached by too few readings. Take one more from there.</p>
      ) : null}
      {apart.length > 0 ? (
        <ul className="mb-3 grid gap-1">
          {apart.map((a) => (
            <li key={a.id} className="grid grid-cols-[1fr_auto] gap-x-4 border-t border-line pt-1">
              <span>
                {a.from} to {a.to}, against the drawing
              </span>
              <span className="fig text-brass">{plusMinus(a.offMm, a.uMm, units, true)}</span>
            </li>
          ))}
        </ul>
      ) : null}
      {farthest === null ? (
        <p>Too few readings to fix the shape yet.</p>
      ) : fit.agree === false ? (
        <p>{misreadWords({ fit }, units, round.help)}</p>
      ) : taps.length === 0 ? (
        <p>
          Every place lies where the tape can tell it: the farthest, {farthest.place}, is{" "}
          <span className="fig">{plusMinus(farthest.value, farthest.u, units)}</span> off.
        </p>
      ) : (
        <ol className="grid gap-1">
          {taps.map((t, i) => (
            <li key={t.place} className="border-t border-line pt-1">
              <span className="fig text-soft">{i + 1}</span> <span className="text-plum">{tapWords(t, units)}</span>
            </li>
          ))}
        </ol>
      )}
      {taps.length > 0 && fit.agree !== false ? (
        <p className="mt-2 text-sm text-soft">
          Tap the farthest first, then measure again: one tap moves its neighbours too.
        </p>
      ) : null}
    </Section>
  );
}

/** What to do next on a frame without corners A to D. */
function generalWords(round: FrameRound | null, units: Parameters<typeof tapWords>[1]): NudgeWords {
  const general = round?.general;
  if (!general?.farthest)
    return {
      act: "measure",
      say: "Tape the distances below.",
      why: "Between marked places, along the members and across. The last few only check the others: they show a misread tape.",
    };
  if (general.fit.agree === false)
    return {
      act: "measure",
      say: "Measure again before moving anything.",
      why: misreadWords(general, units, round?.help ?? null),
    };
  const [first] = general.taps;
  if (!first) return { act: "leave", say: "Leave it.", why: "No place is farther off than the tape can tell." };
  return {
    act: "slide",
    say: `Tap ${tapWords(first, units)}.`,
    why: "Laid over the drawing as well as it goes, this place is farthest off.",
  };
}

const TAPED = ["size", "diagonal", "corner"] as const;
const MORE = ["distance", "angle", "offset", "flush", "gap"] as const;

/** Fifth stage: is it square, and which way to push. */
export function SquareStage() {
  const { job, evaluation } = useJob();
  const { edit } = usePlanField();
  const { units } = job.plan;
  const { frame, places, setUp, limits, ticked } = evaluation;
  const rounds = evaluation.frameRounds.filter((r) => r.round.gate !== "cold");
  const inSight = useRounds(rounds);
  const { current, roundId, stand, show, fresh, picked } = inSight;
  const begun = [...ticked].some((k) => k.startsWith("tack/"));
  const [gate, setGate] = useState<Gate | null>(null);
  const [warmerK, setWarmerK] = useState(0);
  const [hold, setHold] = useState<Hold | null>(null);
  const aimed = job.plan.aim === "drawing" ? null : setUp;
  const usual =
    frame && places
      ? spanQuantities(frame, aimed, current)
      : places
        ? walkingSet(places).flatMap(([p, q]) => frameQuantity(`${p}-${q}`, places, current) ?? [])
        : [];
  const { more, add } = useMore(current, places, new Set(usual.map((q) => q.name)));
  if (!places) return <NotYet stage="Square" />;
  const nextGate = gate ?? (begun ? "tacked" : "dry fit");
  // Where the branches land along the sides: spacing, and whether they are centred.
  const spacings = frame
    ? places.along
        .map(([p, q]) => `${p}-${q}`)
        .filter((what) => /AB|CD|BC|DA/.test(what) && !more.some((m) => m.name === what))
    : [];
  const quantities = [...usual, ...more];
  const now = picked ?? nextUnread(stand, quantities);
  const held: Hold = hold ?? ((current?.round.gate ?? nextGate) === "tacked" ? "hinges" : "slides");
  const before = current === null || current.round.gate !== "hot";
  const words = frame
    ? heldWords(
        current ?? { square: null, impossible: null },
        hold ?? "slides",
        before ? (aimed?.squareDifferenceMm2 ?? 0) : 0,
        units,
      )
    : generalWords(current, units);
  const best = current?.square?.nudges[0];
  const squareLimit = limits.find((l) => l.id === "square");
  const verdict = current?.verdicts.find((v) => v.limit.id === (frame ? "square" : "place"));
  const extra = current?.verdicts.filter((v) => v.limit.id === "gap" || v.limit.id === "flush") ?? [];
  const limitMmPerM =
    squareLimit?.kind === "corner"
      ? squareLimit.upper
      : squareLimit?.upper && frame
        ? (1000 * squareLimit.upper * Math.hypot(frame.lengthMm, frame.widthMm)) / (2 * frame.lengthMm * frame.widthMm)
        : null;
  const drawing = (
    <MeasuredDrawing
      round={current}
      now={now}
      label={`Sides and diagonals as read; next: ${now ?? "none"}`}
      slide={
        frame && words.act === "slide" && (hold ?? "slides") === "slides" && best
          ? { ...best, text: formatSmall(best.shiftMm, units) }
          : null
      }
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
        {extra.map((v) => (
          <p key={v.limit.id} className="mt-1 flex flex-wrap items-center gap-x-3">
            <Verdict verdict={v.result?.verdict ?? "not measured"} />
            <span className="text-sm text-soft">
              {v.limit.label}: {v.why}
            </span>
          </p>
        ))}
      </Now>
      <RoundTabs rounds={rounds} current={current} fresh={fresh} onShow={show} />
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <div className="grid content-start gap-6">
          <div className="max-xl:hidden">{drawing}</div>
          {current && frame ? <Shape round={current} /> : null}
          {current?.general && (!frame || current.general.untied.length > 0 || more.length > 0) ? (
            <Taps round={current} places={Object.keys(current.general.fit.points).length} />
          ) : null}
          {current?.general?.bestFit ? (
            <Section title="How the readings fit">
              <WhenSeen heightPx={NETWORK_PX}>
                <NetworkPicture round={current} />
              </WhenSeen>
            </Section>
          ) : null}
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
          {fresh && nextGate === "hot" ? (
            <NumberField
              label="The frame is warmer than the tape by"
              unit="°C"
              min={-80}
              max={900}
              value={warmerK}
              onChange={(v) => v !== null && setWarmerK(v)}
            />
          ) : null}
          <ReadingPad
            gate={nextGate}
            warmerK={nextGate === "hot" ? warmerK : 0}
            rounds={inSight}
            quantities={quantities}
            firstInstrument="tape-ii"
            figure={drawing}
          />
          {spacings.length > 0 ? (
            <Button className="justify-self-start" onClick={() => spacings.forEach(add)}>
              Read the spacings too
            </Button>
          ) : null}
          <Fold title="Something else to read" note="panels, angles, gaps">
            <MoreToRead
              kinds={MORE}
              onAdd={(what) => {
                add(what);
                inSight.pick(what);
              }}
            />
          </Fold>
          {frame ? (
            <>
              <Choice
                label="It is brought square by"
                value={hold ?? "slides"}
                options={[
                  ["slides", "sliding a side"],
                  ["hinges", "hinging on its tacks"],
                  ["strap", "a strap across"],
                ]}
                onChange={setHold}
              />
              {hold === null && held === "hinges" ? (
                <p className="text-sm text-soft">Tacked at all corners it hinges: choose that when no side is loose.</p>
              ) : null}
              {setUp ? (
                <Choice
                  label="Squared to"
                  value={job.plan.aim ?? "set-up"}
                  options={[
                    ["set-up", "what the weld will pull straight"],
                    ["drawing", "the drawing"],
                  ]}
                  onChange={(aim) => edit((p) => ({ ...p, aim }))}
                />
              ) : null}
            </>
          ) : null}
          {current ? <OtherWays round={current} /> : null}
          {stand.size === 0 && frame ? (
            <>
              <Section title="What can be proven" aside={<span className="text-sm text-soft">before measuring</span>}>
                <WhatCanBeProven kinds={TAPED} />
              </Section>
              <Fold title="The least to measure" note="before measuring">
                <WhatToMeasure />
              </Fold>
            </>
          ) : null}
          {frame ? (
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
          ) : null}
          {aimed ? (
            <p className="max-w-prose text-sm text-soft">
              Set up a little large for what the weld takes: AB {formatLength(aimed.targets.AB, units).text}, BC{" "}
              {formatLength(aimed.targets.BC, units).text}, AC {formatLength(aimed.targets.AC, units).text}, BD{" "}
              {formatLength(aimed.targets.BD, units).text}.
            </p>
          ) : null}
        </div>
      </div>
    </>
  );
}
