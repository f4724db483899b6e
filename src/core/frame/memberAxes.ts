import { cross3, dot3, squareTo, sub3, unit3, type Vec3 } from "../numeric";

/** Local axes of a member: x along it, z as near to `up` as can be, y = z x x. */
export type Axes = readonly [Vec3, Vec3, Vec3];

/** A direction square to `up` that turns with it: y for z, z for x, x for y. */
const turned = (up: Vec3): Vec3 => unit3(squareTo([up[1], up[2], up[0]], unit3(up)));

/**
 * @param from, to ends of the member, not the same. @param up wanted direction of the height. @param frameUp up of the
 * frame; a member that stands upright takes the direction that follows from it.
 */
export function memberAxes(from: Vec3, to: Vec3, up: Vec3 | undefined, frameUp: Vec3): Axes {
  const x = unit3(sub3(to, from));
  let lead = up ?? frameUp;
  if (Math.abs(dot3(x, unit3(lead))) > 0.999) lead = turned(frameUp);
  const z = unit3(squareTo(lead, x));
  return [x, cross3(z, x), z];
}

/** Axes turned about the member's own x. @param deg positive turns y towards z. */
export function turnedAxes([x, y, z]: Axes, deg: number): Axes {
  const c = Math.cos((deg * Math.PI) / 180);
  const s = Math.sin((deg * Math.PI) / 180);
  const mix = (a: Vec3, ka: number, b: Vec3, kb: number): Vec3 => [
    a[0] * ka + b[0] * kb,
    a[1] * ka + b[1] * kb,
    a[2] * ka + b[2] * kb,
  ];
  return [x, mix(y, c, z, s), mix(z, c, y, -s)];
}
