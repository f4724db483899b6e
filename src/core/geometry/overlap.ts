import { cross3, norm3, scale3, type Vec3 } from "../numeric";

/** Directions in which two boxes or prisms can be parted: their own axes and what is square to a pair of them. */
export function partingDirections(a: readonly Vec3[], b: readonly Vec3[]): Vec3[] {
  const out = [...a, ...b];
  for (const p of a)
    for (const q of b) {
      const c = cross3(p, q);
      const n = norm3(c);
      if (n > 1e-6) out.push(scale3(c, 1 / n));
    }
  return out;
}

/**
 * How deep two convex bodies lie in each other.
 * @param a, b their corners. @param directions unit directions in which they can be parted.
 * @returns mm; negative when a plane parts them, by the widest gap seen.
 * Source: separating axis theorem.
 */
export function overlapMm(a: readonly Vec3[], b: readonly Vec3[], directions: readonly Vec3[]): number {
  let least = Number.POSITIVE_INFINITY;
  for (const [x, y, z] of directions) {
    let [lowA, highA, lowB, highB] = [1e99, -1e99, 1e99, -1e99];
    for (const p of a) {
      const v = p[0] * x + p[1] * y + p[2] * z;
      if (v < lowA) lowA = v;
      if (v > highA) highA = v;
    }
    for (const p of b) {
      const v = p[0] * x + p[1] * y + p[2] * z;
      if (v < lowB) lowB = v;
      if (v > highB) highB = v;
    }
    least = Math.min(least, Math.min(highA, highB) - Math.max(lowA, lowB));
  }
  return least;
}
