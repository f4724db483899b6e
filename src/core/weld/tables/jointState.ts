import { luSolve, matMul, symmetrise } from "../../numeric";
import type { Row } from "./knots";
import { byShares, type Mirror } from "./mirrors";

/**
 * A joint in one state of its four faces. Its energy, relative to the beams, is 1/2 (d - D e)' K (d - D e) + 1/2 e' Q e with d
 * the movement of the second member against the first (6) and e the closings of the faces, mm (4). Joint axes; row-major.
 */
export interface JointState {
  /** Stiffness, 6 x 6. All nought where no face holds. */
  k: Float64Array;
  /** Free movement per mm of closing, 6 x 4. */
  d: Float64Array;
  /** Forces that closings lock in within the joint, N/mm, 4 x 4. */
  q: Float64Array;
  /** Movement of the chord's part beyond a branch against the one before it, per mm of closing, 6 x 4. */
  c: Float64Array;
}

/** What the figures of a table are multiplied by: width, wall and modulus. */
export interface TableScale {
  bMm: number;
  tMm: number;
  eMPa: number;
}

const THOUSANDTH = 1e-3;
/** Rows 3 to 5 turn: they are per mm of width. */
const perWidth = (i: number, bMm: number): number => (i < 3 ? 1 : 1 / bMm);

/** K = C^-1 from a lower triangle over some of the six directions. @returns 6 x 6 with the rest nought. */
export function stiffnessOf(
  groups: readonly { over: readonly number[]; lower: Row }[],
  { bMm, tMm, eMPa }: TableScale,
): Float64Array {
  const k = new Float64Array(36);
  for (const { over, lower } of groups) {
    const n = over.length;
    const l = new Float64Array(n * n);
    let at = 0;
    for (let i = 0; i < n; i++) for (let j = 0; j <= i; j++) l[i * n + j] = THOUSANDTH * (lower[at++] ?? 0);
    const transposed = l.map((_, i) => l[(i % n) * n + Math.floor(i / n)] ?? 0);
    const c = matMul(l, transposed, n, n, n, new Float64Array(n * n));
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++)
        c[i * n + j] = ((c[i * n + j] ?? 0) * perWidth(over[i] ?? 0, bMm) * perWidth(over[j] ?? 0, bMm)) / (eMPa * tMm);
    const inverse = new Float64Array(n * n);
    for (let i = 0; i < n; i++) inverse[i * n + i] = 1;
    if (!luSolve(c, inverse, n, n)) throw new RangeError("a joint of no flexibility in the table");
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) k[6 * (over[i] ?? 0) + (over[j] ?? 0)] = inverse[i * n + j] ?? 0;
  }
  return symmetrise(k, 6);
}

/** Columns of the faces that hold, each over some of the six directions. @returns 6 x 4. */
export function columnsOf(
  lines: readonly { line: number; over: readonly number[]; values: Row }[],
  bMm: number,
): Float64Array {
  const out = new Float64Array(24);
  for (const { line, over, values } of lines)
    over.forEach((i, at) => {
      out[4 * i + line] = THOUSANDTH * (values[at] ?? 0) * perWidth(i, bMm);
    });
  return out;
}

/** An upper triangle over the faces that hold. @returns 4 x 4. */
export function lockedOf(lines: readonly number[], upper: Row, { tMm, eMPa }: TableScale): Float64Array {
  const q = new Float64Array(16);
  let at = 0;
  lines.forEach((a, i) => {
    for (const b of lines.slice(i)) {
      const v = THOUSANDTH * (upper[at++] ?? 0) * eMPa * tMm;
      q[4 * a + b] = v;
      q[4 * b + a] = v;
    }
  });
  return q;
}

export function mirrored({ k, d, q, c }: JointState, { signs, faces, kink }: Mirror): JointState {
  const sign = (i: number): number => signs[i] ?? 1;
  const face = (l: number): number => faces[l] ?? l;
  return {
    k: k.map((v, at) => v * sign(Math.floor(at / 6)) * sign(at % 6)),
    d: d.map((_, at) => sign(Math.floor(at / 4)) * (d[4 * Math.floor(at / 4) + face(at % 4)] ?? 0)),
    q: q.map((_, at) => q[4 * face(Math.floor(at / 4)) + face(at % 4)] ?? 0),
    c: c.map((_, at) => kink * sign(Math.floor(at / 4)) * (c[4 * Math.floor(at / 4) + face(at % 4)] ?? 0)),
  };
}

/** 6 x 6 inverse. @throws RangeError where it has none. */
function inverse6(a: Float64Array): Float64Array {
  const out = Float64Array.from({ length: 36 }, (_, at) => (at % 7 === 0 ? 1 : 0));
  if (!luSolve(a.slice(), out, 6, 6)) throw new RangeError("a joint of no flexibility in the table");
  return out;
}

/** Joints of one kind and state as one: what each gives counts by its share, and so does what its closings do. @param shares of them, together 1. */
export function blended(states: readonly JointState[], shares: readonly number[]): JointState {
  const sum = (of: (s: JointState) => Float64Array): Float64Array => byShares(states.map(of), shares);
  return {
    k: symmetrise(inverse6(sum((s) => inverse6(s.k))), 6),
    d: sum((s) => s.d),
    q: sum((s) => s.q),
    c: sum((s) => s.c),
  };
}

export const NOTHING_HOLDS: JointState = {
  k: new Float64Array(36),
  d: new Float64Array(24),
  q: new Float64Array(16),
  c: new Float64Array(24),
};

/** Faces that hold, by a code. */
export const holding = (code: string): number[] => [...code].flatMap((digit, line) => (digit === "0" ? [] : [line]));
