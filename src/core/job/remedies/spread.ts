import { plasticSection } from "../../check";
import { MATERIALS, type Structure, type StructureMember } from "../../frame";
import { norm3, sub3 } from "../../numeric";
import { outcomeKey, type UnitDeed } from "../../shrink";
import { mouthsOf, placesOf } from "../../square";
import { classOf, tooMuch } from "./pushable";
import {
  inPlane,
  LEAST_EFFECT,
  LIKELY_YIELD,
  mostOf,
  type Offer,
  type Offered,
  type RemedyContext,
  SLENDER_RISK,
  tubeOf,
} from "./remedy";

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

/** The member that a leg stands on, and how long the leg is. */
function rootOf(
  { members, joints }: Structure,
  member: string,
): { leg: StructureMember; root: StructureMember } | null {
  const leg = members.find((m) => m.id === member);
  const joint = joints.find((j) => j.a === member || j.b === member);
  const root = members.find((m) => m.id !== member && (m.id === joint?.a || m.id === joint?.b));
  return leg && root ? { leg, root } : null;
}

/**
 * An open mouth pushed apart, or drawn together, past yield: of leg and root what turns first, by its full plastic moment; what springs back is
 * the frame's own give under that force. Source: plastic hinge of a portal (from memory).
 */
export function spread({ structure, quantities, elastic, plan }: RemedyContext): Offered {
  const refused: string[] = [];
  const offers = mouths(structure).flatMap(({ id, from, to, ends }): Offer[] => {
    const stands = quantities[id];
    if (!stands) return [];
    const { value, low, high } = stands;
    // Brought to the middle of what is allowed, or to its only end.
    const wanted = (low !== null && high !== null ? (low + high) / 2 : (low ?? high ?? value)) - value;
    const perN = Math.abs(elastic.get(id)?.[id] ?? 0);
    if (Math.abs(wanted) <= LEAST_EFFECT || perN === 0) return [];
    const bends = ends.flatMap(({ member }) => rootOf(structure, member) ?? []);
    const tubes = bends.flatMap(({ leg, root }) =>
      [leg, root].map((m) => ({ m, tube: tubeOf(m), armMm: norm3(sub3(leg.to, leg.from)) })),
    );
    if (tubes.length === 0 || tubes.some(({ tube }) => !tube)) {
      refused.push(
        `The mouth ${from} to ${to} is of no square or rectangular tubes: how far to push it is not known here.`,
      );
      return [];
    }
    const cls = Math.max(...tubes.map(({ m }) => classOf(m)));
    if (cls > 2) {
      refused.push(`The mouth ${from} to ${to} is too thin to be bent past yield (class ${cls}): it would buckle.`);
      return [];
    }
    const forceN = Math.min(
      ...tubes.flatMap(({ m, tube, armMm }) => {
        const { eMPa, yieldMPa } = MATERIALS[m.material];
        return tube
          ? [plasticSection(inPlane(tube), { eMPa, yieldMPa: LIKELY_YIELD * yieldMPa }).plasticMomentNmm / armMm]
          : [];
      }),
    );
    const springbackMm = forceN * perN;
    const sideMm = Math.min(...tubes.map(({ armMm }) => armMm));
    const why = tooMuch({ springbackMm, forceN, sideMm }, plan.units);
    if (why) {
      refused.push(`Pushing the mouth ${from} to ${to} past yield ${why}.`);
      return [];
    }
    return [
      {
        id: { do: "spread", from, to, way: wanted > 0 ? "apart" : "together" },
        counts: "mm",
        push: { springbackMm, forceN, mmPerUnit: 1 },
        cautions: [
          wanted > 0
            ? "A jack or screw between the free ends, on pads that reach both side walls; what slips out flies: nobody over it."
            : "A strap or screw over the free ends; what parts flies: nobody in line with it.",
          "Watch the seams at its roots, and stop where one opens.",
        ],
        option: {
          ...SPREAD,
          effect: { [id]: Math.sign(wanted) },
          max: mostOf(wanted),
          risk: SPREAD.risk + (cls === 2 ? SLENDER_RISK : 0),
        },
      },
    ];
  });
  return { offers, refused };
}
