import { symmetricEigen } from "./eigen";
import { cholesky, multiply, type Rows, transpose, zeros } from "./linear";
import { chiSquareTail } from "./tails";

/** Readings that disagree at this level are called contradictory. */
const SIGNIFICANCE = 0.05;
/** Non-centrality for alpha 0.001 and power 80 %: 3.29 + 0.84 (Baarda 1968, from memory). */
const DETECT = 4.13;
/** A reading that the others check by a smaller share than this is not checked at all. */
const CONTROL = 1e-7;

/** What readings are unsure by: each alone (1 sigma), or together by their covariance. */
export type Noise = { u: readonly number[] } | { cov: Rows };

/** Brings readings to one independent unit of noise each, and back. */
export interface Whitening {
  rows: (A: Rows) => Rows;
  column: (values: readonly number[]) => number[];
  /** Half the noise as a matrix: `half` times its transpose is the covariance. Null where each stands alone. */
  half: Rows | null;
  u: readonly number[];
}

/** Solves L x = b for a lower triangle. */
function forward(L: Rows, b: readonly number[]): number[] {
  const x: number[] = [];
  for (let i = 0; i < L.length; i++) {
    const row = L[i];
    let sum = b[i];
    for (let k = 0; k < i; k++) sum -= row[k] * x[k];
    x.push(sum / row[i]);
  }
  return x;
}

/** @returns null when a covariance is not positive definite: a reading without uncertainty cannot be weighed. */
export function whitening(noise: Noise): Whitening | null {
  if ("u" in noise) {
    const { u } = noise;
    if (!u.every((s) => s > 0)) return null;
    return {
      rows: (A) => A.map((row, i) => row.map((v) => v / u[i])),
      column: (values) => values.map((v, i) => v / u[i]),
      half: null,
      u,
    };
  }
  const L = cholesky(noise.cov);
  if (!L) return null;
  return {
    rows: (A) => transpose(transpose(A).map((column) => forward(L, column))),
    column: (values) => forward(L, values),
    half: L,
    u: noise.cov.map((row, i) => Math.sqrt(row[i])),
  };
}

/** Unknowns from whitened readings. */
export interface LeastSquares {
  x: number[];
  /** Covariance of the unknowns; blind to what the readings leave open. */
  cofactor: Rows;
  rank: number;
  /** Ways in which the unknowns can move without any reading saying so. */
  open: number[][];
}

/**
 * Least squares by the pseudo-inverse of the normal matrix, its columns brought to one size, so that a sure unknown and an
 * unsure one do not hide each other. What the readings leave open is left at nought and named.
 * @param rows whitened derivatives, one row a reading. @param observed whitened. @param nothing share of the largest
 * eigenvalue below which the readings say nothing.
 */
export function leastSquares(rows: Rows, observed: readonly number[], nothing = 1e-11): LeastSquares {
  const n = rows[0]?.length ?? 0;
  const size = Array.from({ length: n }, (_, j) => Math.sqrt(rows.reduce((s, row) => s + row[j] ** 2, 0)) || 1);
  const normal = zeros(n, n);
  for (const row of rows)
    for (let i = 0; i < n; i++) {
      if (row[i] === 0) continue;
      const a = row[i] / size[i];
      const line = normal[i];
      for (let j = 0; j < n; j++) line[j] += (a * row[j]) / size[j];
    }
  const { values, vectors } = symmetricEigen(normal);
  const least = nothing * Math.max(...values);
  const cofactor = zeros(n, n);
  const open: number[][] = [];
  values.forEach((value, k) => {
    const v = vectors[k].map((x, i) => x / size[i]);
    if (value <= least) {
      open.push(v);
      return;
    }
    for (let i = 0; i < n; i++) {
      const line = cofactor[i];
      const vi = v[i] / value;
      for (let j = 0; j < n; j++) line[j] += vi * v[j];
    }
  });
  const right = Array.from({ length: n }, (_, j) => rows.reduce((s, row, i) => s + row[j] * observed[i], 0));
  const x = cofactor.map((row) => row.reduce((s, q, j) => s + q * right[j], 0));
  return { x, cofactor, rank: n - open.length, open };
}

