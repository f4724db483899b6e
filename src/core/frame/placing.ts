import { add3, dot3, norm3, scale3, sub3, type Vec3 } from "../numeric";
import type { DrawnFrame, DrawnMember, DrawnSection, Point } from "./drawnSchema";
import type { Direction } from "./frameWords";
import { type Placed, reach } from "./meeting";
import { memberAxes, turnedAxes } from "./memberAxes";
import { isRound, sectionOutline } from "./sectionOutline";
import type { Shape } from "./shapes";

export const DIRECTION: Record<Direction, Vec3> = {
  left: [-1, 0, 0],
  right: [1, 0, 0],
  front: [0, -1, 0],
  back: [0, 1, 0],
  down: [0, 0, -1],
  up: [0, 0, 1],
};
const UP: Vec3 = [0, 0, 1];

/** The direction word that a vector points to most; up, then right, when several are alike. */
export function directionWord([x, y, z]: Vec3): Direction {
  const [ax, ay, az] = [Math.abs(x), Math.abs(y), Math.abs(z)];
  if (az >= ax - 1e-9 && az >= ay - 1e-9) return z >= 0 ? "up" : "down";
  if (ax >= ay - 1e-9) return x >= 0 ? "right" : "left";
  return y >= 0 ? "back" : "front";
}

export const place = (p: Point): Vec3 => [p.x.mm, p.y.mm, p.z.mm];

/** Root radius of a rolled angle as a share of its leg's thickness (common practice, no source). */
const ANGLE_ROOT = 1;

/** A section of the frame as a shape. @param s sizes in mm. */
export function shapeOf(s: Pick<DrawnSection, "shape" | "width" | "height" | "wall">): Shape {
  const [widthMm, heightMm, wallMm] = [s.width.mm, s.height.mm, s.wall.mm];
  switch (s.shape) {
    case "round tube":
      return { shape: "round tube", diameterMm: widthMm, wallMm };
    case "bar":
      return { shape: "bar", diameterMm: widthMm };
    case "flat":
      return { shape: "flat", widthMm, heightMm };
    case "angle":
      return { shape: "angle", widthMm, heightMm, wallMm, rootMm: ANGLE_ROOT * wallMm };
    default:
      return { shape: s.shape, widthMm, heightMm, wallMm };
  }
}

/** Puts one member on its line. Null while it has no length or no section. */
function placed(member: DrawnMember, shapes: ReadonlyMap<string, Shape>): Placed | null {
  const [from, to] = [place(member.from), place(member.to)];
  const shape = shapes.get(member.section);
  const lengthMm = norm3(sub3(to, from));
  if (!shape || !(lengthMm > 1e-6)) return null;
  const axes = turnedAxes(memberAxes(from, to, undefined, UP), member.turnDeg);
  const off = member.offset;
  const shift = off ? add3(scale3(axes[1], off.across.mm), scale3(axes[2], off.up.mm)) : null;
  return {
    id: member.id,
    from: shift ? add3(from, shift) : from,
    to: shift ? add3(to, shift) : to,
    lengthMm,
    axes,
    outline: sectionOutline(shape),
    round: isRound(shape),
  };
}

/** The farthest that a member goes in a direction, near a place. */
function top(m: Placed, near: Vec3, direction: Vec3): number {
  const s = Math.min(m.lengthMm, Math.max(0, dot3(sub3(near, m.from), m.axes[0])));
  return dot3(add3(m.from, scale3(m.axes[0], s)), direction) + reach(m, direction);
}

/**
 * Puts every member of a frame in its place, moved off its line where it is said to lie flush.
 * @returns members by name; those that have no length or no section are left out.
 */
export function placeMembers(frame: DrawnFrame): Map<string, Placed> {
  const shapes = new Map(frame.sections.map((s) => [s.id, shapeOf(s)]));
  const out = new Map<string, Placed>();
  for (const m of frame.members) {
    const p = placed(m, shapes);
    if (p) out.set(m.id, p);
  }
  // A member is moved after the one that it lies flush with; a ring of them stays where it was drawn.
  const moving = new Set<string>();
  const done = new Set<string>();
  const byId = new Map(frame.members.map((m) => [m.id, m]));
  const move = (m: DrawnMember): void => {
    if (done.has(m.id) || moving.has(m.id) || !m.flush) return;
    moving.add(m.id);
    const neighbour = byId.get(m.flush.to);
    if (neighbour) move(neighbour);
    const [own, other] = [out.get(m.id), out.get(m.flush.to)];
    if (own && other) {
      const d = DIRECTION[m.flush.side];
      const middle = scale3(add3(own.from, own.to), 0.5);
      const by = scale3(d, top(other, middle, d) - top(own, middle, d));
      out.set(m.id, { ...own, from: add3(own.from, by), to: add3(own.to, by) });
    }
    moving.delete(m.id);
    done.add(m.id);
  };
  for (const m of frame.members) move(m);
  return out;
}
