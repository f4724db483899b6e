import { type EndName, type StructureMember, seenAt, type ViewAxes } from "../frame";
import { norm, scale, sub, type Vec2 } from "../numeric";

/** A place's name, of a joint's or a member's end: letters and figures alone. */
export const clean = (joint: string): string => joint.replace(/[^A-Z0-9]/g, "").slice(0, 10);

/** How a free end is called: the member's name with S where it starts, E where it ends. */
export const FREE_ENDS = [
  ["from", "S"],
  ["to", "E"],
] as const;

/** A free end as a place, where it lies as the frame is seen, mm, and how far from the other end of its member. */
export function freeEndOf(m: StructureMember, end: EndName, view: ViewAxes, origin: Vec2) {
  const at = sub(seenAt(m.ends[end].at, view), origin);
  const along = sub(at, sub(seenAt(m.ends[end === "from" ? "to" : "from"].at, view), origin));
  const long = norm(along);
  return { at, place: { member: m.id, end, way: scale(along, long > 0 ? 1 / long : 0) } };
}
