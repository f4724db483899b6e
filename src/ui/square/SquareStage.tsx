"use client";

import dynamic from "next/dynamic";
import Link from "next/link";
import { type ReactNode, useState } from "react";
import { CORNERS } from "@/core/geometry";
import {
  bandWords,
  beyondPairs,
  beyondWords,
  distanceId,
  gateReading,
  type Hold,
  heldWords,
  type Job,
  jointsInPart,
  lockedWords,
  measuring,
  ownParts,
  placeWords,
  quantityKey,
  quantityWords,
  railsOf,
  setUpWords,
  spanOf,
  tapedPairs,
  twistWords,
  wantedPlaces,
} from "@/core/job";
import { distance } from "@/core/numeric";
import { type Gate, jointWords } from "@/core/plan";
import { leanNoise, outcomeKey } from "@/core/shrink";
import { formatLength, formatSmall, unitOf } from "@/core/units";
import { LikelyFailure } from "../job/Forecasts";
import { PartOf, useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { newRound, partOfNew, stagePath } from "../job/stages";
import { usePlanField } from "../job/usePlanField";
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
import { Button, buttonClass } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { Fold } from "../parts/Fold";
import { Now, Section } from "../parts/Sheet";
import { useAddress } from "../parts/useAddress";
import { useWarm } from "../parts/useWarm";
import { Verdict } from "../parts/Verdict";
import { WhenSeen } from "../parts/WhenSeen";
import { JointFits } from "./JointFits";
import { OtherWays, Shape } from "./Shape";

/** Room kept for the chart, px. */
const CHART_PX = 160;
const NETWORK_PX = 420;
// The chart, and what draws it, comes when it is seen.
const taps = () => import("./Taps");
const Taps = dynamic(() => taps().then((m) => m.Taps), { loading: () => null });
const warmer = () => import("../measure/WarmerField");
const WarmerField = dynamic(() => warmer().then((m) => m.WarmerField), { loading: () => null });
const LATER = [taps, warmer];
const NetworkPicture = dynamic(() => import("./NetworkPicture"), { ssr: false });
const WhatToMeasure = dynamic(() => import("./WhatToMeasure"), { ssr: false });
const RulesOfThumb = dynamic(() => import("./RulesOfThumb"), { ssr: false });
const RoundsChart = dynamic(() => import("./RoundsChart").then((m) => m.RoundsChart), { ssr: false });

const TAPED = ["size", "diagonal", "corner"] as const;
const MORE = ["distance", "angle", "offset", "height", "level", "flush", "gap", "straightness"] as const;
/** Limits besides square that a frame on the bed may be held against already. */
const ALSO = ["place", "gap", "flush", "flat", "level"];

/** The sub-assembly that an address shows by itself: that of its round, of one in it or still to begin; null for the frame. */
function partShown({ plan, entries }: Job, asked: string | null): string | null {
  const of = partOfNew(asked) ?? entries.find((e) => e.kind === "round" && e.id === asked);
  const id = typeof of === "string" ? of : of?.kind === "round" ? of.part : undefined;
  return ownParts(plan).find((p) => p.id === id)?.id ?? null;
}

/** Fifth stage: is it square, and which way to push; the frame, or a sub-assembly of it by itself. */
export function SquareStage() {
  const { job } = useJob("job");
  const [asked, move] = useAddress("round");
  const part = partShown(job, asked);
  const parts = ownParts(job.plan);
  const show = (id: string) =>
    move(
      id === ""
        ? null
        : (job.entries.findLast((e) => e.kind === "round" && e.part === id && e.gate !== "cold")?.id ?? newRound(id)),
    );
  const which =
    parts.length > 0 ? (
      <Choice
        label="What is measured"
        value={part ?? ""}
        options={[["", "the frame"], ...parts.map(({ id, name }): [string, string] => [id, name])]}
        onChange={show}
      />
    ) : null;
  return (
    <PartOf id={part}>
      <Squaring which={which} />
    </PartOf>
  );
}

/** What a sub-assembly's own corners are called in the order of work. */
function OwnLetters() {
  const { evaluation, part } = useJob("evaluation", "part");
  const [whole, own] = [part?.whole.structure, evaluation.structure];
  const quad = own?.quad;
  if (!part || !whole || !own || !quad) return null;
  const inPart = jointsInPart(whole, own);
  const others = CORNERS.flatMap((c) => {
    const id = [...inPart].find(([, joint]) => joint === quad.joints[c])?.[0];
    const joint = whole.joints.find((j) => j.id === id);
    const name = joint && jointWords(whole, joint);
    return name === undefined || name === c ? [] : [`${c} is ${name}`];
  });
  return others.length > 0 ? (
    <p className="max-w-prose text-sm text-soft first-letter:uppercase" data-testid="own-letters">
      {part.name} by itself, its corners lettered for itself. In the order of work {others.join(", ")}.
    </p>
  ) : null;
}

/** @param which of a frame with sub-assemblies is measured, to be chosen; below what is to be done. */
function Squaring({ which }: { which: ReactNode }) {
  const { job, evaluation, part } = useJob("job", "evaluation", "part");
  const { edit } = usePlanField();
  const { units } = job.plan;
  const { structure, places, setUp, limits } = evaluation;
  // The order is that of the whole.
  const work = part?.whole ?? evaluation;
  const { steps, ticked } = work;
  const quad = structure?.quad ?? null;
  const rounds = evaluation.frameRounds.filter((r) => r.round.gate !== "cold");
  const inSight = useRounds(rounds);
  useWarm(LATER);
  const { current, roundId, stand, show, fresh, picked } = inSight;
  const begun = evaluation.steps.some((s) => s.id.do === "tack" && evaluation.ticked.has(s.key));
  // Chosen for what it was chosen of: another begins with its own.
  const [chosen, setChosen] = useState<{ of: string | null; gate: Gate } | null>(null);
  const of = part?.id ?? null;
  const gate = chosen?.of === of ? chosen.gate : null;
  const [warmerK, setWarmerK] = useState(0);
  const [hold, setHold] = useState<Hold>("slides");
  const noise = evaluation.prediction && leanNoise(evaluation.prediction);
  const aimed = job.plan.aim === "drawing" ? null : setUp;
  const isAimed = job.plan.aim !== "drawing" && evaluation.prediction !== null;
  const freeSetUp =
    !quad && places && isAimed && evaluation.prediction ? setUpWords(places, evaluation.prediction, units) : null;
  // Where it is set up, off the drawing for what the weld takes.
  const laid =
    places && isAimed && evaluation.prediction
      ? { ...places, nodes: wantedPlaces(places, evaluation.prediction.setUp.offsetsMm) }
      : places;
  const ways = (quad && places ? beyondPairs(places) : []).flatMap(
    ([p, q]) => (laid && frameQuantity(distanceId(p, q), laid, current, units)) ?? [],
  );
  const usual =
    quad && places
      ? [...spanQuantities(quad, aimed, current), ...ways]
      : places
        ? [
            ...tapedPairs(places).map(([p, q]) => distanceId(p, q)),
            // What carries a row of branches bows by them.
            ...(structure ? railsOf(structure) : []).map((at) => ({ kind: "straightness" as const, at })),
          ].flatMap((what) => frameQuantity(what, places, current, units) ?? [])
        : [];
  // Legs stand once every tack is in: then the ways between their feet say whether they lean.
  const tacks = steps.filter((s) => s.id.do === "tack");
  const isStanding = tacks.length > 0 && tacks.every((s) => ticked.has(s.key));
  const feet = (places && isStanding ? places.feet.pairs : []).flatMap(([from, to]) => {
    const quantity = places && frameQuantity(distanceId(from, to), places, current, units);
    // Legs are set out by what the weld draws them in.
    const set = isAimed
      ? evaluation.prediction?.setUp.targets.find(({ id }) => outcomeKey(id) === outcomeKey({ kind: "feet", from, to }))
      : undefined;
    return quantity ? [{ ...quantity, expected: set?.target.value ?? quantity.expected }] : [];
  });
  const { more, add } = useMore(current, places, new Set([...usual, ...feet].map((q) => q.key)));
  if (!places) return <NotYet stage="Square" />;
  // Where the order asks for readings now, they belong to its gate.
  const next = steps.find((s) => !ticked.has(s.key));
  const isDue = next && work.structure && measuring(work.structure, steps).get(next.key)?.of === of;
  const due = isDue ? next.gate : null;
  const nextGate = gate ?? (due && due !== "cold" ? due : begun ? "tacked" : "dry fit");
  const asking = steps.findLastIndex((s) => {
    const reading = gateReading(s, work);
    return reading?.state === "read" && reading.round?.round.id === current?.round.id;
  });
  const after = asking >= 0 && steps.slice(0, asking).every((s) => ticked.has(s.key)) ? steps[asking + 1] : undefined;
  // Where the branches land along the sides: spacing, and whether they are centred.
  const spacings = quad
    ? places.along
        .map(([p, q]) => distanceId(p, q))
        .filter((what) => spanOf(what) === null && !more.some((m) => m.key === quantityKey(what)))
    : [];
  const quantities = [...usual, ...feet.filter((f) => !usual.some((u) => u.key === f.key)), ...more];
  const nowKey = picked ?? nextUnread(stand, quantities);
  const now = quantities.find((q) => q.key === nowKey) ?? null;
  const before = current === null || current.round.gate !== "hot";
  const squaring = quad
    ? heldWords(
        current ?? { square: null, impossible: null },
        hold,
        (before && aimed ? aimed : quad).squareDifferenceMm2,
        units,
      )
    : placeWords(current, places, units);
  // What is set on it later is not there to be taped.
  const isWhole = work.steps.every((s) => s.why.kind !== "sub-assembly cold" || work.ticked.has(s.key));
  const move = quad && isWhole ? beyondWords(squaring, current, places, units) : squaring;
  const words = lockedWords(current, move);
  const best = current?.square?.nudges[0];
  const squareLimit = limits.find((l) => l.id === "square");
  const verdict = current?.verdicts.find((v) => v.limit.id === (quad ? "square" : "place"));
  const judged = limits.find((l) => l.id === (quad ? "square" : "place"));
  const notYet = quad || !before || !isAimed ? judged?.label : "Farthest place from where it is set up";
  const extra = current?.verdicts.filter((v) => v.result !== null && v !== verdict && ALSO.includes(v.limit.id)) ?? [];
  const limitMmPerM =
    squareLimit?.kind === "corner"
      ? squareLimit.upper
      : squareLimit?.upper && quad
        ? (1000 * squareLimit.upper * Math.hypot(quad.lengthMm, quad.widthMm)) / (2 * quad.lengthMm * quad.widthMm)
        : null;
  const drawing = (
    <MeasuredDrawing
      round={current}
      now={now}
      label={`Sides and diagonals as read; next: ${now ? quantityWords(now.what) : "none"}`}
      slide={
        quad && words.act === "slide" && words === squaring && hold === "slides" && best
          ? { ...best, text: formatSmall(best.shiftMm, units) }
          : null
      }
    />
  );
  return (
    <>
      <h1 className="sr-only">Square</h1>
      <Now say={words.say} why={words.why}>
        {/* Its line is there before its readings are: nothing moves under a finger as they come in. */}
        {judged ? (
          <p className="mt-2 flex flex-wrap items-center gap-x-3">
            <Verdict verdict={verdict?.result?.verdict ?? "not measured"} />
            <span className="text-sm text-soft">{verdict?.result ? verdict.why : notYet}</span>
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
        {after && !ticked.has(after.key) ? (
          <Link href={stagePath(job.id, "weld")} className={`${buttonClass("plain", true)} mt-3 no-underline`}>
            Go on at step {asking + 2} of {steps.length}
          </Link>
        ) : null}
      </Now>
      {which}
      <OwnLetters />
      <RoundTabs rounds={rounds} current={current} fresh={fresh} onShow={show} />
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <div className="max-xl:hidden xl:sticky xl:top-4 xl:self-start">{drawing}</div>
        <div className="grid content-start gap-6">
          {fresh ? (
            <Choice
              label="Measured at the gate"
              value={nextGate}
              options={[
                ["dry fit", "dry fit"],
                ["tacked", "tacked"],
                ["hot", "welded, hot"],
              ]}
              onChange={(g) => setChosen({ of, gate: g })}
            />
          ) : null}
          {fresh && nextGate === "hot" ? <WarmerField value={warmerK} onChange={setWarmerK} /> : null}
          <ReadingPad
            gate={nextGate}
            warmerK={nextGate === "hot" ? warmerK : 0}
            rounds={inSight}
            quantities={quantities}
            firstInstrument={usualTape(units)}
            figure={drawing}
          />
          {/* Below what is pressed: it comes while one reads. */}
          <LikelyFailure />
          {spacings.length > 0 ? (
            <Button className="justify-self-start" onClick={() => spacings.map(add)}>
              Read the spacings too
            </Button>
          ) : null}
          <SomethingElse
            note="panels, angles, gaps"
            kinds={MORE}
            onAdd={(what) => {
              add(what);
              inSight.pick(quantityKey(what));
            }}
          />
          {quad ? (
            <>
              <Choice
                label="It is brought square by"
                value={hold}
                options={[
                  ["slides", "sliding a side"],
                  ["hinges", "hinging on its tacks"],
                  ["strap", "a strap across"],
                ]}
                onChange={setHold}
              />
              {hold === "slides" && (current?.round.gate ?? nextGate) === "tacked" ? (
                <p className="text-sm text-soft">Tacked at all corners it hinges: choose that when no side is loose.</p>
              ) : null}
            </>
          ) : null}
          {(quad ? setUp : evaluation.prediction) ? (
            <Choice
              label={quad ? "Squared to" : "Set to"}
              value={job.plan.aim}
              options={[
                ["set-up", "what the weld will pull straight"],
                ["drawing", "the drawing"],
              ]}
              onChange={(aim) => edit((p) => ({ ...p, aim }))}
            />
          ) : null}
          {current ? <OtherWays round={current} /> : null}
          {part ? null : <JointFits />}
          {quad ? (
            <Fold title="What habits leave out" note="half the difference, twist">
              <RulesOfThumb />
            </Fold>
          ) : null}
          {stand.size === 0 && quad ? (
            <>
              <BeforeMeasuring kinds={TAPED} />
              <Fold title="The least to measure" note="before measuring">
                <WhatToMeasure />
              </Fold>
            </>
          ) : null}
          {quad ? (
            <Section
              title="Round by round"
              aside={
                <span className="text-sm text-soft">
                  out of square, {unitOf("slope", units)}
                  {limitMmPerM === null ? "" : "; shaded: inside the limit"}
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
          {freeSetUp ? <p className="max-w-prose text-sm text-soft">{freeSetUp}</p> : null}
          {aimed ? (
            <p className="max-w-prose text-sm text-soft">
              Set up for what the weld takes: AB {formatLength(aimed.targets.AB, units).text}, BC{" "}
              {formatLength(aimed.targets.BC, units).text}, AC {formatLength(aimed.targets.AC, units).text}, BD{" "}
              {formatLength(aimed.targets.BD, units).text}
              {beyondPairs(places).map(([p, q]) => {
                const [from, to] = [laid?.nodes[p], laid?.nodes[q]];
                return from && to ? `, ${p} to ${q} ${formatLength(distance(from, to), units).text}` : "";
              })}
              .{noise ? ` The weld may lean it, AC less BD, by ${bandWords(noise, units)}: noise, not aimed at.` : ""}
            </p>
          ) : null}
        </div>
      </div>
      <div className="mt-6 grid content-start gap-8 xl:grid-cols-2">
        {current && quad ? <Shape round={current} /> : null}
        {current?.twist ? <p className="max-w-prose">{twistWords(current.twist, units)}</p> : null}
        {current?.general &&
        (!quad || places.beyond.length > 0 || current.general.untied.length > 0 || more.length > 0) ? (
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
    </>
  );
}
