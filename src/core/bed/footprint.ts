import { bodyPoints, depthsOf, FROM_ABOVE, type Structure, seenAt, TOLERANCES } from "../frame";
import { CORNERS, type Corner, hull } from "../geometry";
import { add3, norm3, scale3, sub, sub3, type Vec2, type Vec3 } from "../numeric";

/** What a frame covers of the bed, seen from above. Lengths in mm; places from the origin. */
export interface Footprint {
  /** Outside corner A of a frame that has one, else the lower left of the box round it; in the frame's own place. */
  origin: Vec2;
  /** Of the quadrilateral that lies on the bed, or of the box round everything. */
  lengthMm: number;
  widthMm: number;
  /** From the outer edge to the middle of the tube that lies there. */
  insetMm: number;
  /** Outermost places, anticlockwise. */
  hull: Vec2[];
  corners: Record<Corner, Vec2> | null;
  /** Places on the tubes' lines where one without corners touches the bed. */
  touches: Vec2[];
  massKg: number;
  centreOfMass: Vec2;
}

/** Where tubes touch the bed: a lying one at its ends, set in by half its width, and in the middle; a standing one with its foot. */
function touchesOf({ members, low }: Structure): Vec3[] {
  const isLow = (z: number): boolean => z - low[2] < TOLERANCES.onBedMm;
  return members.flatMap((m): Vec3[] => {
    const { from, to, axes, properties } = m;
    const isLevel = Math.abs(from[2] - to[2]) < TOLERANCES.onBedMm;
    if (!isLevel) return [from, to].filter((end) => isLow(end[2]));
    if (!isLow(depthsOf(m, FROM_ABOVE)[0])) return [];
    const inset = scale3(axes[0], Math.min(properties.widthMm, norm3(sub3(to, from))) / 2);
    return [add3(from, inset), scale3(add3(from, to), 0.5), sub3(to, inset)];
  });
}

/** Whether AB and DA run along the axes that places are counted on, from A: else a place is no distance from either. */
export function hasSidesAlong({ corners }: Pick<Footprint, "corners">): boolean {
  if (!corners) return false;
  const { A, B, D } = corners;
  return [A.x, A.y, B.y, D.x].every((off) => Math.abs(off) < TOLERANCES.onBedMm);
}

/** @returns null for a frame without members. */
export function footprint(structure: Structure): Footprint | null {
  const { quad } = structure;
  const level = quad && quad.view.depth === 2 ? quad : null;
  const first = structure.members.find((m) => m.id === level?.sides.AB) ?? structure.members[0];
  if (!first) return null;
  const origin = level ? level.origin : { x: structure.low[0], y: structure.low[1] };
  const box = sub({ x: structure.high[0], y: structure.high[1] }, { x: structure.low[0], y: structure.low[1] });
  const size = level
    ? { x: Math.max(...CORNERS.map((c) => level.corners[c].x)), y: Math.max(...CORNERS.map((c) => level.corners[c].y)) }
    : box;
  return {
    origin,
    lengthMm: size.x,
    widthMm: size.y,
    insetMm: Math.min(first.properties.widthMm, size.y / 2) / 2,
    hull: hull(structure.members.flatMap(bodyPoints).map((p) => sub(seenAt(p, FROM_ABOVE), origin))),
    corners: level?.corners ?? null,
    touches: level ? [] : touchesOf(structure).map((p) => sub(seenAt(p, FROM_ABOVE), origin)),
    massKg: structure.massKg,
    centreOfMass: sub(seenAt(structure.centreOfMass, FROM_ABOVE), origin),
  };
}
