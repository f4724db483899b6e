import type { Row } from "./knots";

/** A lower triangle within a row: where it starts, and how many rows it has. Its product with itself turned over is what a joint gives. */
export interface Triangle {
  at: number;
  size: number;
}

/** Where row i of a triangle starts, from its beginning. */
const startOf = (i: number): number => (i * (i + 1)) / 2;

/** How far the numbers of row i before its last reach beside that, as lengths. */
function aslant(row: Row, first: number, i: number): number {
  const diagonal = Math.abs(row[first + i] ?? 0);
  const rest = Math.hypot(...row.slice(first, first + i));
  return diagonal > 0 ? rest / diagonal : 0;
}

/** A difference is taken plainly while it leaves so much of what proportion would leave, and reaches aslant by no more than so many times as far. */
const LEAST = 0.9;
const MOST = 1.1;

/**
 * A row with what makes `to` of `from` added to it. What a joint gives stays what a joint can give: the last number of each row of its triangles
 * shrinks by little more than in proportion, and those before it get little larger beside it than in any of the three rows. Near where the
 * difference was found it is the plain one.
 * @param by how much of the difference is taken, of each number: 0 to 1.
 */
export function shifted(row: Row, from: Row, to: Row, by: (at: number) => number, triangles: readonly Triangle[]): Row {
  const out = row.map((v, at) => v + by(at) * ((to[at] ?? 0) - (from[at] ?? 0)));
  for (const { at, size } of triangles)
    for (let i = 0; i < size; i++) {
      const first = at + startOf(i);
      const last = first + i;
      const [own, was, is] = [row[last] ?? 0, from[last] ?? 0, to[last] ?? 0];
      const least = own * (1 - by(last) * (1 - Math.min(1, was > 0 ? is / was : 1)));
      out[last] = Math.max(out[last] ?? 0, LEAST * least);
      const most = MOST * Math.max(...[row, from, to].map((r) => aslant(r, first, i)));
      const now = aslant(out, first, i);
      if (now > most) for (let j = first; j < last; j++) out[j] = ((out[j] ?? 0) * most) / now;
    }
  return out;
}
