import { fitPlane, heightOf } from "../geometry";
import type { Vec2 } from "../numeric";

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

/**
 * Risers that carry work over high spots of a floor.
 * @param spots read between the rests. @param rests with their heights. @param clearanceMm room below the work: what it sags,
 * and a bead. @param level brings the work level; else all risers are alike and the work slopes as the rests do.
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
  const alike = Math.max(0, proudMm + clearanceMm);
  return { mm: rests.map((r) => (level ? to - r.z : alike)), highest, proudMm };
}
