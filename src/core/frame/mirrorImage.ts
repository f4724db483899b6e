import { stated, type UnitPreference } from "../units";
import type { DrawnFrame, DrawnMember, Point } from "./drawnSchema";

const AXES = ["x", "y", "z"] as const;

/** A place on the other side of a plane. */
export const mirroredPoint = (p: Point, axis: "x" | "y", atMm: number, units: UnitPreference): Point => ({
  ...p,
  [axis]: stated(2 * atMm - p[axis].mm, units),
});

/** Sections that are not their own mirror image: turned end for end, they are. */
const oneSided = (frame: Pick<DrawnFrame, "sections">, m: DrawnMember): boolean => {
  const shape = frame.sections.find((s) => s.id === m.section)?.shape;
  return shape === "angle" || shape === "channel";
};

/** The mirror image of a member; what looks sideways looks the other way. */
export function imageOf(
  frame: Pick<DrawnFrame, "sections">,
  m: DrawnMember,
  id: string,
  axis: "x" | "y",
  atMm: number,
  units: UnitPreference,
): DrawnMember {
  const swap = oneSided(frame, m);
  const flip = { left: "right", right: "left", front: "back", back: "front", up: "up", down: "down" } as const;
  const turnsOver = axis === "x" ? ["left", "right"] : ["front", "back"];
  return {
    ...m,
    id,
    from: mirroredPoint(swap ? m.to : m.from, axis, atMm, units),
    to: mirroredPoint(swap ? m.from : m.to, axis, atMm, units),
    turnDeg: swap || m.turnDeg === 0 ? m.turnDeg : -m.turnDeg,
    flush: m.flush && turnsOver.includes(m.flush.side) ? { ...m.flush, side: flip[m.flush.side] } : m.flush,
    offset: m.offset && (swap ? m.offset : { ...m.offset, across: stated(-m.offset.across.mm, units) }),
  };
}

/** Brings every linked mirror image in step with its original. */
export function followMirrors(frame: DrawnFrame, units: UnitPreference): DrawnFrame {
  if (!frame.members.some((m) => m.mirror)) return frame;
  return {
    ...frame,
    members: frame.members.map((m) => {
      const original = m.mirror && frame.members.find((x) => x.id === m.mirror?.of);
      if (!m.mirror || !original || original === m) return m;
      const image = imageOf(frame, original, m.id, m.mirror.axis, m.mirror.at.mm, units);
      const same = AXES.every(
        (a) => Math.abs(image.from[a].mm - m.from[a].mm) < 1e-6 && Math.abs(image.to[a].mm - m.to[a].mm) < 1e-6,
      );
      return {
        ...image,
        from: same ? m.from : image.from,
        to: same ? m.to : image.to,
        flush: m.flush,
        locked: m.locked,
        mirror: m.mirror,
      };
    }),
  };
}
