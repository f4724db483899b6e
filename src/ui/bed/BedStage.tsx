"use client";

import dynamic from "next/dynamic";
import { useMemo, useState } from "react";
import { BED_SHARE } from "@/core/check";
import { sceneOf } from "@/core/drawing";
import { FROM_ABOVE } from "@/core/frame";
import { type BedRound, restWords, STAGE_CAUTIONS, surveyWords } from "@/core/job";
import { formatLength, formatSmall, physical } from "@/core/units";
import { FrameDrawing, type PointMark } from "../drawing";
import { useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { BeforeMeasuring, nextUnread, type Quantity, ReadingPad, RoundTabs, useRounds } from "../measure";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { Fold } from "../parts/Fold";
import { Caution, Now, Section } from "../parts/Sheet";
import { WhenSeen } from "../parts/WhenSeen";
import { MethodFields } from "./MethodFields";
import { type Method, surveyQuantities } from "./surveyQuantities";

/** Room kept for what comes when it is seen, px. */
const PICTURES_PX = 520;
const HISTORY_PX = 150;
// Pictures, and what draws them, come when they are seen.
const FIELDS_PX = 240;
const SurveyPictures = dynamic(() => import("./SurveyPictures"), { ssr: false });
const FlatnessHistory = dynamic(() => import("./FlatnessHistory"), { ssr: false });
const WhereToRest = dynamic(() => import("./WhereToRest"), { ssr: false });
const AdjustFields = dynamic(() => import("./AdjustFields").then((m) => m.AdjustFields), { ssr: false });
const RestFields = dynamic(() => import("./RestFields").then((m) => m.RestFields), { ssr: false });
const WhoseTwist = dynamic(() => import("./WhoseTwist"), { ssr: false });

function Advice({ round }: { round: BedRound }) {
  const { job } = useJob("job");
  const { units } = job.plan;
  return (
    <table className="w-full text-left">
      <thead className="text-sm text-soft">
        <tr>
          <th className="py-1 font-normal">Rest</th>
          <th className="py-1 text-right font-normal">above the lowest</th>
          <th className="py-1 pl-4 font-normal">
            {job.plan.bed.adjust === "shims" ? "shim under it" : "turn its foot"}
          </th>
        </tr>
      </thead>
      <tbody>
        {round.verdict.rests.map((r) => (
          <tr key={r.id} className="border-t border-line">
            <td className="fig py-2 font-bold">{r.id}</td>
            <td className="fig py-2 text-right text-brass">
              {r.heightMm === null ? "—" : formatSmall(r.heightMm, units, { decimals: 2 })}
            </td>
            <td className="py-2 pl-4 text-plum">{restWords(r, units)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** How the frame would lie on the rests as they are. */
function Lie({ round }: { round: BedRound }) {
  if (!round.lying) return null;
  const { say, best } = round.lying;
  return (
    <Section
      title="How it lies on them as they are"
      aside={<span className="text-sm text-soft">a straight frame</span>}
    >
      <ul className="grid max-w-prose gap-1">
        {say.map((s) => (
          <li key={s}>{s}</li>
        ))}
        {best ? (
          <li>
            On three alone it stands most safely on <strong className="fig">{best.join(", ")}</strong>: three never
            rock, and no bed is too uneven for them.
          </li>
        ) : null}
      </ul>
    </Section>
  );
}

/** The guided loop: one rest at a time, read again, until it is inside. */
function NextStep({
  round,
  onRead,
  onRound,
}: {
  round: BedRound;
  onRead: (rest: string) => void;
  onRound: () => void;
}) {
  const { next } = round;
  if (!next) return null;
  const { rest } = next;
  return (
    <section className="border-l-4 border-plum py-0.5 pl-4" aria-label="Next at the rests" data-testid="adjust">
      <p className="text-lg font-semibold text-plum">{next.say}</p>
      {next.why ? <p className="mt-1 max-w-prose text-soft">{next.why}</p> : null}
      {rest ? (
        <div className="mt-2 flex flex-wrap gap-2">
          <Button onClick={() => onRead(rest)}>Done: read {rest} again</Button>
          <Button onClick={onRound}>Read all again, in a new round</Button>
        </div>
      ) : null}
    </section>
  );
}

const FLAT = ["flat"] as const;

const isRest = ({ what }: Quantity, rest: string | null): boolean => what.kind === "rest" && what.rest === rest;
const restsOf = (quantities: readonly Quantity[]): string[] => [
  ...new Set(quantities.flatMap(({ what }) => (what.kind === "rest" ? [what.rest] : []))),
];

/** Fourth stage: is the bed good enough, and what to do at each rest. */
export function BedStage() {
  const { job, evaluation } = useJob("job", "evaluation");
  const { footprint: over, structure, bedRounds } = evaluation;
  const scene = useMemo(
    () => (structure && over ? sceneOf(structure, { view: FROM_ABOVE, origin: over.origin }) : null),
    [structure, over],
  );
  const { plan } = job;
  const { units } = plan;
  const inSight = useRounds(bedRounds);
  const { current, stand, show, fresh, picked } = inSight;
  const [wanted, setWanted] = useState<"heights" | "rod">("heights");
  const [by, setBy] = useState<Method>({ by: "usual" });
  if (!over || !scene) return <NotYet stage="Bed" />;
  const method = current?.round.method ?? wanted;
  const quantities = surveyQuantities(by, plan.bed.rests, current, method, units);
  const now = picked ?? nextUnread(stand, quantities);
  const nowRead = quantities.find((q) => q.key === now);
  const nowRest = nowRead?.what.kind === "rest" ? nowRead.what.rest : null;
  const nowFrom = nowRead?.how;
  const verdict = current?.verdict;
  const marks = plan.bed.rests.map((r): PointMark => {
    const advice = verdict?.rests.find((a) => a.id === r.id);
    const height = advice?.heightMm ?? null;
    return {
      id: r.id,
      at: { x: r.x.mm, y: r.y.mm },
      text: height === null ? r.id : `${r.id} ${formatSmall(height, units, { decimals: 2, bare: true })}`,
      tone: height === null && nowRest !== r.id ? "plain" : "brass",
      active: nowRest === r.id,
    };
  });
  const outside = plan.bed.rests.filter(
    (r) => r.x.mm < 0 || r.y.mm < 0 || r.x.mm > over.lengthMm || r.y.mm > over.widthMm,
  );
  const at = (id: string) => plan.bed.rests.find((r) => r.id === id);
  const line = (from: string, to: string) => {
    const [a, b] = [at(from), at(to)];
    return a && b
      ? [
          {
            id: `${from} ${to}`,
            from: { x: a.x.mm, y: a.y.mm },
            to: { x: b.x.mm, y: b.y.mm },
            text: "",
            tone: "brass" as const,
          },
        ]
      : [];
  };
  const lines =
    nowFrom?.by === "edge"
      ? line(nowFrom.from, nowFrom.to)
      : nowFrom && "from" in nowFrom && nowRest
        ? line(nowFrom.from, nowRest)
        : [];
  const heard = current ? surveyWords(current, units) : null;
  const say = verdict
    ? verdict.word === "not measured"
      ? heard?.wrong
        ? "Look at the readings first."
        : "Go on reading."
      : `The bed is ${verdict.word === "too close to call" ? "too close to call" : verdict.word}.`
    : "Read the height of every rest.";
  const drawing = (
    <FrameDrawing
      scene={scene}
      units={units}
      label={`Rests under the frame with their heights; next: ${now ?? "none"}`}
      points={marks}
      lines={lines}
      bare
      maxHeight={420}
    />
  );
  return (
    <>
      <h1 className="sr-only">Bed</h1>
      <Now
        say={say}
        why={
          (heard?.wrong ? heard.say : verdict?.why) ??
          "Flat is not the same as level: a frame follows the flat of what it is tacked on. Half of its flatness limit is left to the bed."
        }
      />
      {current?.next ? (
        <NextStep
          round={current}
          onRead={(rest) => inSight.pick(quantities.find((q) => isRest(q, rest))?.key ?? rest)}
          onRound={() => show(null)}
        />
      ) : null}
      <RoundTabs rounds={bedRounds} current={current} fresh={fresh} onShow={show} />
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <div className="max-xl:hidden xl:sticky xl:top-4 xl:self-start">{drawing}</div>
        <div className="grid content-start gap-6">
          {plan.bed.rests.length === 0 ? (
            <p>No rests yet: place four under the corners, below.</p>
          ) : (
            <ReadingPad
              gate="bed"
              method={method}
              rounds={inSight}
              quantities={quantities}
              firstInstrument="height-gauge"
              figure={drawing}
            />
          )}
          {fresh ? (
            <Choice
              label="The next round is"
              value={wanted}
              options={[
                ["heights", "heights, up is more"],
                ["rod", "rod readings, more is lower"],
              ]}
              onChange={setWanted}
            />
          ) : (
            <p className="text-sm text-soft">
              {method === "rod"
                ? "Rod readings from one set-up of the level: more is lower."
                : "Heights up from one datum: up is more."}
            </p>
          )}
          {plan.bed.rests.length > 1 ? (
            <MethodFields
              method={by}
              rests={plan.bed.rests}
              units={units}
              to={{ rest: nowRest, from: restsOf(quantities) }}
              onTo={(rest) => inSight.pick(quantities.find((q) => isRest(q, rest))?.key ?? null)}
              onChange={(m) => {
                setBy(m);
                // Another way begins where it begins; read from elsewhere, it is still the same rest that is read.
                if (m.by !== by.by) return inSight.pick(null);
                const same = surveyQuantities(m, plan.bed.rests, current, method, units).find((q) =>
                  isRest(q, nowRest),
                );
                inSight.pick(same?.key ?? null);
              }}
            />
          ) : null}
          {stand.size === 0 ? <BeforeMeasuring kinds={FLAT} share={BED_SHARE} /> : null}
          {bedRounds.length > 1 ? (
            <Section
              title="Round by round"
              aside={<span className="text-sm text-soft">out of flat; shaded: what the bed may use</span>}
            >
              <WhenSeen heightPx={HISTORY_PX}>
                <FlatnessHistory
                  rounds={bedRounds}
                  currentId={current?.round.id ?? null}
                  allowedMm={verdict?.allowedMm ?? null}
                  units={units}
                />
              </WhenSeen>
            </Section>
          ) : null}
          <Section title="How it is set">
            <WhenSeen heightPx={FIELDS_PX}>
              <AdjustFields />
            </WhenSeen>
          </Section>
          <Fold title="Where to rest it" note="three points, long tubes">
            <WhereToRest />
          </Fold>
          <Fold title="Whose twist is it" note="frame or table">
            <WhoseTwist round={current} />
          </Fold>
          <Section title="Rests">
            {outside.length > 0 ? (
              <p className="mb-3 text-close">
                Check: {outside.map((r) => r.id).join(", ")} lie outside the frame of{" "}
                {formatLength(over.lengthMm, units).text} × {formatLength(over.widthMm, units).text}.
              </p>
            ) : null}
            <WhenSeen heightPx={FIELDS_PX}>
              <RestFields over={over} />
            </WhenSeen>
          </Section>
          <Caution>{STAGE_CAUTIONS.bed}</Caution>
        </div>
      </div>
      <div className="mt-6 grid content-start gap-8 xl:grid-cols-2">
        {current && verdict ? (
          <Section
            title={plan.bed.adjust === "shims" ? "Shims" : "Feet"}
            aside={
              verdict.afterMm !== null ? (
                <span className="text-sm text-soft">
                  afterwards about <span className="fig">{formatSmall(verdict.afterMm, units, { decimals: 2 })}</span>{" "}
                  out of flat
                </span>
              ) : null
            }
          >
            <Advice round={current} />
            {verdict.slopeMmPerM ? (
              <p className="mt-3 text-soft">
                Slope{" "}
                <span className="fig text-brass">
                  {physical("slope", verdict.slopeMmPerM.value, units, undefined, true)} ±{" "}
                  {physical("slope", 2 * verdict.slopeMmPerM.u, units)}
                </span>
                {plan.limits.levelMmPerM === null
                  ? ": no limit on level in this job; it can be set below."
                  : `, limit ${physical("slope", plan.limits.levelMmPerM, units)}.`}
              </p>
            ) : null}
          </Section>
        ) : null}
        {current ? <Lie round={current} /> : null}
        {current && plan.bed.rests.length > 2 ? (
          <WhenSeen heightPx={PICTURES_PX}>
            <SurveyPictures round={current} />
          </WhenSeen>
        ) : null}
      </div>
    </>
  );
}
