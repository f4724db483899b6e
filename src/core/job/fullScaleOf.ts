import { drillAlongMm } from "../cut";
import { type FullScale, fullScale, inScene, type LayerName, type Marked, onLayers } from "../drawing";
import { measuredFrom } from "../fixture";
import { FROM_ABOVE, FROM_FRONT, FROM_RIGHT, seenAt, type ViewAxes } from "../frame";
import { add3, scale3 } from "../numeric";
import type { Prediction } from "../shrink";
import { plainLength } from "../units";
import { builtOf } from "./built";
import { layOut, setOffBy } from "./layOut";
import type { Plan } from "./planSchema";

/** Ways to look at a frame that is drawn at full size. */
export const FULL_SCALE_VIEWS = ["above", "front", "right"] as const;
export type FullScaleView = (typeof FULL_SCALE_VIEWS)[number];
const AXES: Record<FullScaleView, ViewAxes> = { above: FROM_ABOVE, front: FROM_FRONT, right: FROM_RIGHT };

/** What is drawn at full size: its sizes, from where it is seen, and which layers. */
export interface FullScaleWish {
  /** As it is set up, off nominal for what the weld does; or as drawn. */
  size: "set-up" | "drawing";
  layers: readonly LayerName[];
  /** From above when left out: as it lies on the bed. How it is set up off nominal is known from there alone. */
  view?: FullScaleView;
}

/** A frame at full size with its holes and stops, and whether it is as it is set up. */
export interface FullScaleDrawing {
  drawing: FullScale;
  isSetOff: boolean;
}

/**
 * A plan's frame at full size in a plane view.
 * @param prediction aimed as the frame is set up; null while there is none: then it is as drawn.
 * @returns null while the plan has errors.
 */
export function fullScaleOf(
  plan: Plan,
  prediction: Prediction | null,
  { size, layers, view = "above" }: FullScaleWish,
): FullScaleDrawing | null {
  const { structure } = builtOf(plan);
  if (!structure) return null;
  const isAbove = view === "above";
  const isSetOff = isAbove && size === "set-up" && prediction !== null && prediction.setUp.beyondMm === null;
  const shift = isSetOff && prediction ? setOffBy(structure, prediction.setUp.offsetsMm) : () => ({ x: 0, y: 0 });
  const seen = { view: AXES[view], origin: isAbove ? measuredFrom(structure) : seenAt(structure.low, AXES[view]) };
  const holes = plan.drill.flatMap((h): Marked[] => {
    const m = structure.members.find((x) => x.id === h.member);
    if (!m) return [];
    const along = drillAlongMm(m, h);
    const p = inScene(seen, add3(m.from, scale3(m.axes[0], along)));
    const off = shift(m.id, along);
    return [
      {
        layer: "hole",
        at: { x: p.x + off.x, y: p.y + off.y },
        radiusMm: h.diameter.mm / 2,
        text: `${h.id} ${plainLength(h.diameter.mm, plan.units)}, ${h.face}`,
      },
    ];
  });
  const aimed: Plan = { ...plan, aim: isSetOff ? "set-up" : "drawing" };
  // Stops and clamps stand on the bed: they are seen from above.
  const elements = isAbove ? layOut(aimed, structure, isSetOff ? prediction : null).elements : [];
  const stops = elements.map(
    ({ element, from }): Marked => ({ layer: "stop", at: from, radiusMm: 0, text: element.id }),
  );
  const whole = fullScale(structure, seen, shift, [...holes, ...stops], (mm) => plainLength(mm, plan.units));
  return { drawing: onLayers(whole, layers), isSetOff };
}
