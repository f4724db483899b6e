import { fitPlane, heightOf } from "../geometry";
import { optimum, type Vec2 } from "../numeric";

/** A place with its height, mm. */
interface Spot extends Vec2 {
  z: number;
}

/** What goes under rests so that the work clears everything between them. */
interface Risers {
  /** One for each rest, mm. */
  mm: number[];
  /** Index of the spot that asks for them. */
  highest: number;
  /** How far that spot stands above the plane of the rests as they are, mm; less than nought below it. */
  proudMm: number;
}

/** Work that need not lie level slopes no more than this either way, mm per mm (own judgement): steeper, nobody welds on it. */
const MOST_SLOPE = 0.02;
/** Slopes are counted by what they make so far away, mm. */
const FAR_MM = 1e3;
const PLANE: ReadonlySet<string> = new Set(["level", "along", "across"]);

/**
 * The least that goes under rests in all so that the plane over them clears every spot, whichever way it slopes; null where none slopes little
 * enough. Source: a linear programme of the plane's three unknowns.
 */
function leastRisers(spots: readonly Spot[], rests: readonly Spot[], clearanceMm: number): number[] | null {
  const plane = ({ x, y }: Vec2) => ({ level: 1, along: x / FAR_MM, across: y / FAR_MM });
  const steepest = MOST_SLOPE * FAR_MM;
  const found = optimum(
    "all",
    "minimize",
    [
      ...rests.map((r) => ({ of: plane(r), atLeast: r.z })),
      ...spots.map((s) => ({ of: plane(s), atLeast: s.z + clearanceMm })),
      ...(["along", "across"] as const).flatMap((way) =>
        [1, -1].map((by) => ({ of: { [way]: by }, atLeast: -steepest })),
      ),
      {
        of: {
          all: -1,
          level: rests.length,
          along: rests.reduce((sum, r) => sum + r.x / FAR_MM, 0),
          across: rests.reduce((sum, r) => sum + r.y / FAR_MM, 0),
        },
        equal: rests.reduce((sum, r) => sum + r.z, 0),
      },
    ],
    PLANE,
  );
  if (!found) return null;
  const [c = 0, a = 0, b = 0] = ["level", "along", "across"].map((n) => found.get(n));
  return rests.map((r) => Math.max(0, c + (a * r.x + b * r.y) / FAR_MM - r.z));
}

/**
 * Risers that carry work over high spots of a floor.
 * @param spots read between the rests. @param rests with their heights. @param clearanceMm room below the work: what it sags,
 * and a bead. @param level brings the work level; else it slopes as takes the least under its rests.
 * @returns null without spots or where the rests carry no plane. Source: closed form: the plane over the highest spot.
 */
export function risersOver(
  spots: readonly Spot[],
  rests: readonly Spot[],
  clearanceMm: number,
  level: boolean,
): Risers | null {
  const plane = fitPlane(
    [...rests],
    rests.map((r) => r.z),
  );
  if (!plane || spots.length === 0) return null;
  const above = (s: Spot): number => (level ? s.z : s.z - heightOf(plane, s));
  const highest = spots.reduce((best, s, i) => (above(s) > above(spots[best] as Spot) ? i : best), 0);
  const spot = spots[highest] as Spot;
  const proudMm = spot.z - heightOf(plane, spot);
  const to = Math.max(spot.z + clearanceMm, ...rests.map((r) => r.z));
  const alike = (): number[] => rests.map(() => Math.max(0, proudMm + clearanceMm));
  const mm = level ? rests.map((r) => to - r.z) : (leastRisers(spots, rests, clearanceMm) ?? alike());
  return { mm, highest, proudMm };
}
