import { dot, norm, scale, type Vec2 } from "../../numeric";
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

/** Free ends of which it was read where they stand. */
export function freeEndsOff({ freeEnds }: Places, quantities: RemedyContext["quantities"]): FreeEndOff[] {
  return Object.entries(freeEnds).flatMap(([place, { member, end, way: outward }]): FreeEndOff[] => {
    const [right, up] = keysOf(place).map((key) => quantities[key]?.value);
    if (right === undefined || up === undefined || norm(outward) === 0) return [];
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
export const aside = (places: Places, quantities: RemedyContext["quantities"]): FreeEndOff[] =>
  freeEndsOff(places, quantities)
    .filter(({ asideMm }) => asideMm > LEAST_EFFECT)
    .sort((p, q) => q.asideMm - p.asideMm)
    .slice(0, MOST_ASIDE);
