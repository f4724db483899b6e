import { outOf, type Structure, seenAt } from "../../frame";
import { cross3, norm, norm3, scale, scale3, sub, sub3, unit3, type Vec2, type Vec3 } from "../../numeric";
import { outcomeKey, type UnitDeed } from "../../shrink";
import { mouthsOf, type Places, placesOf } from "../../square";
import { type Bent, cantileverOf, turning } from "./cantilever";
import { tooMuch } from "./pushable";
import { LEAST_EFFECT, mostOf, type Offer, type Offered, type RemedyContext } from "./remedy";
import { feetMoved, swung } from "./swung";

/** Minutes, chance to spoil something, scatter with a reading after each push. Source: own judgement. */
const SPREAD = { effortMin: 6, risk: 0.02, cv: 0.1 } as const;

/** Two free ends across from each other: of an open side, or the feet of two legs. */
interface Opening {
  /** What is told between them, by its word. */
  id: string;
  of: "mouth" | "feet";
  from: string;
  to: string;
  ends: readonly [FreeEnd, FreeEnd];
}
type FreeEnd = Places["feet"]["ends"][string];

/** Where a frame is open, and between the feet of its legs. */
function openingsOf(places: Places): Opening[] {
  const of = (kind: Opening["of"], pairs: [string, string][], ends: Record<string, FreeEnd>): Opening[] =>
    pairs.flatMap(([from, to]) => {
      const [p, q] = [ends[from], ends[to]];
      return p && q ? [{ id: outcomeKey({ kind, from, to }), of: kind, from, to, ends: [p, q] as const }] : [];
    });
  return [...of("mouth", mouthsOf(places), places.freeEnds), ...of("feet", places.feet.pairs, places.feet.ends)];
}

/** Both free ends of every opening that is judged, drawn towards each other. */
export const openingPulls = (structure: Structure, quantities: RemedyContext["quantities"]): UnitDeed[] =>
  openingsOf(placesOf(structure))
    .filter(({ id }) => quantities[id])
    .map(({ id, ends: [from, to] }) => ({ id, do: "pull", from, to }));

/** Ways that free ends go when one is pushed half a millimetre from the other, and what that does to all that is judged. */
function parted(
  structure: Structure,
  places: Places,
  { of, from, to, ends }: Opening,
  sign: number,
  judged: readonly string[],
): { legs: Bent[]; effect: Record<string, number> } {
  const bent = (normalOf: (leg: Vec3) => Vec3): Bent[] =>
    ends.flatMap(({ member, end }) => {
      const arm = cantileverOf(structure, member, end);
      return arm ? [{ ...arm, normal: normalOf(arm.leg.axes[0]) }] : [];
    });
  const [first, last] = [places.feet.at[from], places.feet.at[to]];
  // A mouth between two feet moves the ways to the others, too.
  if (of === "mouth" && !(first && last)) {
    const open = sub(places.nodes[to] as Vec2, places.nodes[from] as Vec2);
    const half = scale(open, sign / 2 / (norm(open) || 1));
    return {
      legs: bent(() => outOf(places.view)),
      effect: swung(places, { [from]: scale(half, -1), [to]: half }, judged),
    };
  }
  const way = unit3(sub3(last as Vec3, first as Vec3));
  const half = scale3(way, sign / 2);
  const moves = { [from]: scale3(half, -1), [to]: half };
  // A foot that is a place of the frame's plane, too, goes there as far as that shows.
  const seen = Object.entries(moves).flatMap(([name, by]) =>
    places.freeEnds[name] ? [[name, seenAt(by, places.view)] as const] : [],
  );
  return {
    legs: bent((leg) => (norm3(cross3(leg, way)) > 0 ? unit3(cross3(leg, way)) : outOf(places.view))),
    effect: { ...swung(places, Object.fromEntries(seen), judged), ...feetMoved(places.feet, moves, judged) },
  };
}

/**
 * An open mouth, or the feet of two legs, pushed apart or drawn together past yield: of legs and roots what turns first; what springs back is the
 * frame's own give under that force. Either leg is taken to keep half of it.
 */
export function spread({ structure, quantities, elastic, plan }: RemedyContext): Offered {
  const places = placesOf(structure);
  const refused: string[] = [];
  const offers = openingsOf(places).flatMap((opening): Offer[] => {
    const { id, of, from, to } = opening;
    const stands = quantities[id];
    if (!stands) return [];
    const { value, low, high } = stands;
    // Brought to the middle of what is allowed, or to its only end.
    const wanted = (low !== null && high !== null ? (low + high) / 2 : (low ?? high ?? value)) - value;
    const perN = Math.abs(elastic.get(id)?.[id] ?? 0);
    if (Math.abs(wanted) <= LEAST_EFFECT || perN === 0) return [];
    const { legs, effect } = parted(structure, places, opening, Math.sign(wanted), Object.keys(quantities));
    const called = of === "mouth" ? `The mouth ${from} to ${to}` : `What stands on ${from} and ${to}`;
    const turned = turning(legs, called);
    if ("why" in turned) {
      refused.push(turned.why);
      return [];
    }
    const { forceN, armMm, risk } = turned;
    const springbackMm = forceN * perN;
    // Either leg goes half of the way.
    const why = tooMuch({ springbackMm, forceN, sideMm: legs.length * armMm }, plan.units);
    if (why) {
      refused.push(`Pushing the ${of} ${from} to ${to} past yield ${why}.`);
      return [];
    }
    const way = wanted > 0 ? "apart" : "together";
    return [
      {
        id: of === "mouth" ? { do: "spread", from, to, way } : { do: "legs", from, to, way },
        counts: "mm",
        push: { springbackMm, forceN, mmPerUnit: 1, of: id },
        cautions: [
          wanted > 0
            ? "A jack or screw between the free ends, on pads that reach both side walls; what slips out flies: nobody over it."
            : "A strap or screw over the free ends; what parts flies: nobody in line with it.",
          "Watch the seams at its roots, and stop where one opens.",
        ],
        option: { ...SPREAD, effect, max: mostOf(wanted), risk: SPREAD.risk + risk },
      },
    ];
  });
  return { offers, refused };
}
