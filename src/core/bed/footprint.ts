import { bodyPoints, FROM_ABOVE, type Structure, seenAt } from "../frame";
import { CORNERS, type Corner, hull } from "../geometry";
import { sub, type Vec2 } from "../numeric";

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
  massKg: number;
  centreOfMass: Vec2;
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
    massKg: structure.massKg,
    centreOfMass: sub(seenAt(structure.centreOfMass, FROM_ABOVE), origin),
  };
}
