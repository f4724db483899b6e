/** A point or direction in space, mm. x along AB, y towards CD, z up from the bed. */
export type Vec3 = readonly [number, number, number];

export const add3 = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const sub3 = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale3 = (a: Vec3, k: number): Vec3 => [a[0] * k, a[1] * k, a[2] * k];
export const dot3 = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross3 = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const norm3 = (a: Vec3): number => Math.hypot(a[0], a[1], a[2]);
/** @param a not zero. */
export const unit3 = (a: Vec3): Vec3 => scale3(a, 1 / norm3(a));
/** The part of `a` that is square to the unit vector `n`. */
export const squareTo = (a: Vec3, n: Vec3): Vec3 => sub3(a, scale3(n, dot3(a, n)));
