"use client";

import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";

import { type Footprint, hasSidesAlong } from "@/core/bed";
import { type Plan, restsGrid, restsOnBearers, restsUnder } from "@/core/job";
import { stated } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { LengthField } from "../parts/LengthField";
import { SelectField } from "../parts/SelectField";

/** Grids to survey a surface by: points along and across. */
const GRIDS = [
  ["3x3", "3 × 3 points"],
  ["4x3", "4 × 3 points"],
  ["5x4", "5 × 4 points"],
  ["8x5", "8 × 5 points"],
] as const;
type Grid = (typeof GRIDS)[number][0];

/** Where rests are laid at one press. */
const LAID_WORDS = {
  corners: {
    3: "Three: A, B and the middle of CD",
    4: "Four, under the corners",
    6: "Six, with the middles of AB and CD",
  },
  tubes: {
    3: "Three, far apart under its tubes",
    4: "Four, far apart under its tubes",
    6: "Six, far apart under its tubes",
  },
} as const;

/** What a rest's place is counted from: sides of a frame that has them, else the edges of what it covers. */
const FROM_WORDS = {
  sides: { x: "from DA", y: "from AB" },
  box: { x: "from its left", y: "from its near side" },
} as const;

/** Where the rests stand. They are also the points that a survey reads. */
export function RestFields({ over }: { over: Footprint }) {
  const { plan, units, edit, field, forget } = usePlanField();
  const { structure } = useJob("evaluation").evaluation;
  const { bed } = plan;
  const [grid, setGrid] = useState<Grid>("3x3");
  const set = (change: Partial<Plan["bed"]>) => edit((p) => ({ ...p, bed: { ...p.bed, ...change } }));
  /** Other rests: texts typed for those that go (all of them, or one by its name) go with them. */
  const place = (rests: Plan["bed"]["rests"], gone = "") => {
    forget(gone ? `bed.rests.${gone}.` : "bed.rests.");
    set({ rests, laid: undefined });
  };
  const lay = (laid: 3 | 4 | 6) => {
    forget("bed.rests.");
    set({ rests: restsUnder(over, laid, units), laid, feet: undefined });
  };
  const free = Array.from({ length: 99 }, (_, i) => `R${i + 1}`).find((id) => !bed.rests.some((r) => r.id === id));
  const centre = () => ({
    x: stated(over.lengthMm / 2, units),
    y: stated(over.widthMm / 2, units),
  });
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap gap-2">
        {([3, 4, 6] as const).map((count) => (
          <Button key={count} onClick={() => lay(count)}>
            {LAID_WORDS[over.corners ? "corners" : "tubes"][count]}
          </Button>
        ))}
        {structure && plan.fixture?.bearers ? (
          <Button onClick={() => place(restsOnBearers(plan, structure, over.origin))}>
            Where it lies on the trestles
          </Button>
        ) : null}
        <Button
          disabled={!free || bed.rests.length >= 40}
          onClick={() => free && set({ rests: [...bed.rests, { id: free, ...centre() }], laid: undefined })}
        >
          <Plus size={18} aria-hidden="true" /> One more
        </Button>
      </div>
      <div className="flex flex-wrap items-end gap-2">
        <SelectField label="Or a grid over the surface" value={grid} options={GRIDS} onChange={setGrid} />
        <Button
          onClick={() => {
            const [nx, ny] = grid.split("x").map(Number) as [number, number];
            // A grid is what is read; feet stand under its corners, unless somebody says otherwise.
            forget("bed.rests.");
            const feet = [0, nx - 1, nx * ny - nx, nx * ny - 1].map((i) => `R${i + 1}`);
            set({ rests: restsGrid(over, nx, ny, units), laid: undefined, feet });
          }}
        >
          Lay the grid
        </Button>
      </div>
      <p className="text-sm text-soft">
        {bed.laid
          ? "Laid under the frame: they follow it until one is placed by hand or the bed is read."
          : "Placed by hand: they stay when the frame changes."}
      </p>
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
                    {FROM_WORDS[hasSidesAlong(over) ? "sides" : "box"][axis]}
                  </>
                }
                units={units}
                value={rest[axis]}
                {...field(`bed.rests.${i}.${axis}`, `bed.rests.${rest.id}.${axis}`)}
                onChange={(v) =>
                  v &&
                  set({ rests: bed.rests.map((r) => (r.id === rest.id ? { ...r, [axis]: v } : r)), laid: undefined })
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
