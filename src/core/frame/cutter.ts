import { dot3, sub3, type Vec3 } from "../numeric";

/** What ends a member: a plane (its normal points out of the member) or the round face of the member that it lands on. */
export type Cutter =
  | { kind: "plane"; normal: Vec3; point: Vec3 }
  | { kind: "cylinder"; axis: Vec3; point: Vec3; radiusMm: number };

/**
 * Where a line along a member meets a cutter.
 * @param origin a point of the line. @param along unit direction out of the member's end.
 * @returns distance from `origin` along the line, mm: for a cylinder the first meeting coming from inside the member; null
 * when the line misses it (a branch wider than the round that it lands on).
 */
export function meets(cutter: Cutter, origin: Vec3, along: Vec3): number | null {
  const to = sub3(cutter.point, origin);
  if (cutter.kind === "plane") return dot3(to, cutter.normal) / dot3(along, cutter.normal);
  // Square to the cylinder's axis: |w + s v| = r.
  const { axis, radiusMm } = cutter;
  const d = dot3(along, axis);
  const k = dot3(to, axis);
  const v: Vec3 = [along[0] - d * axis[0], along[1] - d * axis[1], along[2] - d * axis[2]];
  const w: Vec3 = [k * axis[0] - to[0], k * axis[1] - to[1], k * axis[2] - to[2]];
  const a = dot3(v, v);
  const b = dot3(v, w);
  const c = dot3(w, w) - radiusMm * radiusMm;
  const root = b * b - a * c;
  if (root < 0 || a < 1e-12) return null;
  return (-b - Math.sqrt(root)) / a;
}
