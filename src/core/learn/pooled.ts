import type { Rows } from "../numeric";
import type { Belief } from "./learn";

/** Where a factor is the same: a process on a class of walls. */
export interface Cell {
  process: string;
  wall: string;
  /** Left out where all are of one metal. */
  metal?: string;
}

/** Share of a factor's table variance that a shop has in common, a process besides, a wall class besides. Source: own judgement. */
export const POOLING = { shop: 0.6, process: 0.2, wall: 0.2 } as const;

/** What one metal says of another, as a share of what it says of itself. Source: own judgement. */
const OTHER_METAL = 0.5;

/** How much what one cell taught says of another, 0 to 1. */
export const incommon = (a: Cell, b: Cell): number =>
  (POOLING.shop + (a.process === b.process ? POOLING.process + (a.wall === b.wall ? POOLING.wall : 0) : 0)) *
  (a.metal === b.metal ? 1 : OTHER_METAL);

/** Name of a factor in a cell. */
export const inCell = ({ process, wall, metal }: Cell, factor: string): string =>
  `${process} ${wall}${metal ? ` ${metal}` : ""}/${factor}`;

/**
 * What is believed before anything was learned, of every factor in every cell: partly the shop's, partly the process's, partly its own.
 * @param sds standard deviation of each factor's logarithm.
 */
export function pooledBelief(cells: readonly Cell[], sds: Readonly<Record<string, number>>): Belief {
  const all = cells.flatMap((cell) => Object.entries(sds).map(([factor, sd]) => ({ cell, factor, sd })));
  const cov: Rows = all.map((a) =>
    all.map((b) => (a.factor === b.factor ? a.sd * b.sd * incommon(a.cell, b.cell) : 0)),
  );
  return { names: all.map((a) => inCell(a.cell, a.factor)), mean: all.map(() => 0), cov };
}

/** Days until what was learned counts for a third: e-folding time. Source: own judgement. */
const FORGOTTEN_DAYS = 730;

/**
 * What is left of what was learned after so many days: it drifts back to what was believed before anything was.
 * Source: Ornstein and Uhlenbeck (1930), from memory.
 */
export function forget(now: Belief, before: Belief, days: number): Belief {
  const f = Math.exp(-Math.max(0, days) / FORGOTTEN_DAYS);
  return {
    names: now.names,
    mean: now.mean.map((v, i) => before.mean[i] + f * (v - before.mean[i])),
    cov: now.cov.map((row, i) => row.map((v, j) => f * f * v + (1 - f * f) * before.cov[i][j])),
  };
}
