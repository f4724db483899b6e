import type { Birth, RingStiffness } from "../mechanics";
import { cross3, luSolve, matMul, scale3, symmetrise, type Vec3 } from "../numeric";
import type { JointKind, RingState } from "./jointKind";

/** A point of a weld line: where, from the joint's centre, and how stiff along the joint's normal, N/mm. */
export interface Station {
  r: Vec3;
  k: number;
}

/** What of a joint does not change while it is welded. Axes are unit vectors of the frame. */
export interface Ring {
  kind: JointKind;
  /** From the first member to the second: closing is movement against it. */
  normal: Vec3;
  /** Towards the inside of a mitre, along the chord of a tee. Lines 0 and 1 lie at + and - of it. */
  e1: Vec3;
  /** Up, or across the chord. Lines 2 and 3 lie at + and - of it. */
  e2: Vec3;
  /** Half sizes of the ring along e1 and e2, mid-wall, mm. */
  half1Mm: number;
  half2Mm: number;
  /** E t / b of the thinner or branch wall, MPa mm / mm, with b = width. */
  perWidth: number;
  /** E t, N/mm. */
  perWall: number;
  /** Branch narrower than its chord: fb = clip(1 - 2 (1 - beta), 0.2, 1); 1 for corners. */
  narrow: number;
  /** Share of shear to normal stiffness of a weld line, G/E included. */
  shear: number;
  /** Flexibility in series, 3 x 3 over the rotations, 1/(N mm). */
  series: Float64Array;
  /** Yield force per mm of line, N/mm. */
  yieldPerMm: number;
  /** Multiplies every welded and tacked station (scatter of the fit). */
  stiffness: number;
  /** Multiplies the fit-up contact that is always there. */
  fitup: number;
  gPerE: number;
}

const GAUSS = 1 / Math.sqrt(3);
/** Corner i lies at (+e1 +e2), (+e1 -e2), (-e1 +e2), (-e1 -e2); these are the two of each line. */
const CORNERS_OF_LINE = [
  [0, 1],
  [2, 3],
  [0, 2],
  [1, 3],
] as const;
const SIGNS = [
  [1, 1],
  [1, -1],
  [-1, 1],
  [-1, -1],
] as const;

const place = (ring: Ring, p: number, q: number): Vec3 => [
  ring.e1[0] * p + ring.e2[0] * q,
  ring.e1[1] * p + ring.e2[1] * q,
  ring.e1[2] * p + ring.e2[2] * q,
];

const halfLengthMm = (ring: Ring, line: number): number => (line < 2 ? ring.half2Mm : ring.half1Mm);
/** Length of a whole bead on a line, mm. */
const lineLengthMm = (ring: Ring, line: number): number => 2 * halfLengthMm(ring, line);

/** A point of a line at `s` mm from its middle. */
function onLine(ring: Ring, line: number, s: number): Vec3 {
  const sign = line % 2 === 0 ? 1 : -1;
  return line < 2 ? place(ring, sign * ring.half1Mm, s) : place(ring, s, sign * ring.half2Mm);
}

/** The two Gauss points of a bead. */
function beadStations(ring: Ring, line: number): Station[] {
  const half = halfLengthMm(ring, line);
  return [-GAUSS, GAUSS].map((g) => ({
    r: onLine(ring, line, g * half),
    k: ring.stiffness * ring.narrow * ring.kind.beadDensity(line, g) * ring.perWidth * half,
  }));
}

/** The two tube corners at the ends of a line. */
function cornerStation(ring: Ring, corner: number): Station {
  const [p, q] = SIGNS[corner] as readonly [number, number];
  return {
    r: place(ring, p * ring.half1Mm, q * ring.half2Mm),
    k: ring.stiffness * ring.narrow * ring.kind.cornerConstant(corner) * ring.perWall,
  };
}

/** The two points of a tack at mid-face. */
function tackStations(ring: Ring, line: number, lengthMm: number): Station[] {
  const half = lengthMm / 2;
  return [-GAUSS, GAUSS].map((g) => ({
    r: onLine(ring, line, g * half),
    k: ring.stiffness * ring.narrow * ring.kind.tackDensity(line) * ring.perWidth * half,
  }));
}

