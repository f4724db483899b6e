import type { Structure } from "../../frame";
import { norm, scale, sub, type Vec2 } from "../../numeric";
import { outcomeKey, type UnitDeed } from "../../shrink";
import { mouthsOf, placesOf } from "../../square";
import { cantileverOf, turning } from "./cantilever";
import { tooMuch } from "./pushable";
import { LEAST_EFFECT, mostOf, type Offer, type Offered, type RemedyContext } from "./remedy";
import { swung } from "./swung";

/** Minutes, chance to spoil something, scatter with a reading after each push. Source: own judgement. */
const SPREAD = { effortMin: 6, risk: 0.02, cv: 0.1 } as const;

/** Where a frame is open, with the free ends on either side. */
const mouths = (structure: Structure) => {
  const places = placesOf(structure);
  return mouthsOf(places).flatMap(([from, to]) => {
    const [p, q] = [places.freeEnds[from], places.freeEnds[to]];
    return p && q ? [{ id: outcomeKey({ kind: "mouth", from, to }), from, to, ends: [p, q] as const }] : [];
  });
};

/** Both free ends of every mouth drawn towards each other. */
export const mouthPulls = (structure: Structure): UnitDeed[] =>
  mouths(structure).map(({ id, ends: [from, to] }) => ({ id, do: "pull", from, to }));

/**
 * An open mouth pushed apart, or drawn together, past yield: of legs and roots what turns first; what springs back is the frame's own give under
 * that force. Either leg is taken to keep half of it.
 */
export function spread({ structure, quantities, elastic, plan }: RemedyContext): Offered {
  const places = placesOf(structure);
  const refused: string[] = [];
  const offers = mouths(structure).flatMap(({ id, from, to, ends }): Offer[] => {
    const stands = quantities[id];
    if (!stands) return [];
    const { value, low, high } = stands;
    // Brought to the middle of what is allowed, or to its only end.
    const wanted = (low !== null && high !== null ? (low + high) / 2 : (low ?? high ?? value)) - value;
    const perN = Math.abs(elastic.get(id)?.[id] ?? 0);
    if (Math.abs(wanted) <= LEAST_EFFECT || perN === 0) return [];
    const legs = ends.flatMap(({ member, end }) => cantileverOf(structure, member, end) ?? []);
    const turned = turning(legs, places.view, `The mouth ${from} to ${to}`);
    if ("why" in turned) {
      refused.push(turned.why);
      return [];
    }
    const { forceN, armMm, risk } = turned;
    const springbackMm = forceN * perN;
    const why = tooMuch({ springbackMm, forceN, sideMm: armMm }, plan.units);
    if (why) {
      refused.push(`Pushing the mouth ${from} to ${to} past yield ${why}.`);
      return [];
    }
    const open = sub(places.nodes[to] as Vec2, places.nodes[from] as Vec2);
    const half = scale(open, Math.sign(wanted) / 2 / (norm(open) || 1));
    const moves = { [from]: scale(half, -1), [to]: half };
    return [
      {
        id: { do: "spread", from, to, way: wanted > 0 ? "apart" : "together" },
        counts: "mm",
        push: { springbackMm, forceN, mmPerUnit: 1, of: id },
        cautions: [
          wanted > 0
            ? "A jack or screw between the free ends, on pads that reach both side walls; what slips out flies: nobody over it."
            : "A strap or screw over the free ends; what parts flies: nobody in line with it.",
          "Watch the seams at its roots, and stop where one opens.",
        ],
        option: {
          ...SPREAD,
          effect: swung(places, moves, Object.keys(quantities)),
          max: mostOf(wanted),
          risk: SPREAD.risk + risk,
        },
      },
    ];
  });
  return { offers, refused };
}
