import { byMm } from "../frame";
import type { Vec3 } from "../numeric";

/** Place along the lower left to upper right of a frame. */
export const diagonalPlace = (p: Vec3): number => p[0] + p[1] + p[2];

/** From the lower left to the upper right; of what lies as far along the leftmost first, for orders that do not depend on how a frame was drawn. */
export const byPlace = (p: Vec3, q: Vec3): number =>
  byMm(diagonalPlace(p), diagonalPlace(q)) || byMm(p[0], q[0]) || byMm(p[1], q[1]);
