"use client";

import { CircleCheck, TriangleAlert } from "lucide-react";
import Link from "next/link";
import { useMemo, useState } from "react";
import { sceneOf } from "@/core/drawing";
import type { FixtureElement } from "@/core/fixture";
import { measuredFrom } from "@/core/fixture";
import { FROM_ABOVE, type StructureMember, tubeBeginsMm } from "@/core/frame";
import { clampCaution, fixtureChecks, layOut, PLACED_AS_WORDS } from "@/core/job";
import { FrameDrawing } from "../drawing";
import { useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { stagePath } from "../job/stages";
import { usePlanField } from "../job/usePlanField";
import { buttonClass } from "../parts/Button";
import { FieldMessage } from "../parts/Field";
import { Caution, Section } from "../parts/Sheet";
import { BackBow } from "./BackBow";
import { BarMarks } from "./BarMarks";
import { BearerMarks } from "./BearerMarks";
import { ElementMarks } from "./ElementMarks";
import { countWords, Elements, withPlaced } from "./Elements";
import { FixtureFields } from "./FixtureFields";
import { FullSize } from "./FullSize";
import { Held } from "./Held";
import { PlateBow } from "./PlateBow";

/** How each kind of element is drawn. */
const MARKS: readonly [FixtureElement["kind"], string][] = [
  ["stop", "Blocks: stops"],
  ["V-block", "Notched: V-blocks"],
  ["end stop", "Dashed: end stops"],
  ["clamp", "Arrows: clamps, the way they press"],
  ["square", "Angles: squares"],
  ["riser", "Light: risers under it"],
];

function CheckMark({ isGood }: { isGood: boolean }) {
  const Icon = isGood ? CircleCheck : TriangleAlert;
  return (
    <span className={`shrink-0 pt-0.5 ${isGood ? "text-pass" : "text-close"}`}>
      <Icon size={22} aria-hidden="true" />
      <span className="sr-only">{isGood ? "Good:" : "Mind:"}</span>
    </span>
  );
}

/** Fifth stage: what holds the frame on the bed. */
export function LayoutStage() {
  const { job, evaluation } = useJob("job", "evaluation");
  const { structure, prediction } = evaluation;
  const { plan, edit } = usePlanField();
  const [picked, setPicked] = useState<string | null>(null);
  /** An element that is being drawn along: everything follows it, and nothing is kept yet. */
  const [drawn, setDrawn] = useState<{ on: StructureMember; id: string; alongMm: number } | null>(null);
  const shown = useMemo(() => (drawn ? withPlaced(plan, drawn.on, drawn.id, drawn.alongMm) : plan), [plan, drawn]);
  const laid = useMemo(() => structure && layOut(shown, structure, prediction), [shown, structure, prediction]);
  const scene = useMemo(
    () => structure && sceneOf(structure, { view: FROM_ABOVE, origin: measuredFrom(structure) }),
    [structure],
  );
  if (!structure || !laid || !scene) return <NotYet stage="Lay out" />;
  const checks = fixtureChecks(structure, laid, plan.units, evaluation.bedRounds.at(-1)?.verdict ?? null);
  const memberOf = (id: string) => structure.members.find((m) => m.id === id) as StructureMember;
  const onWhich = (id: string) => memberOf(laid.elements.find((e) => e.element.id === id)?.element.member ?? "");
  const needed = countWords(laid.elements.map((e) => e.element.kind));
  return (
    <>
      <h1 className="sr-only">Lay out</h1>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-5">
          <p className="max-w-prose text-lg" data-testid="fixture-needs">
            {needed}, placed {PLACED_AS_WORDS[laid.placed]}.
          </p>
          <FrameDrawing
            scene={scene}
            units={plan.units}
            label="Stops and clamps about the frame"
            bare
            live
            maxHeight={420}
          >
            {(p) => (
              <>
                <BearerMarks plan={shown} p={p} />
                <BarMarks structure={structure} plan={shown} p={p} />
                <ElementMarks
                  laid={laid}
                  moving={{
                    units: plan.units,
                    picked,
                    onPick: setPicked,
                    beginsMm: (member) => tubeBeginsMm(memberOf(member)),
                    onMove: (id, alongMm) => setDrawn({ on: onWhich(id), id, alongMm }),
                    onPlace: (id, alongMm) => {
                      setDrawn(null);
                      edit((now) => withPlaced(now, onWhich(id), id, alongMm));
                    },
                  }}
                  p={p}
                />
              </>
            )}
          </FrameDrawing>
          <p className="text-sm text-soft">
            {MARKS.filter(([kind]) => laid.elements.some((e) => e.element.kind === kind)).map(
              ([, words]) => `${words}. `,
            )}
            Draw one along its member, or move it by the arrow keys.
            {laid.bed === "bearers" ? " Grey: what it lies on." : ""}
            {plan.held?.bars?.length ? " Bars: strongbacks and sides, dashed: blocks." : ""}
          </p>
          <Section title="What goes where">
            <Elements structure={structure} laid={laid} onPick={setPicked} picked={picked} />
          </Section>
          <Section title="How it is held while it is welded">
            <Held structure={structure} />
          </Section>
        </div>
        <div className="grid content-start gap-6">
          <Section title="Does it hold, and let go">
            <ul className="grid gap-2" data-testid="fixture-checks">
              {checks.map((c) => (
                <li key={c.id} className="flex items-start gap-3">
                  <CheckMark isGood={c.isGood} />
                  <span className="min-w-0">{c.say}</span>
                </li>
              ))}
            </ul>
            {laid.problems.map((p) => (
              <FieldMessage key={p.message} severity={p.severity}>
                {p.message}
              </FieldMessage>
            ))}
          </Section>
          <Section title="Bed and shelf">
            <FixtureFields isRing={laid.fixture.isRing} />
          </Section>
          <BackBow />
          <PlateBow />
          <Caution>{clampCaution(plan.units)}</Caution>
          <FullSize />
          <Link href={`${stagePath(job.id, "layout")}/print`} className={`${buttonClass()} justify-self-start`}>
            On paper
          </Link>
        </div>
      </div>
    </>
  );
}
