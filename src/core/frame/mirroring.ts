import { stated, type UnitPreference } from "../units";
import type { DrawnFrame } from "./drawnSchema";
import { type Copies, movable, withCopies } from "./editing";
import { followMirrors, imageOf, mirroredPoint } from "./mirrorImage";

/**
 * Mirror images of members across a plane, for left and right. @param link the images follow their originals.
 * Declares them a pair when linked, so that the check for two lefts covers them.
 */
export function mirrorMembers(
  frame: DrawnFrame,
  ids: readonly string[],
  axis: "x" | "y",
  atMm: number,
  link: boolean,
  units: UnitPreference,
): Copies {
  const at = stated(atMm, units);
  const out = withCopies(
    frame,
    ids,
    (m, id) => ({
      ...imageOf(frame, m, id, axis, at.mm, units),
      mirror: link ? { of: m.id, axis, at } : null,
      locked: false,
    }),
    (p) => mirroredPoint(p, axis, at.mm, units),
    ([x, y, z]) => (axis === "x" ? [-x, y, z] : [x, -y, z]),
  );
  return link
    ? { ...out, frame: { ...out.frame, pairs: [...out.frame.pairs, { left: [...ids], right: out.ids }] } }
    : out;
}

/** Mirrors members where they are: twice gives them back. */
export function flipMembers(
  frame: DrawnFrame,
  ids: readonly string[],
  axis: "x" | "y",
  atMm: number,
  units: UnitPreference,
): DrawnFrame {
  const moving = movable(frame, ids);
  return followMirrors(
    {
      ...frame,
      members: frame.members.map((m) => (moving.has(m.id) ? imageOf(frame, m, m.id, axis, atMm, units) : m)),
    },
    units,
  );
}