/** One reading after the fit, in its own unit. */
export interface TestedReading {
  /** Fitted less read. */
  residual: number;
  /** Standardised residual; 0 when nothing controls the reading. */
  w: number;
  controlled: boolean;
  /** Share of the reading that the others check, 0 to 1. */
  redundancy: number;
  /** If this reading alone were wrong, it would be too large by this. */
  slip: number;
  uSlip: number;
  /** Smallest slip that would show: significance 0.1 %, power 80 %. */
  detectable: number;
}

/** The test of the whole and of each reading. */
export interface ReadingTests {
  freedom: number;
  chi2: number;
  /** Null where nothing is left over to check with. */
  pValue: number | null;
  agree: boolean | null;
  readings: TestedReading[];
  /** How alike the tests of two readings are, 0 to 1: at 1 a slip in one looks exactly like a slip in the other. */
  alike: (i: number, j: number) => number;
}

/**
 * Tests what was fitted. Source: adjustment by parametric observations with data snooping (W. Baarda, A testing procedure for
 * use in geodetic networks, 1968; from memory).
 * @param rows whitened. @param residuals fitted less read, whitened. @param freedom readings less what they fixed.
 */
export function testReadings(
  rows: Rows,
  { cofactor }: Pick<LeastSquares, "cofactor">,
  residuals: readonly number[],
  freedom: number,
  { half, u }: Whitening,
): ReadingTests {
  const AQ = multiply(rows, cofactor);
  /** Of the whitened residuals: what is left of a unit of noise. */
  const left = (i: number, j: number): number => (i === j ? 1 : 0) - AQ[i].reduce((s, v, k) => s + v * rows[j][k], 0);
  const m = rows.length;
  // In the readings' own units: P Qv P, and P v.
  const inverse =
    half &&
    transpose(
      half.map((_, i) =>
        forward(
          half,
          half.map((__, k) => (k === i ? 1 : 0)),
        ),
      ),
    );
  const R = inverse && rows.map((_, i) => rows.map((__, j) => left(i, j)));
  const N = inverse && R && multiply(multiply(transpose(inverse), R), inverse);
  const share = inverse && R && half && multiply(multiply(half, R), inverse);
  const n = (i: number, j: number): number => (N ? N[i][j] : left(i, j) / (u[i] * u[j]));
  const weighed = (i: number): number =>
    inverse ? inverse.reduce((s, row, k) => s + row[i] * residuals[k], 0) : residuals[i] / u[i];
  const plain = (i: number): number =>
    half ? half[i].reduce((s, v, k) => s + v * residuals[k], 0) : residuals[i] * u[i];
  const chi2 = residuals.reduce((s, v) => s + v ** 2, 0);
  const pValue = freedom > 0 ? chiSquareTail(chi2, freedom) : null;
  return {
    freedom,
    chi2,
    pValue,
    agree: pValue === null ? null : pValue >= SIGNIFICANCE,
    readings: Array.from({ length: m }, (_, i): TestedReading => {
      const nii = Math.max(0, n(i, i));
      const controlled = freedom > 0 && nii * u[i] ** 2 >= CONTROL;
      const root = Math.sqrt(nii);
      return {
        residual: plain(i),
        w: controlled ? weighed(i) / root : 0,
        controlled,
        redundancy: share ? share[i][i] : Math.max(0, left(i, i)),
        slip: controlled ? -weighed(i) / nii : 0,
        uSlip: controlled ? 1 / root : Number.POSITIVE_INFINITY,
        detectable: controlled ? DETECT / root : Number.POSITIVE_INFINITY,
      };
    }),
    alike: (i, j) => {
      const scale = n(i, i) * n(j, j);
      return scale > 0 ? Math.min(1, Math.abs(n(i, j)) / Math.sqrt(scale)) : 1;
    },
  };
}
