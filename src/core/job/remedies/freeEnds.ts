import type { Structure } from "../../frame";
import { dot, scale, type Vec2 } from "../../numeric";
import { outcomeKey } from "../../shrink";
import type { Places } from "../../square";
import { LEAST_EFFECT, type RemedyContext } from "./remedy";

/** The two words that a place goes by among what is judged. */
export const keysOf = (place: string): [right: string, up: string] => [
  outcomeKey({ kind: "place", place, way: "right" }),
  outcomeKey({ kind: "place", place, way: "up" }),
];

/** What an effect moves a place by, to the right and up, mm. */
export function movedBy(effect: Readonly<Record<string, number>> | undefined, place: string): Vec2 {
  const [right, up] = keysOf(place);
  return { x: effect?.[right] ?? 0, y: effect?.[up] ?? 0 };
}

/** A free end that does not stand where it belongs, as it was read. */
export interface FreeEndOff {
  place: string;
  member: string;
  end: Places["freeEnds"][string]["end"];
  /** Which way its member points, and how far it stands out too far that way, mm; less than nought where it is too short. */
  outward: Vec2;
  longMm: number;
  /** The way across its member in which it belongs, and how far, mm. */
  across: Vec2;
  asideMm: number;
}

/** A member that leaves the plane in which places are told by more than this, sine, is not brought right in it. */
const LEAVES_PLANE = 0.3;

/** Free ends of which it was read where they stand, of members that lie in the plane in which that was. */
export function freeEndsOff(
  { members }: Pick<Structure, "members">,
  { freeEnds, view }: Places,
  quantities: RemedyContext["quantities"],
): FreeEndOff[] {
  return Object.entries(freeEnds).flatMap(([place, { member, end, way: outward }]): FreeEndOff[] => {
    const [right, up] = keysOf(place).map((key) => quantities[key]?.value);
    const leaves = Math.abs(members.find((m) => m.id === member)?.axes[0][view.depth] ?? 1);
    if (right === undefined || up === undefined || leaves > LEAVES_PLANE) return [];
    const off: Vec2 = { x: right, y: up };
    const side: Vec2 = { x: -outward.y, y: outward.x };
    const aside = dot(off, side);
    return [
      {
        ...{ place, member, end, outward, longMm: dot(off, outward) },
        ...{ across: scale(side, aside > 0 ? -1 : 1), asideMm: Math.abs(aside) },
      },
    ];
  });
}

/** So many of those that stand farthest aside are brought across. */
const MOST_ASIDE = 6;

/** Free ends that stand aside, the farthest first. */
export const aside = (
  structure: Pick<Structure, "members">,
  places: Places,
  quantities: RemedyContext["quantities"],
): FreeEndOff[] =>
  freeEndsOff(structure, places, quantities)
    .filter(({ asideMm }) => asideMm > LEAST_EFFECT)
    .sort((p, q) => q.asideMm - p.asideMm)
    .slice(0, MOST_ASIDE);
