import type { Vec3 } from "@/core/numeric";

/** A place in a drawing moved, turned and scaled in its plane: x' = a x + c y + e, y' = b x + d y + f; z is scaled and raised. */
export interface Placing {
  a: number;
  b: number;
  c: number;
  d: number;
  e: number;
  f: number;
  z: number;
  up: number;
}

export const AS_IT_IS: Placing = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0, z: 1, up: 0 };

export const placedBy = (m: Placing, [x, y, z]: Vec3): Vec3 => [
  m.a * x + m.c * y + m.e,
  m.b * x + m.d * y + m.f,
  m.z * z + m.up,
];

/** First the inner, then the outer. */
export const within = (outer: Placing, inner: Placing): Placing => ({
  a: outer.a * inner.a + outer.c * inner.b,
  b: outer.b * inner.a + outer.d * inner.b,
  c: outer.a * inner.c + outer.c * inner.d,
  d: outer.b * inner.c + outer.d * inner.d,
  e: outer.a * inner.e + outer.c * inner.f + outer.e,
  f: outer.b * inner.e + outer.d * inner.f + outer.f,
  z: outer.z * inner.z,
  up: outer.z * inner.up + outer.up,
});

/** So wide a piece of an arc becomes one straight chord, rad (own judgement: a tube that is bent is told as pieces). */
const CHORD_RAD = Math.PI / 8;

/** Places along an arc, ends included, so that no chord spans more than an eighth of a half turn. */
export function chords(centre: Vec3, radius: number, from: number, sweep: number): Vec3[] {
  const n = Math.max(1, Math.ceil(Math.abs(sweep) / CHORD_RAD - 1e-9));
  return Array.from({ length: n + 1 }, (_, i) => {
    const t = from + (sweep * i) / n;
    return [centre[0] + radius * Math.cos(t), centre[1] + radius * Math.sin(t), centre[2]];
  });
}
