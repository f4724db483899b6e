/** A list of numbers, as they stand in a table. */
export type Row = readonly number[];

const mix = (a: Row, b: Row, share: number): Row => a.map((v, i) => v + share * ((b[i] ?? 0) - v));

export const plus = (a: Row, b: Row): Row => a.map((v, i) => v + (b[i] ?? 0));
export const minus = (a: Row, b: Row): Row => a.map((v, i) => v - (b[i] ?? 0));
export const times = (a: Row, by: number | Row): Row =>
  a.map((v, i) => v * (typeof by === "number" ? by : (by[i] ?? 1)));

/**
 * Piecewise linear between knots.
 * @param knots places in rising order, each with its row. @param x where; beyond the ends the end segments go on.
 */
function linear(knots: readonly (readonly [number, Row])[], x: number): Row {
  const [first, ...rest] = knots;
  if (!first) throw new RangeError("a table without knots");
  if (rest.length === 0) return first[1];
  let i = 0;
  while (i + 2 < knots.length && x > (knots[i + 1]?.[0] ?? Number.POSITIVE_INFINITY)) i++;
  const [a, b] = [knots[i], knots[i + 1]] as [readonly [number, Row], readonly [number, Row]];
  return mix(a[1], b[1], (x - a[0]) / (b[0] - a[0]));
}

const clamped = (x: number, from: number, to: number): number => Math.min(to, Math.max(from, x));

/** An axis of a table. Places outside the knots are brought to the nearest one, or up to `beyond` times the last. */
export interface Axis {
  scale: (x: number) => number;
  beyond?: number;
}
export const LINEAR: Axis = { scale: (x) => x };
export const LOG: Axis = { scale: Math.log };
/** Slenderness goes on a third beyond what was worked out. */
export const SLENDER: Axis = { scale: Math.log, beyond: 1.35 };

/** The row at x between rows at given places. @param rows places and rows, in any order. */
export function between(rows: readonly (readonly [number, Row])[], x: number, axis: Axis): Row {
  const knots = [...rows].sort((a, b) => a[0] - b[0]);
  const first = knots[0]?.[0] ?? 0;
  const last = (knots.at(-1)?.[0] ?? 0) * (axis.beyond ?? 1);
  return linear(
    knots.map(([at, row]) => [axis.scale(at), row]),
    axis.scale(clamped(x, first, last)),
  );
}

/** A tack or a strip within two hundredths of the table's own is the table's own: inch sizes beside their metric ones. */
export const isNear = (x: number, own: number): boolean => Math.abs(x / own - 1) < 0.02;

/** @returns x brought into a range. */
export const within = clamped;
