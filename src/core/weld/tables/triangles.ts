import type { Row } from "./knots";

/** A lower triangle within a row: where it starts, and how many rows it has. Its product with itself turned over is what a joint gives. */
export interface Triangle {
  at: number;
  size: number;
}

/** Where row i of a triangle starts, from its beginning. */
const startOf = (i: number): number => (i * (i + 1)) / 2;

/** Length of row i of a triangle: the root of what the joint gives in that direction. */
const lengthOf = (row: Row, { at }: Triangle, i: number): number =>
  Math.hypot(...row.slice(at + startOf(i), at + startOf(i + 1)));

/** A row whose triangles' rows are each so many times as long, and the rest that of another. */
function stretched(
  row: Row,
  rest: Row,
  triangles: readonly Triangle[],
  by: (triangle: Triangle, i: number) => number,
): Row {
  const out = [...rest];
  for (const triangle of triangles)
    for (let i = 0; i < triangle.size; i++) {
      const times = by(triangle, i);
      const first = triangle.at + startOf(i);
      for (let at = first; at <= first + i; at++) out[at] = (row[at] ?? 0) * times;
    }
  return out;
}

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

/**
 * A row with what makes `to` of `from`: its triangles in proportion, direction by direction, and the rest by the plain difference. For a joint
 * that gives by another measure than those two.
 * @param by how much of the difference is taken, of each number that is in no triangle: 0 to 1.
 */
export function inProportion(
  row: Row,
  from: Row,
  to: Row,
  by: (at: number) => number,
  triangles: readonly Triangle[],
): Row {
  const rest = row.map((v, at) => v + by(at) * ((to[at] ?? 0) - (from[at] ?? 0)));
  return stretched(row, rest, triangles, (of, i) => lengthOf(to, of, i) / lengthOf(from, of, i));
}

/**
 * What was found at one place of a table, carried to another: its triangles in proportion to how the table's own row goes on from there, direction by
 * direction, and the rest by the plain difference.
 * @param own the table's row where it is carried to. @param there the same where it was found. @param found what was found there instead of that.
 */
export function carriedOn(own: Row, there: Row, found: Row, triangles: readonly Triangle[]): Row {
  const out = own.map((v, at) => v + (found[at] ?? 0) - (there[at] ?? 0));
  for (const of of triangles)
    for (let i = 0; i < of.size; i++) {
      const first = of.at + startOf(i);
      const last = first + i;
      const times = lengthOf(own, of, i) / lengthOf(there, of, i);
      for (let at = first; at < last; at++) out[at] = (own[at] ?? 0) + times * ((found[at] ?? 0) - (there[at] ?? 0));
      out[last] = ((own[last] ?? 0) * (found[last] ?? 0)) / (there[last] ?? 1);
    }
  return out;
}

/**
 * A row between two knots and beyond them: beyond, what the joint gives goes on by the power that joins the knots, as walls give by a power of their
 * thickness, and the rest by the logarithm. What its directions have to do with each other stays that of the nearer knot.
 * @param knots two places, each with its row. @param x where, more than nought.
 */
export function onward(
  [[a, first], [b, last]]: readonly [readonly [number, Row], readonly [number, Row]],
  x: number,
  triangles: readonly Triangle[],
): Row {
  const share = Math.log(x / a) / Math.log(b / a);
  const near = Math.min(1, Math.max(0, share));
  const at = (s: number): Row => first.map((v, i) => v + s * ((last[i] ?? 0) - v));
  return stretched(
    at(near),
    at(share),
    triangles,
    (of, i) => (lengthOf(last, of, i) / lengthOf(first, of, i)) ** (share - near),
  );
}
