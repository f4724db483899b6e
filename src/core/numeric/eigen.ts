import { type Rows, zeros } from "./linear";

/** Eigenvalues of a symmetric matrix with their vectors, in no order; `vectors[k]` belongs to `values[k]` and has length 1. */
interface Eigen {
  values: number[];
  vectors: Rows;
}

/**
 * Eigenvalues and vectors of a symmetric matrix by cyclic Jacobi rotations: exact for small ones, and never fails on
 * singular ones. Source: Jacobi 1846; Golub and Van Loan, Matrix Computations, 8.5 (from memory).
 * @param a n x n, symmetric; only read.
 */
export function symmetricEigen(a: Rows): Eigen {
  const n = a.length;
  const m = a.map((row) => [...row]);
  const v = zeros(n, n).map((row, i) => row.map((_, j) => (i === j ? 1 : 0)));
  const size = Math.max(...m.map((row) => Math.max(...row.map(Math.abs), 0)), 0);
  for (let sweep = 0; sweep < 60; sweep++) {
    let off = 0;
    for (let p = 0; p < n; p++) for (let q = p + 1; q < n; q++) off = Math.max(off, Math.abs(m[p][q]));
    if (off <= 1e-15 * size) break;
    for (let p = 0; p < n; p++)
      for (let q = p + 1; q < n; q++) {
        const [rp, rq] = [m[p], m[q]];
        const pq = rp[q];
        if (Math.abs(pq) <= 1e-18 * size) continue;
        const theta = (rq[q] - rp[p]) / (2 * pq);
        const t = (theta >= 0 ? 1 : -1) / (Math.abs(theta) + Math.hypot(1, theta));
        const c = 1 / Math.hypot(1, t);
        const s = c * t;
        for (let k = 0; k < n; k++) {
          const row = m[k];
          const [kp, kq] = [row[p], row[q]];
          row[p] = c * kp - s * kq;
          row[q] = s * kp + c * kq;
        }
        for (let k = 0; k < n; k++) {
          const [pk, qk] = [rp[k], rq[k]];
          rp[k] = c * pk - s * qk;
          rq[k] = s * pk + c * qk;
        }
        const [vp, vq] = [v[p] as number[], v[q] as number[]];
        for (let k = 0; k < n; k++) {
          const [pk, qk] = [vp[k], vq[k]];
          vp[k] = c * pk - s * qk;
          vq[k] = s * pk + c * qk;
        }
      }
  }
  return { values: m.map((row, i) => row[i]), vectors: v };
}
