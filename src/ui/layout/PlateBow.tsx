"use client";

import { MATERIAL_NAMES, MATERIALS } from "@/core/frame";
import { PLATES, type Plan, plateBow, plateBowWords } from "@/core/job";
import { length } from "@/core/units";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { Fold } from "../parts/Fold";
import { LengthField } from "../parts/LengthField";
import { SelectField } from "../parts/SelectField";
import { withFixture } from "./Elements";
import { Trials } from "./Trials";

type Plates = NonNullable<NonNullable<Plan["fixture"]>["plates"]>;

const SIZES = [
  ["thickness", "Thickness"],
  ["width", "Width of both"],
  ["length", "Length of the seam"],
] as const;

/** Two plates with a seam along them, bent over a shim in the middle: what to try next, trial by trial. */
export function PlateBow() {
  const { plan, units, edit, field, forget } = usePlanField();
  const plates = plan.fixture?.plates;
  const found = plateBow(plan);
  const isInch = units !== "mm";
  const begin = () => {
    const size = (mm: string, inch: string) => length(isInch ? inch : mm, isInch ? "in" : "mm");
    const usual: Plates = {
      material: "stainless 304",
      thickness: size("3", "1/8"),
      width: size("300", "12"),
      length: size("500", "20"),
    };
    edit((p) => withFixture(p, { plates: usual }));
  };
  const set = (change: Partial<Plates>) =>
    plates && edit((p) => withFixture(p, { plates: { ...(p.fixture?.plates ?? plates), ...change } }));
  return (
    <Fold title="Two plates over a shim" note={plates ? "a seam along them" : "none"} open={plates !== undefined}>
      <div className="grid max-w-prose gap-3" data-testid="plate-bow">
        {plates ? (
          <>
            <SelectField
              label="Plates of"
              value={plates.material}
              options={MATERIAL_NAMES.filter((m) => !MATERIALS[m].heatSoftens).map(
                (m) => [m, MATERIALS[m].label] as const,
              )}
              onChange={(material) => set({ material })}
            />
            <div className="grid gap-3 sm:grid-cols-3">
              {SIZES.map(([key, label]) => (
                <LengthField
                  key={key}
                  label={label}
                  units={units}
                  value={plates[key]}
                  {...field(`fixture.plates.${key}`)}
                  onChange={(v) => v && set({ [key]: v })}
                />
              ))}
            </div>
            {(found ? plateBowWords(found, units) : []).map((w) => (
              <p key={w}>{w}</p>
            ))}
            <Trials member={PLATES} />
            <Button
              className="justify-self-start"
              onClick={() => {
                forget("fixture.plates.");
                edit((p) => withFixture(p, { plates: undefined }));
              }}
            >
              No plates
            </Button>
          </>
        ) : (
          <Button className="justify-self-start" onClick={begin}>
            Lay out two plates
          </Button>
        )}
      </div>
    </Fold>
  );
}
