"use client";

import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { BED_SHARE } from "@/core/check";
import type { ResolvedFrame } from "@/core/frame";
import { type BedRound, type Plan, restsUnder, restWords, STAGE_CAUTIONS } from "@/core/job";
import { fixed, formatLength, formatSmall, length } from "@/core/units";
import { FrameDrawing, type PointMark } from "../drawing";
import { useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { usePlanField } from "../job/usePlanField";
import { nextUnread, type Quantity, ReadingPad, RoundTabs, useRounds, WhatCanBeProven } from "../measure";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { LengthField } from "../parts/LengthField";
import { SelectField } from "../parts/SelectField";
import { Caution, Now, Section } from "../parts/Sheet";

function RestFields({ over }: { over: ResolvedFrame }) {
  const { plan, units, edit, field, forget } = usePlanField();
  const { bed } = plan;
  const set = (change: Partial<Plan["bed"]>) => edit((p) => ({ ...p, bed: { ...p.bed, ...change } }));
  /** Other rests: texts typed for those that go (all of them, or one by its name) go with them. */
  const place = (rests: Plan["bed"]["rests"], gone = "") => {
    forget(gone ? `bed.rests.${gone}.` : "bed.rests.");
    set({ rests });
  };
  const free = Array.from({ length: 99 }, (_, i) => `R${i + 1}`).find((id) => !bed.rests.some((r) => r.id === id));
  const centre = () => ({
    x: length(String(+(over.lengthMm / 2).toFixed(1))),
    y: length(String(+(over.widthMm / 2).toFixed(1))),
  });
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => place(restsUnder(over, 4))}>Four, under the corners</Button>
        <Button onClick={() => place(restsUnder(over, 6))}>Six, with the middles of AB and CD</Button>
        <Button
          disabled={!free || bed.rests.length >= 40}
          onClick={() => free && set({ rests: [...bed.rests, { id: free, ...centre() }] })}
        >
          <Plus size={18} aria-hidden="true" /> One more
        </Button>
      </div>
      <ul className="grid gap-3">
        {bed.rests.map((rest, i) => (
          <li key={rest.id} className="grid grid-cols-[2.5rem_1fr_1fr_auto] items-start gap-2">
            <strong className="fig mt-8">{rest.id}</strong>
            {(["x", "y"] as const).map((axis) => (
              <LengthField
                key={axis}
                label={
                  <>
                    <span className="sr-only">{rest.id} </span>
                    {axis === "x" ? "from DA" : "from AB"}
                  </>
                }
                units={units}
                value={rest[axis]}
                {...field(`bed.rests.${i}.${axis}`, `bed.rests.${rest.id}.${axis}`)}
                onChange={(v) =>
                  v && set({ rests: bed.rests.map((r) => (r.id === rest.id ? { ...r, [axis]: v } : r)) })
                }
              />
            ))}
            <Button
              look="quiet"
              className="mt-6.5"
              aria-label={`Take ${rest.id} out`}
              onClick={() =>
                place(
                  bed.rests.filter((r) => r.id !== rest.id),
                  rest.id,
                )
              }
            >
              <Trash2 size={18} aria-hidden="true" />
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}

function AdjustFields() {
  const { plan, units, edit, field } = usePlanField();
  const { bed } = plan;
  const set = (change: Partial<Plan["bed"]>) => edit((p) => ({ ...p, bed: { ...p.bed, ...change } }));
  return (
    <div className="grid gap-4">
      <Choice
        label="Rests are set by"
        value={bed.adjust}
        options={[
          ["shims", "shims"],
          ["feet", "screw feet"],
        ]}
        onChange={(adjust) => set({ adjust })}
      />
      <SelectField
        label="Bring them into"
        value={bed.mode}
        options={[
          ["level", "level with the highest rest"],
          ["best_fit", "the bed's own slope: flat, not level"],
          ["least_total", "the plane with the least shimming"],
        ]}
        onChange={(mode) => set({ mode })}
      />
      {bed.adjust === "feet" ? (
        <div className="grid gap-4 sm:grid-cols-2">
          <LengthField
            label="Thread pitch"
            units={units}
            value={bed.pitch}
            {...field("bed.pitch")}
            onChange={(pitch) => pitch && set({ pitch })}
          />
          <SelectField
            label="Thread"
            value={bed.thread}
            options={[
              ["right", "right-hand"],
              ["left", "left-hand"],
            ]}
            onChange={(thread) => set({ thread })}
          />
        </div>
      ) : null}
    </div>
  );
}

function Advice({ round }: { round: BedRound }) {
  const { job } = useJob();
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

const FLAT = ["flat"] as const;

/** Fourth stage: is the bed good enough, and what to do at each rest. */
export function BedStage() {
  const { job, evaluation } = useJob();
  const { footprint: frame, bedRounds } = evaluation;
  const { plan } = job;
  const { units } = plan;
  const inSight = useRounds(bedRounds);
  const { current, stand, show, fresh, picked } = inSight;
  const [wanted, setWanted] = useState<"heights" | "rod">("heights");
  if (!frame) return <NotYet stage="Bed" />;
  const method = current?.round.method ?? wanted;
  const read = [...(current?.readings.values() ?? [])].map((r) => r.value.mm);
  const mean = read.length > 0 ? read.reduce((s, x) => s + x, 0) / read.length : null;
  const quantities = plan.bed.rests.map(
    (r): Quantity => ({
      name: r.id,
      say: method === "rod" ? "Rod reading on this rest" : "Height of this rest",
      expectedMm: mean,
      askBeyondMm: 25,
    }),
  );
  const now = picked ?? nextUnread(stand, quantities);
  const verdict = current?.verdict;
  const marks = plan.bed.rests.map((r): PointMark => {
    const advice = verdict?.rests.find((a) => a.id === r.id);
    const height = advice?.heightMm ?? null;
    return {
      id: r.id,
      at: { x: r.x.mm, y: r.y.mm },
      text: height === null ? r.id : `${r.id} ${formatSmall(height, units, { decimals: 2, bare: true })}`,
      tone: height === null && now !== r.id ? "plain" : "brass",
      active: now === r.id,
    };
  });
  const outside = plan.bed.rests.filter(
    (r) => r.x.mm < 0 || r.y.mm < 0 || r.x.mm > frame.lengthMm || r.y.mm > frame.widthMm,
  );
  const say = verdict
    ? verdict.word === "not measured"
      ? "Go on reading."
      : `The bed is ${verdict.word === "too close to call" ? "too close to call" : verdict.word}.`
    : "Read the height of every rest.";
  const drawing = (
    <FrameDrawing
      frame={frame}
      units={units}
      label={`Rests under the frame with their heights; next: ${now ?? "none"}`}
      points={marks}
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
          verdict?.why ??
          "Flat is not the same as level: a frame follows the flat of what it is tacked on. Half of its flatness limit is left to the bed."
        }
      />
      <RoundTabs rounds={bedRounds} current={current} fresh={fresh} onShow={show} />
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <div className="grid content-start gap-6">
          <div className="max-xl:hidden">{drawing}</div>
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
                    {fixed(verdict.slopeMmPerM.value, 2)} ± {fixed(2 * verdict.slopeMmPerM.u, 2)} mm/m
                  </span>
                  {plan.limits.levelMmPerM === null
                    ? ": no limit on level in this job."
                    : `, limit ${plan.limits.levelMmPerM} mm/m.`}
                </p>
              ) : null}
            </Section>
          ) : null}
          {current ? <Lie round={current} /> : null}
        </div>
        <div className="grid content-start gap-6 max-xl:order-first">
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
          {stand.size === 0 ? (
            <Section title="What can be proven" aside={<span className="text-sm text-soft">before measuring</span>}>
              <WhatCanBeProven kinds={FLAT} share={BED_SHARE} />
            </Section>
          ) : null}
          <Section title="How it is set">
            <AdjustFields />
          </Section>
          <Section title="Rests">
            {outside.length > 0 ? (
              <p className="mb-3 text-close">
                Check: {outside.map((r) => r.id).join(", ")} lie outside the frame of{" "}
                {formatLength(frame.lengthMm, units).text} × {formatLength(frame.widthMm, units).text}.
              </p>
            ) : null}
            <RestFields over={frame} />
          </Section>
          <Caution>{STAGE_CAUTIONS.bed}</Caution>
        </div>
      </div>
    </>
  );
}
