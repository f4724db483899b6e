"use client";

import { jointGap, onScale, type SawTestReading, sawTest } from "@/core/cut";
import { cleanSawTest } from "@/core/job";
import { fixed, formatSmall } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Choice } from "../parts/Choice";
import { LengthField } from "../parts/LengthField";
import { Section } from "../parts/Sheet";

/** A frame closes with the errors of all its cuts: eight of them. */
const CUTS = 8;
/** Below this the test itself cannot tell, degrees: a tenth of a millimetre over a hand's width. */
const TELLS_DEG = 0.02;

/** Two test mitres against a square: what the saw is off by, and what the frame would make of it. */
export function SawTest() {
  const { evaluation } = useJob("evaluation");
  const { plan, units, edit, field } = usePlanField();
  const test = plan.saw ?? cleanSawTest(units);
  const scale = plan.sawScale ?? "square";
  const set = (change: Partial<SawTestReading>) => edit((p) => ({ ...p, saw: { ...(p.saw ?? test), ...change } }));
  const broken = evaluation.problems.some((p) => p.severity === "error" && p.path.startsWith("saw"));
  const mitred = evaluation.cut.find((p) => p.sawDeg[0] !== 0);
  const nominal = Math.abs(mitred?.sawDeg[0] ?? 45);
  const found = sawTest(test.gap.mm, test.leg.mm, test.placing, test.gapAt);
  const width = evaluation.structure?.members.find((m) => mitred?.members.includes(m.id))?.properties.widthMm ?? 0;
  const last = Math.abs(jointGap(width, Math.abs(found.perCutErrorDeg), 90 - nominal, CUTS).gapMm);
  return (
    <Section title="Test of the saw" aside={<span className="text-sm text-soft">two mitres in a square</span>}>
      <div aria-live="polite">
        {!plan.saw ? (
          <p className="max-w-prose">
            Cut two test mitres, hold them together against a square, and read the gap: it shows double the saw's error.
          </p>
        ) : broken ? (
          <p className="text-close">Put the reading right first.</p>
        ) : Math.abs(found.perCutErrorDeg) < TELLS_DEG ? (
          <p className="font-semibold text-plum">Leave the saw as it is: no error that this test can tell.</p>
        ) : (
          <>
            <p className="text-lg font-semibold text-plum" data-testid="saw">
              Set the saw to {fixed(onScale(nominal + found.addToSettingDeg, scale), 2)}° for a true{" "}
              {fixed(onScale(nominal, scale), 0)}°.
            </p>
            <p className="max-w-prose text-soft">
              Each cut is {fixed(Math.abs(found.perCutErrorDeg), 2)}° too {found.perCutErrorDeg < 0 ? "sharp" : "blunt"}
              . Left so, the frame's eight cuts add up and the last corner opens by about{" "}
              <span className="fig">{formatSmall(last, units)}</span>.
            </p>
          </>
        )}
      </div>
      <div className="mt-4 grid gap-4 sm:grid-cols-2">
        <LengthField
          label="Gap"
          units={units}
          value={test.gap}
          {...field("saw.gap")}
          onChange={(gap) => gap && set({ gap })}
        />
        <LengthField
          label="Seen at, from the corner"
          units={units}
          value={test.leg}
          {...field("saw.leg")}
          onChange={(leg) => leg && set({ leg })}
        />
        <Choice
          label="How they were held"
          value={test.placing}
          options={[
            ["pieces inside square", "pieces inside the square"],
            ["square inside pieces", "square inside the pieces"],
          ]}
          onChange={(placing) => set({ placing })}
        />
        <Choice
          label="It opens"
          value={test.gapAt}
          options={[
            ["toe", "at the toe, far from the corner"],
            ["heel", "at the heel, in the corner"],
          ]}
          onChange={(gapAt) => set({ gapAt })}
        />
      </div>
    </Section>
  );
}
