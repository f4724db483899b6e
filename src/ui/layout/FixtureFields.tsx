"use client";

import { BEDS, type BedKind, FIXTURE_SIDES, type FixtureSide, SHELF } from "@/core/fixture";
import { bearersUnder, bedKindOf, type Plan, SHELF_WORDS } from "@/core/job";
import { length } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Choice } from "../parts/Choice";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { Bearers } from "./Bearers";
import { withFixture } from "./Elements";
import { OwnThings } from "./OwnThings";

type FixturePlan = NonNullable<Plan["fixture"]>;

const SIDES: Record<FixtureSide, string> = { outside: "Outside the ring", inside: "Inside it" };

const ON: Record<BedKind, string> = {
  plate: "Plain plate",
  holes: "Plate with holes",
  slots: "Plate with slots",
  bearers: "Trestles or bars",
  floor: "Bare floor",
};
/** A frame that is laid on trestles begins with so many. */
const TRESTLES = 3;

const sentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** How the bed locates things, where the frame lies on it, and what is on the shelf. */
export function FixtureFields({ isRing }: { isRing: boolean }) {
  const { plan, units, edit, field, forget } = usePlanField();
  const { evaluation } = useJob("evaluation");
  const zeroWords = evaluation.footprint?.corners ? "Corner A" : "Lower left of the frame";
  const fixture: FixturePlan = plan.fixture ?? {};
  const set = (change: Partial<FixturePlan>) => edit((p) => withFixture(p, change));
  const { holes, slots, at, bed, have } = fixture;
  const on = bedKindOf(plan);
  const isInch = units !== "mm";
  const some = (mm: string, inch: string) => length(isInch ? inch : mm, isInch ? "in" : "mm");
  const zero = some("0", "0");
  const pitch = some("50", "2");
  const choose = (kind: BedKind) => {
    for (const key of ["holes", "slots", "bearers"]) forget(`fixture.${key}.`);
    const { structure } = evaluation;
    set({
      holes: kind === "holes" ? { pitch, x: zero, y: zero } : undefined,
      slots: kind === "slots" ? { run: "along", pitch, first: zero } : undefined,
      bearers: kind === "bearers" && structure ? bearersUnder(structure, units, { trestles: TRESTLES }) : undefined,
      floor: kind === "floor" ? true : undefined,
    });
  };
  return (
    <div className="grid gap-4">
      {isRing ? (
        <Choice
          label="Stops of a ring"
          value={fixture.side ?? "outside"}
          options={FIXTURE_SIDES.map((s) => [s, SIDES[s]] as const)}
          onChange={(side) => set({ side: side === "outside" ? undefined : side })}
        />
      ) : null}
      <Choice label="It lies on" value={on} options={BEDS.map((b) => [b, ON[b]] as const)} onChange={choose} />
      {on === "holes" && holes ? (
        <div className="grid gap-3 sm:grid-cols-3">
          {(
            [
              ["pitch", "Holes apart"],
              ["x", "First, along"],
              ["y", "First, across"],
            ] as const
          ).map(([key, label]) => (
            <LengthField
              key={key}
              label={label}
              units={units}
              value={holes[key]}
              {...field(`fixture.holes.${key}`)}
              onChange={(value) => value && set({ holes: { ...holes, [key]: value } })}
            />
          ))}
        </div>
      ) : null}
      {on === "slots" && slots ? (
        <>
          <Choice
            label="Slots run"
            value={slots.run}
            options={[
              ["along", "Along the frame"],
              ["across", "Across it"],
            ]}
            onChange={(run) => set({ slots: { ...slots, run } })}
          />
          <div className="grid gap-3 sm:grid-cols-2">
            {(
              [
                ["pitch", "Slots apart"],
                ["first", `First, from ${evaluation.structure?.quad ? "A" : "the lower left"}`],
              ] as const
            ).map(([key, label]) => (
              <LengthField
                key={key}
                label={label}
                units={units}
                value={slots[key]}
                {...field(`fixture.slots.${key}`)}
                onChange={(value) => value && set({ slots: { ...slots, [key]: value } })}
              />
            ))}
          </div>
        </>
      ) : null}
      {on === "bearers" ? <Bearers /> : null}
      {on === "floor" ? (
        <p className="max-w-prose text-sm">
          Nothing is pinned, bolted or clamped to it: stops are blocks with weights on them, clamps go over the frame,
          and it lies by its own weight. String the outline, tape from corner A.
        </p>
      ) : null}
      {on === "plate" ? (
        <div className="grid gap-3 sm:grid-cols-2">
          <LengthField
            label={`${zeroWords}, from the left edge`}
            units={units}
            value={at?.x ?? null}
            optional
            {...field("fixture.at.x")}
            onChange={(x) => set({ at: x ? { x, y: at?.y ?? zero } : undefined })}
          />
          <LengthField
            label={`${zeroWords}, from the near edge`}
            units={units}
            value={at?.y ?? null}
            optional
            {...field("fixture.at.y")}
            onChange={(y) => set({ at: y ? { x: at?.x ?? zero, y } : undefined })}
          />
          {at ? (
            <>
              <LengthField
                label="Bed, length"
                units={units}
                value={bed?.length ?? null}
                optional
                {...field("fixture.bed.length")}
                onChange={(long) => set({ bed: long ? { length: long, width: bed?.width ?? long } : undefined })}
              />
              <LengthField
                label="Bed, width"
                units={units}
                value={bed?.width ?? null}
                optional
                {...field("fixture.bed.width")}
                onChange={(width) => set({ bed: width ? { length: bed?.length ?? width, width } : undefined })}
              />
            </>
          ) : null}
        </div>
      ) : null}
      <fieldset className="grid gap-3">
        <legend className="mb-1 text-sm font-semibold">On the shelf, where you counted</legend>
        <div className="grid grid-cols-2 gap-3">
          {SHELF.map((key) => (
            <NumberField
              key={key}
              label={sentence(SHELF_WORDS[key])}
              unit=""
              min={0}
              max={999}
              optional
              value={have?.[key] ?? null}
              {...field(`fixture.have.${key}`)}
              onChange={(n) => {
                const { [key]: _, ...rest } = have ?? {};
                const next = n === null ? rest : { ...rest, [key]: Math.round(n) };
                set({ have: Object.keys(next).length > 0 ? next : undefined });
              }}
            />
          ))}
        </div>
        <OwnThings />
        <p className="text-sm text-soft">
          What is your own is taken first. What runs short is stood in for by what else is counted, and each says so.
          Nothing typed: enough of the usual, none of the rest.
        </p>
      </fieldset>
    </div>
  );
}
