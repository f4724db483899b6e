import { cross3, type Sparse, sub3, type Vec3 } from "../numeric";

/** What a spring adds to the stiffness: (row, column, value) for rows over the freedoms and an r x r matrix, both halves. */
export function springEntries(rows: readonly Sparse[], matrix: Float64Array): [number, number, number][] {
  const entries: [number, number, number][] = [];
  for (const [a, p] of rows.entries())
    for (const [b, q] of rows.entries()) {
      const k = matrix[a * rows.length + b];
      // What holds nothing must not widen the envelope either.
      if (k === 0) continue;
      for (const [s, i] of p.at.entries())
        for (const [t, j] of q.at.entries()) entries.push([i, j, k * p.value[s] * q.value[t]]);
    }
  return entries;
}

/** Rows of the movement of a point fixed to node b against one fixed to node a: d = -ua + S(o - xa) ta + ub - S(o - xb) tb. */
export function relativeRows(at: Vec3, nodeA: number, xA: Vec3, nodeB: number, xB: Vec3): Sparse[] {
  const rA = sub3(at, xA);
  const rB = sub3(at, xB);
  return [0, 1, 2, 3, 4, 5].map((row) => {
    const out: Sparse = { at: [], value: [] };
    const put = (i: number, v: number) => {
      if (v === 0) return;
      out.at.push(i);
      out.value.push(v);
    };
    if (row < 3) {
      put(6 * nodeA + row, -1);
      put(6 * nodeB + row, 1);
      const axis: Vec3 = [row === 0 ? 1 : 0, row === 1 ? 1 : 0, row === 2 ? 1 : 0];
      // Row of S(r): e . (r x v) = (e x r) . v
      const sA = cross3(axis, rA);
      const sB = cross3(axis, rB);
      for (let j = 0; j < 3; j++) {
        put(6 * nodeA + 3 + j, sA[j]);
        put(6 * nodeB + 3 + j, -sB[j]);
      }
    } else {
      put(6 * nodeA + row, -1);
      put(6 * nodeB + row, 1);
    }
    return out;
  });
}
