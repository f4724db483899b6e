import { matMul, symmetrise, type Vec3 } from "../numeric";
import type { JointKind, WeldState } from "./jointKind";

/** The four faces of a joint: where their lines run, and what of them does not change while they are welded. */
export interface Faces {
  kind: JointKind;
  /** From the first member to the second: closing is movement against it. */
  normal: Vec3;
  /** Towards the inside of a mitre, along the chord of a tee. Lines 0 and 1 lie at + and - of it. */
  e1: Vec3;
  /** Up, or across the chord. Lines 2 and 3 lie at + and - of it. */
  e2: Vec3;
  /** Half sizes of the ring of lines along e1 and e2, mid-wall, mm. */
  half1Mm: number;
  half2Mm: number;
  /** E t / b of the thinner or branch wall, MPa mm / mm, with b = width. */
  perWidth: number;
  /** Yield force per mm of line, N/mm. */
  yieldPerMm: number;
  /** Contact of faces that are still open, as a share of the full wall. */
  fitup: number;
  gPerE: number;
}

const GAUSS = 1 / Math.sqrt(3);

const place = (faces: Faces, p: number, q: number): Vec3 => [
  faces.e1[0] * p + faces.e2[0] * q,
  faces.e1[1] * p + faces.e2[1] * q,
  faces.e1[2] * p + faces.e2[2] * q,
];

const halfLengthMm = (faces: Faces, line: number): number => (line < 2 ? faces.half2Mm : faces.half1Mm);

/** Length of a whole bead on a line, mm. */
export const lineLengthMm = (faces: Faces, line: number): number => 2 * halfLengthMm(faces, line);

/** A point of a line at `s` mm from its middle, from the joint's centre. */
function onLine(faces: Faces, line: number, s: number): Vec3 {
  const sign = line % 2 === 0 ? 1 : -1;
  return line < 2 ? place(faces, sign * faces.half1Mm, s) : place(faces, s, sign * faces.half2Mm);
}

/** K6 += k Bs^T [n n^T + s (I - n n^T)] Bs with Bs = [I, -S(r)]. */
function addPoint(k6: Float64Array, n: Vec3, r: Vec3, k: number, shear: number): void {
  const bs = new Float64Array(18);
  for (let i = 0; i < 3; i++) bs[i * 6 + i] = 1;
  bs.set([0, r[2], -r[1]], 3);
  bs.set([-r[2], 0, r[0]], 9);
  bs.set([r[1], -r[0], 0], 15);
  const m = new Float64Array(9);
  for (let i = 0; i < 3; i++)
    for (let j = 0; j < 3; j++) m[3 * i + j] = k * ((1 - shear) * n[i] * n[j] + (i === j ? shear : 0));
  const mb = matMul(m, bs, 3, 3, 6, new Float64Array(18));
  for (let i = 0; i < 6; i++)
    for (let j = 0; j < 6; j++) {
      let sum = 0;
      for (let q = 0; q < 3; q++) sum += bs[q * 6 + i] * mb[q * 6 + j];
      k6[i * 6 + j] = k6[i * 6 + j] + sum;
    }
}

/** Contact of fitted parts on the faces that are still open: two Gauss points a face, a share of the full wall. 6 x 6. */
export function contactStiffness(faces: Faces, state: WeldState): Float64Array {
  const k = new Float64Array(36);
  state.forEach((s, line) => {
    if (s !== 0) return;
    const half = halfLengthMm(faces, line);
    for (const g of [-GAUSS, GAUSS])
      addPoint(k, faces.normal, onLine(faces, line, g * half), faces.fitup * faces.perWidth * half, faces.gPerE);
  });
  return symmetrise(k, 6);
}
