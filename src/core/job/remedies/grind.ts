import { placesOf } from "../../square";
import { formatSmall } from "../../units";
import { type ColdContext, LEAST_EFFECT, type Offer, type Offered } from "./remedy";

/** Minutes, chance to spoil something, scatter: one grinds, looks, and grinds again. Source: own judgement. */
const GRIND = { effortMin: 8, risk: 0.01, cv: 0.1 } as const;
/** No more of a wall is ground away than this. Source: own judgement. */
const MOST_OF_WALL = 0.25;

/** A proud side ground down where two parts shall be flush. */
export function grind({ structure, quantities, plan }: ColdContext): Offered {
  const { joints } = placesOf(structure);
  const refused: string[] = [];
  const small = (mm: number): string => formatSmall(mm, plan.units, { decimals: plan.units === "mm" ? 1 : 0 });
  const offers = Object.entries(quantities).flatMap(([key, { value, u, high }]): Offer[] => {
    if (!key.startsWith("flush ") || high === null || value <= LEAST_EFFECT) return [];
    const at = key.slice("flush ".length);
    const joint = structure.joints.find((j) => j.id === (joints[at] ?? at));
    const members = structure.members.filter((m) => !joint || m.id === joint.a || m.id === joint.b);
    // Which side stands proud is not told: the thinner wall bounds it.
    const wallMm = Math.min(...members.map((m) => m.properties.wallMm));
    const max = Math.min(value, MOST_OF_WALL * wallMm);
    if (value - max > high) {
      const share = Math.round((100 * (value - high)) / wallMm);
      refused.push(
        `The step at ${at} is ${small(value)} ± ${small(2 * u)}: ground inside its limit that takes ${share} % of a wall of ${small(wallMm)} (a quarter at the most, own judgement). Slot the hole that it is mounted by, pack the other side, or agree on it.`,
      );
      return [];
    }
    return [
      {
        id: { do: "grind", joint: at },
        counts: "mm",
        push: null,
        cautions: [
          "Guard and face shield on; sparks away from people and from what burns. A flap disc, a little at a time.",
        ],
        option: { ...GRIND, effect: { [key]: -1 }, max },
      },
    ];
  });
  return { offers, refused };
}
