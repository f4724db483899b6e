import { byMm, type Structure, type StructureJoint } from "../frame";
import { add3, scale3, type Vec3 } from "../numeric";

/** Place along the lower left to upper right of a frame. */
export const diagonalPlace = (p: Vec3): number => p[0] + p[1] + p[2];

/** From the lower left to the upper right; of what lies as far along the leftmost first, for orders that do not depend on how a frame was drawn. */
export const byPlace = (p: Vec3, q: Vec3): number =>
  byMm(diagonalPlace(p), diagonalPlace(q)) || byMm(p[0], q[0]) || byMm(p[1], q[1]);

/** Joints by where they are; of those at one place by where the middles of their members lie: a leg in a corner stands on two. */
export function byJointPlace({
  members,
}: Pick<Structure, "members">): (p: StructureJoint, q: StructureJoint) => number {
  const middles = new Map(members.map((m) => [m.id, scale3(add3(m.from, m.to), 0.5)]));
  const byMiddle = (p: string, q: string): number => byPlace(middles.get(p) as Vec3, middles.get(q) as Vec3);
  return (p, q) => byPlace(p.at, q.at) || byMiddle(p.a, q.a) || byMiddle(p.b, q.b);
}
