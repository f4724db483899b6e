import { jackPad, pressesToStraighten, pressMidspan } from "../../check";
import { MATERIALS, type StructureMember } from "../../frame";
import { norm3, sub3 } from "../../numeric";
import { KINK_RAD } from "../../shrink";
import { physical } from "../../units";
import { classOf, tooMuch } from "./pushable";
import {
  inPlane,
  LEAST_EFFECT,
  LIKELY_YIELD,
  mostOf,
  type Offer,
  type Offered,
  outOfPlane,
  type RemedyContext,
  SLENDER_RISK,
  type Tube,
  tubeOf,
} from "./remedy";

/** Minutes, chance to spoil something, scatter with a reading after each push. Source: own judgement. */
const PRESS = { effortMin: 5, risk: 0.02, cv: 0.1 } as const;

/** A member as it is straightened: the way of its deeper side, for which way it is bowed a gauge does not say. */
export interface Straightened {
  member: StructureMember;
  tube: Tube;
  section: ReturnType<typeof inPlane>;
  longMm: number;
  value: number;
  /** Bow that a turn of `KINK_RAD` in its middle makes of it in this frame, and would make of it free, mm. */
  perKinkMm: number;
  freeMm: number;
}

/** What of the bowed members can be straightened at all. */
export const straightened = ({ bowed, quantities, elastic }: RemedyContext): Straightened[] =>
  bowed.flatMap((member) => {
    const tube = tubeOf(member);
    const value = quantities[`straight ${member.id}`]?.value ?? 0;
    if (!tube || Math.abs(value) <= LEAST_EFFECT) return [];
    const isWide = tube.widthMm >= tube.heightMm;
    const way = isWide ? "bow" : "lift";
    const perKinkMm = Math.abs(elastic.get(`${member.id} ${way}`)?.[`${way} ${member.id}`] ?? 0);
    const longMm = norm3(sub3(member.to, member.from));
    const section = isWide ? inPlane(tube) : outOfPlane(tube);
    return perKinkMm > 0 ? [{ member, tube, section, longMm, value, perKinkMm, freeMm: (KINK_RAD * longMm) / 4 }] : [];
  });

/** A bow pressed out past yield, over a bridge from end to end. */
export function press(context: RemedyContext): Offered {
  const { units } = context.plan;
  const refused: string[] = [];
  const offers = straightened(context).flatMap(
    ({ member, tube, section, longMm, value, perKinkMm, freeMm }): Offer[] => {
      const cls = classOf(member);
      if (cls > 2) {
        refused.push(`${member.id} is too thin to be bent past yield (class ${cls}): it would buckle.`);
        return [];
      }
      const { eMPa, yieldMPa } = MATERIALS[member.material];
      const mmPerUnit = freeMm / perKinkMm;
      const { springbackMm, forceN } = pressMidspan(
        section,
        { eMPa, yieldMPa: LIKELY_YIELD * yieldMPa },
        { spanMm: longMm, removeMm: Math.abs(value) * mmPerUnit, lengthMm: longMm },
      );
      const why = tooMuch({ springbackMm, forceN, sideMm: longMm }, units);
      if (why) {
        refused.push(`Pressing ${member.id} past yield ${why}.`);
        return [];
      }
      const face = section.widthMm;
      const { dentForceN } = jackPad(
        { faceMm: face, wallMm: tube.wallMm, yieldMPa },
        { padWidthMm: face / 2, padLengthMm: face },
      );
      const most = context.quantities[`straight ${member.id}`]?.high ?? null;
      const presses = most === null ? 1 : pressesToStraighten(Math.abs(value), most).presses;
      return [
        {
          id: { do: "press", member: member.id },
          counts: "mm",
          push: { springbackMm, forceN, mmPerUnit },
          cautions: [
            "Bridge from end to end, the jack on a pad as wide as the face. Never under a raised frame.",
            ...(forceN > dentForceN
              ? [
                  `A foot half as wide dents the wall from ${physical("force", dentForceN / 1000, units)} on: the pad must reach both side walls.`,
                ]
              : []),
            ...(presses > 1
              ? [
                  `An even bow wants ${presses} presses, evenly spread: one alone leaves a quarter of it at the quarter points.`,
                ]
              : []),
          ],
          option: {
            ...PRESS,
            effect: { [`straight ${member.id}`]: -1 },
            max: mostOf(value),
            risk: PRESS.risk + (cls === 2 ? SLENDER_RISK : 0),
          },
        },
      ];
    },
  );
  return { offers, refused };
}
