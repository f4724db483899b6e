import { type BentSection, beadAcross, heatSpot, heatWedge, threeBar } from "../../check";
import { MATERIALS, outOf, type StructureMember } from "../../frame";
import { dot, scale } from "../../numeric";
import { KINK_RAD } from "../../shrink";
import { placesOf } from "../../square";
import { heatJPerMm } from "../../weld";
import { weldOf } from "../settings";
import { bentIn, cantileverOf } from "./cantilever";
import { aside, movedBy } from "./freeEnds";
import { type Straightened, straightened } from "./press";
import { LEAST_EFFECT, type Offer, type Offered, type RemedyContext, tubeOf } from "./remedy";
import { swung } from "./swung";

/** Minutes, chance to spoil something, scatter of the effect. Source: own judgement. */
const WEDGES = { effortMin: 12, risk: 0.01, cv: 0.5 } as const;
const SPOTS = { effortMin: 8, risk: 0.01, cv: 0.5 } as const;
const LINES = { effortMin: 10, risk: 0.01, cv: 0.4 } as const;
const MOST = { wedges: 6, spots: 20, lines: 4 } as const;
/** How hot, and how held, what is heated is; a wedge by its width and depth over the member's; a spot's diameter. Source: own judgement. */
const HEAT = { riseK: 600, restraint: 0.55 } as const;
const WEDGE = { wide: 0.6, deep: 0.75 } as const;
const SPOT_MM = 25;

const counted = (
  s: Straightened,
  id: Offer["id"],
  kinkRad: number,
  how: { effortMin: number; risk: number; cv: number; max: number },
  caution: string,
): Offer => ({
  id,
  counts: "pieces",
  push: null,
  cautions: [caution],
  option: {
    ...how,
    effect: { [`straight ${s.member.id}`]: -(kinkRad / KINK_RAD) * s.perKinkMm },
    unitSteps: true,
  },
});

/** The contraction that stays where something was heated. */
const strainOf = (member: StructureMember): number =>
  threeBar(MATERIALS[member.material], HEAT.riseK, HEAT.restraint).strain;

const wedgeIn = (section: BentSection, strain: number, memberMm: number) =>
  heatWedge(section, {
    widthMm: WEDGE.wide * section.depthMm,
    depthMm: WEDGE.deep * section.depthMm,
    strain,
    memberMm,
  });

/** Heat near the root of a member whose free end stands aside: what contracts there draws the end to its side. */
export function heatedRoots({ structure, quantities }: RemedyContext): Offered {
  const places = placesOf(structure);
  return {
    refused: [],
    offers: aside(structure, places, quantities).flatMap(({ place, member, end, across, asideMm }): Offer[] => {
      const arm = cantileverOf(structure, member, end);
      const tube = tubeOf(arm?.leg);
      if (!arm || !tube) return [];
      const section = bentIn(outOf(places.view), arm.leg, tube);
      // The first wedge lies a depth away from the seams.
      const reachMm = arm.armMm - section.depthMm;
      if (reachMm <= section.depthMm) return [];
      const { kinkRad } = wedgeIn(section, strainOf(arm.leg), arm.armMm);
      const effect = swung(places, { [place]: scale(across, kinkRad * reachMm) }, Object.keys(quantities));
      const own = Math.abs(dot(across, movedBy(effect, place)));
      if (own <= LEAST_EFFECT) return [];
      return [
        {
          id: { do: "draw", member, place },
          counts: "pieces",
          push: null,
          cautions: [
            "Its base on the side to which the end shall go, its tip toward the other, a tube's depth away from the seams; dull red, no hotter, and let it cool in air before the next.",
          ],
          option: { ...WEDGES, effect, max: Math.min(MOST.wedges, Math.ceil(asideMm / own)), unitSteps: true },
        },
      ];
    }),
  };
}

/** Heat on the long side of a bowed member: wedges, spots, or a bead across the face; what contracts draws it straight. */
export function heated(context: RemedyContext): Offered {
  const weld = weldOf(context.plan);
  return {
    refused: [],
    offers: straightened(context).flatMap((s): Offer[] => {
      const { member, section, longMm, tube } = s;
      const material = MATERIALS[member.material];
      const strain = strainOf(member);
      const offsetMm = (section.depthMm - tube.wallMm) / 2;
      const wedge = wedgeIn(section, strain, longMm);
      const spot = heatSpot(section, { diameterMm: SPOT_MM, strain, offsetMm, memberMm: longMm, count: 1 });
      const line = beadAcross(section, material, context.factors.transverse.value, {
        heatJPerMm: heatJPerMm(weld),
        lineMm: section.widthMm,
        memberMm: longMm,
        offsetMm,
      });
      return [
        counted(
          s,
          { do: "wedges", member: member.id },
          wedge.kinkRad,
          { ...WEDGES, max: MOST.wedges },
          "On the long side, the tip of the wedge towards the short one; dull red, no hotter, and let it cool in air before the next.",
        ),
        counted(
          s,
          { do: "spots", member: member.id },
          spot.kinkRad,
          { ...SPOTS, max: MOST.spots },
          "On the long side, as wide as a thumb, dull red, spread out; let each cool before the next.",
        ),
        counted(
          s,
          { do: "lines", member: member.id },
          line.kinkRad,
          { ...LINES, max: MOST.lines },
          "On the long side, square across the face, with the settings that the frame was welded with; grind it off where nothing may stand proud.",
        ),
      ];
    }),
  };
}
