import { cross3, dot3, norm3, radians, scale3, sub3, unit3, type Vec2, type Vec3 } from "../numeric";
import type { Axes } from "./memberAxes";
import { TOLERANCES } from "./tolerances";

/** A member as far as its meeting others needs it: its line, its axes and its outer outline. Lengths in mm. */
export interface Placed {
  id: string;
  from: Vec3;
  to: Vec3;
  lengthMm: number;
  axes: Axes;
  outline: readonly Vec2[];
  round: boolean;
}

export type EndName = "from" | "to";

/** How two members meet, from their geometry alone. `m` is the first, `n` the second. */
export type Meeting =
  /** Both end there. */
  | { kind: "corner"; ends: [EndName, EndName]; at: Vec3 }
  /** `branch` ends on the other, which runs past. */
  | { kind: "tee"; branch: "m" | "n"; end: EndName; at: Vec3 }
  /** They lie on each other, each running past; `atN` is the same place on the second one's line. How far along each other, null where they cross. */
  | { kind: "lap"; at: Vec3; atN: Vec3; alongMm: number | null }
  /** They run through each other. */
  | { kind: "cross"; at: Vec3 }
  /** They lie in each other lengthwise. */
  | { kind: "overlap"; at: Vec3 };

const { meetSlackMm: SLACK_MM, touchMm: TOUCH_MM } = TOLERANCES;
/** Under this sine two lines are treated as parallel. */
export const PARALLEL = Math.sin(radians(TOLERANCES.parallelDeg));
/** Cosine up to which lines that go on in each other's direction form a kink. */
const ONWARD = -Math.cos(radians(TOLERANCES.kinkDeg));

/** How far a member reaches from its axis along a direction square to it, mm. */
export function reach(m: Placed, direction: Vec3): number {
  const y = dot3(m.axes[1], direction);
  const z = dot3(m.axes[2], direction);
  // A drawn circle has corners; the tube has none.
  if (m.round) return (m.outline[0]?.x ?? 0) * Math.hypot(y, z);
  let most = 0;
  for (const p of m.outline) {
    const r = Math.abs(p.x * y + p.y * z);
    if (r > most) most = r;
  }
  return most;
}

/** A place on a member's line. */
export const along = (m: Placed, s: number): Vec3 => [
  m.from[0] + m.axes[0][0] * s,
  m.from[1] + m.axes[0][1] * s,
  m.from[2] + m.axes[0][2] * s,
];
export const endOf = (m: Placed, end: EndName): Vec3 => (end === "from" ? m.from : m.to);
/** Direction from an end into the member. */
export const intoMember = (m: Placed, end: EndName): Vec3 => (end === "from" ? m.axes[0] : scale3(m.axes[0], -1));
/** Half of the largest size of a section. */
const girth = (m: Placed): number => Math.max(reach(m, m.axes[1]), reach(m, m.axes[2]));
const ENDS: readonly EndName[] = ["from", "to"];

/** Ends that stand together and go on in nearly one direction: a kink or a splice. */
function onward(m: Placed, n: Placed): Meeting | null {
  for (const e of ENDS)
    for (const f of ENDS) {
      const [p, q] = [endOf(m, e), endOf(n, f)];
      if (dot3(intoMember(m, e), intoMember(n, f)) > ONWARD) continue;
      if (norm3(sub3(p, q)) < Math.max(girth(m), girth(n)) / 2 + SLACK_MM)
        return { kind: "corner", ends: [e, f], at: scale3([p[0] + q[0], p[1] + q[1], p[2] + q[2]], 0.5) };
    }
  return null;
}

/** Side by side: apart, touching, or in each other. */
function sideBySide(m: Placed, n: Placed): Meeting | null {
  const u = m.axes[0];
  const a = dot3(sub3(n.from, m.from), u);
  const b = dot3(sub3(n.to, m.from), u);
  const low = Math.max(0, Math.min(a, b));
  const high = Math.min(m.lengthMm, Math.max(a, b));
  if (high - low < SLACK_MM) return null;
  const middle = along(m, (low + high) / 2);
  const w = sub3(n.from, m.from);
  const aside: Vec3 = [w[0] - u[0] * a, w[1] - u[1] * a, w[2] - u[2] * a];
  const directions = [m.axes[1], m.axes[2], n.axes[1], n.axes[2]];
  if (m.round || n.round) {
    const far = norm3(aside);
    if (far > 1e-9) directions.push(scale3(aside, 1 / far));
  }
  let gap = Number.NEGATIVE_INFINITY;
  for (const d of directions) gap = Math.max(gap, Math.abs(dot3(aside, d)) - reach(m, d) - reach(n, d));
  if (gap > SLACK_MM) return null;
  if (gap < -TOUCH_MM) return { kind: "overlap", at: middle };
  const atN: Vec3 = [middle[0] + aside[0], middle[1] + aside[1], middle[2] + aside[2]];
  return { kind: "lap", at: middle, atN, alongMm: high - low };
}

/** Where the lines of two members that are not parallel pass each other nearest, mm along each. */
export function passing(m: Placed, n: Placed): [alongM: number, alongN: number] {
  const [u, v] = [m.axes[0], n.axes[0]];
  const r = sub3(n.from, m.from);
  const b = dot3(u, v);
  const d = 1 - b * b;
  return [(dot3(r, u) - b * dot3(r, v)) / d, (b * dot3(r, u) - dot3(r, v)) / d];
}

/**
 * How two members meet. An end counts as standing on the other member when it lies in that member's body, or within 3 mm
 * of it; where neither ends they lap when their faces touch and cross when they do not pass each other.
 * @returns null when they do not meet.
 */
export function meeting(m: Placed, n: Placed): Meeting | null {
  const [u, v] = [m.axes[0], n.axes[0]];
  const across = cross3(u, v);
  const sine = norm3(across);
  const kink = onward(m, n);
  if (kink) return kink;
  if (sine < PARALLEL) return sideBySide(m, n);
  const w = scale3(across, 1 / sine);
  const r = sub3(n.from, m.from);
  const gap = Math.abs(dot3(r, w)) - reach(m, w) - reach(n, w);
  if (gap > SLACK_MM) return null;
  const [s, t] = passing(m, n);
  // How far from there an end may stand and still lie in the other's body.
  const reachM = reach(n, unit3(cross3(v, w))) / sine + SLACK_MM;
  const reachN = reach(m, unit3(cross3(u, w))) / sine + SLACK_MM;
  if (s < -reachM || s > m.lengthMm + reachM || t < -reachN || t > n.lengthMm + reachN) return null;
  const near = (x: number, length: number, far: number): EndName | null =>
    x <= far && x <= length / 2 ? "from" : x >= length - far && x > length / 2 ? "to" : null;
  const [endM, endN] = [near(s, m.lengthMm, reachM), near(t, n.lengthMm, reachN)];
  const touching = gap > -TOUCH_MM;
  if (touching) return { kind: "lap", at: along(m, s), atN: along(n, t), alongMm: null };
  if (endM && endN) return { kind: "corner", ends: [endM, endN], at: along(m, s) };
  if (endM) return { kind: "tee", branch: "m", end: endM, at: along(n, t) };
  if (endN) return { kind: "tee", branch: "n", end: endN, at: along(m, s) };
  return { kind: "cross", at: along(m, s) };
}
