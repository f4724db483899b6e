import { dot } from "../../numeric";
import { placesOf } from "../../square";
import { freeEndsOff, movedBy } from "./freeEnds";
import { type ColdContext, LEAST_EFFECT, type Offer, type Offered } from "./remedy";
import { swung } from "./swung";

/** Minutes, chance to spoil something, scatter of a cut to a mark. Source: own judgement. */
const TRIM = { effortMin: 6, risk: 0.01, cv: 0.02 } as const;

/** Free ends that stand out too far, sawn off to a mark. */
export function trim({ structure, quantities }: ColdContext): Offered {
  const places = placesOf(structure);
  return {
    refused: [],
    offers: freeEndsOff(structure, places, quantities).flatMap(({ place, member, outward, longMm }): Offer[] => {
      const effect = swung(places, { [place]: { x: -outward.x, y: -outward.y } }, Object.keys(quantities));
      const own = -dot(outward, movedBy(effect, place));
      if (longMm <= LEAST_EFFECT || own <= LEAST_EFFECT) return [];
      return [
        {
          id: { do: "trim", place },
          counts: "mm",
          push: null,
          cautions: [
            `Guard and face shield on; what is cut off is held, and falls hot. Where ${member} itself is as long as drawn, it ends shorter than drawn.`,
          ],
          option: { ...TRIM, effect, max: longMm / own },
        },
      ];
    }),
  };
}
