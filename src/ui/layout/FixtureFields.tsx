"use client";

import { FIXTURE_SIDES, type FixtureSide } from "@/core/fixture";
import type { Plan } from "@/core/job";
import { length } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Choice } from "../parts/Choice";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { withFixture } from "./Elements";

type FixturePlan = NonNullable<Plan["fixture"]>;

const SIDES: Record<FixtureSide, string> = { outside: "Outside the ring", inside: "Inside it" };

/** How the bed locates things, where the frame lies on it, and what is on the shelf. */
export function FixtureFields({ isRing }: { isRing: boolean }) {
  const { plan, units, edit, field, forget } = usePlanField();
  const { evaluation } = useJob("evaluation");
  const zeroWords = evaluation.structure?.quad ? "Corner A" : "Lower left of the frame";
  const fixture: FixturePlan = plan.fixture ?? {};
  const set = (change: Partial<FixturePlan>) => edit((p) => withFixture(p, change));
  const { holes, at, bed, have } = fixture;
  const isInch = units !== "mm";
  const some = (mm: string, inch: string) => length(isInch ? inch : mm, isInch ? "in" : "mm");
  const zero = some("0", "0");
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
      <Choice
        label="Placed by"
        value={holes ? "holes" : "tape"}
        options={[
          ["tape", "Tape"],
          ["holes", "Holes of the bed"],
        ]}
        onChange={(by) => {
          forget("fixture.holes.");
          set({ holes: by === "holes" ? { pitch: some("50", "2"), x: zero, y: zero } : undefined });
        }}
      />
      {holes ? (
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
      ) : (
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
      )}
      <div className="grid gap-3 sm:grid-cols-2">
        {(["stops", "clamps"] as const).map((key) => (
          <NumberField
            key={key}
            label={key === "stops" ? "Stops at hand" : "Clamps at hand"}
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
    </div>
  );
}
