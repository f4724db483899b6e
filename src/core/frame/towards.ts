import { add3, dot3, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { fail, ok, type Result } from "../units";
import type { Placed } from "./meeting";

/** A direction that stands this steep has no bearing in plan, mm per mm. */
const UPRIGHT = 1e-6;

/** A direction laid level; to the right where it stands. */
function level(v: Vec3): Vec3 {
  const flat: Vec3 = [v[0], v[1], 0];
  return norm3(flat) > UPRIGHT ? unit3(flat) : [1, 0, 0];
}

/** A level direction turned in plan, anticlockwise seen from above, degrees. */
export function turnedBy(direction: Vec3, angleDeg: number): Vec3 {
  const [x, y] = level(direction);
  const a = (angleDeg * Math.PI) / 180;
  return [x * Math.cos(a) - y * Math.sin(a), x * Math.sin(a) + y * Math.cos(a), 0];
}

/** Where one gets from a place by an angle from a direction, and a length. */
export const byAngle = (from: Vec3, direction: Vec3, angleDeg: number, lengthMm: number): Vec3 =>
  add3(from, scale3(turnedBy(direction, angleDeg), lengthMm));

/**
 * A jog: over along a direction, in across it, up.
 * @param toward the side that counts as in. @returns where it ends.
 */
export function byJog(
  from: Vec3,
  direction: Vec3,
  { overMm, inMm, upMm }: { overMm: number; inMm: number; upMm: number },
  toward: Vec3,
): Vec3 {
  const along = level(direction);
  const left: Vec3 = [-along[1], along[0], 0];
  const side = dot3(sub3(toward, from), left) < 0 ? scale3(left, -1) : left;
  return add3(from, add3(scale3(along, overMm), add3(scale3(side, inMm), [0, 0, upMm])));
}

/** Lines that cross at less than this, sine, meet nowhere useful. */
const ALONGSIDE = 0.02;

/**
 * How far a member goes in a direction until it meets another, seen from above: to that one's line, from where its end is cut
 * to the face.
 */
export function untilMember(from: Vec3, direction: Vec3, to: Pick<Placed, "id" | "from" | "to">): Result<Vec3> {
  const u = level(direction);
  const v = sub3(to.to, to.from);
  const cross = u[0] * v[1] - u[1] * v[0];
  if (Math.abs(cross) < ALONGSIDE * Math.hypot(v[0], v[1]) || Math.hypot(v[0], v[1]) < UPRIGHT)
    return fail(`That way runs along ${to.id} and never meets it: choose another angle.`);
  const w = sub3(to.from, from);
  const s = (w[0] * v[1] - w[1] * v[0]) / cross;
  const t = (w[0] * u[1] - w[1] * u[0]) / cross;
  if (s < 1) return fail(`${to.id} lies behind: turn the angle by 180°.`);
  if (t < 0 || t > 1) return fail(`That way passes ${to.id} beyond its end: choose another angle.`);
  return ok(add3(from, scale3(u, s)));
}