/** K6 += k Bs^T [n n^T + s (I - n n^T)] Bs with Bs = [I, -S(r)]. */
function addStation(k6: Float64Array, ring: Ring, { r, k }: Station, shear: number): void {
  const n = ring.normal;
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

/** Sum of k [n; r x n] over stations: the ring load of one mm of opening. */
function loadOf(stations: readonly { station: Station; share: number }[], normal: Vec3, factor: number): Float64Array {
  const g = new Float64Array(6);
  for (const { station, share } of stations) {
    const moment = cross3(station.r, normal);
    const k = factor * share * station.k;
    for (let i = 0; i < 3; i++) {
      g[i] = g[i] + k * normal[i];
      g[i + 3] = g[i + 3] + k * moment[i];
    }
  }
  return g;
}

const identity = (n: number): Float64Array => {
  const out = new Float64Array(n * n);
  for (let i = 0; i < n; i++) out[i * n + i] = 1;
  return out;
};

/** Stiffness of a ring. @throws Error when the ring is singular, which contact stiffness rules out. */
export function ringStiffness(ring: Ring, state: RingState): RingStiffness {
  const kr = new Float64Array(36);
  for (let line = 0; line < 4; line++) {
    const half = halfLengthMm(ring, line);
    for (const g of [-GAUSS, GAUSS])
      addStation(kr, ring, { r: onLine(ring, line, g * half), k: ring.fitup * ring.perWidth * half }, ring.gPerE);
  }
  const corners = new Set<number>();
  state.forEach((s, line) => {
    if (s === 0) return;
    if (s === "welded") for (const c of CORNERS_OF_LINE[line] ?? []) corners.add(c);
    for (const station of s === "welded" ? beadStations(ring, line) : tackStations(ring, line, s))
      addStation(kr, ring, station, ring.shear);
  });
  for (const c of corners) addStation(kr, ring, cornerStation(ring, c), ring.shear);
  symmetrise(kr, 6);

  const withSeries = identity(6);
  for (let i = 0; i < 6; i++)
    for (let j = 3; j < 6; j++) {
      let sum = withSeries[i * 6 + j];
      for (let q = 0; q < 3; q++) sum += kr[i * 6 + 3 + q] * ring.series[q * 3 + (j - 3)];
      withSeries[i * 6 + j] = sum;
    }
  const x = identity(6);
  const krInverse = identity(6);
  if (!luSolve(withSeries, x, 6, 6) || !luSolve(kr.slice(), krInverse, 6, 6)) throw new Error("singular ring");
  return { kr, krInverse, x, kj: symmetrise(matMul(x, kr, 6, 6, 6, new Float64Array(36)), 6) };
}

/**
 * A bead on a line, in the state before it. Corners that other lines already hold close by half.
 * @param cornerShare overrides the share of both corners (to copy other definitions of a strip), null for the model's own.
 */
export function beadBirth(ring: Ring, before: RingState, line: number, cornerShare: number | null): Birth {
  const held = (corner: number): boolean =>
    before.some((s, l) => l !== line && s === "welded" && (CORNERS_OF_LINE[l] as readonly number[]).includes(corner));
  const stations = [
    ...beadStations(ring, line).map((station) => ({ station, share: 1 })),
    ...(CORNERS_OF_LINE[line] ?? []).map((c) => ({
      station: cornerStation(ring, c),
      share: cornerShare ?? (held(c) ? 0.5 : 1),
    })),
  ];
  const factor = ring.kind.closingShare(line, before);
  return {
    g: loadOf(stations, ring.normal, factor),
    k: factor * stations.reduce((sum, { station, share }) => sum + share * station.k, 0),
    yieldN: ring.yieldPerMm * lineLengthMm(ring, line),
    lengthMm: lineLengthMm(ring, line),
  };
}

/** A tack on a line. */
export function tackBirth(ring: Ring, line: number, lengthMm: number): Birth {
  const stations = tackStations(ring, line, lengthMm).map((station) => ({ station, share: 1 }));
  return {
    g: loadOf(stations, ring.normal, 1),
    k: stations.reduce((sum, { station }) => sum + station.k, 0),
    yieldN: ring.yieldPerMm * lengthMm,
    lengthMm,
  };
}

/** Offset of a line from the joint's centre, square to it: for where its heat lies in the chord. */
export const lineOffset = (ring: Ring, line: number): Vec3 =>
  line < 2
    ? scale3(ring.e1, (line === 0 ? 1 : -1) * ring.half1Mm)
    : scale3(ring.e2, (line === 2 ? 1 : -1) * ring.half2Mm);
