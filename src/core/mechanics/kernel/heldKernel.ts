import { LINES, SEAMS, widthOf } from "../heldState";
import { HELD_HEX } from "./heldBytes";
import { laid, started, total } from "./kernelRoom";

/** What a row of draws is worked on with. */
export interface HeldArrays {
  holders: number;
  /** Entries of a draw's row. */
  width: number;
  /** What lines hold and seams overlap by, and what seams press with: a row of each per draw. */
  held: Float64Array;
  pressed: Float64Array;
  /** Force at which each line of a row yields, N, and what each draw takes it times. */
  limit: Float64Array;
  most: Float64Array;
  /** By how much a seam may be off in each draw, mm. */
  touchMm: Float64Array;
  forces: Float64Array;
  sizes: Float64Array;
  wrong: Float64Array;
  /** A draw's row before anything gives. */
  start: Float64Array;
  units: Float64Array;
  by: Float64Array;
  which: Int32Array;
}

/** Sources that are brought at once. */
export const SOURCES_AT_ONCE = 6;
/** Units that there is room for; with one draw alone they are not asked for. */
export const MOST_UNITS = 128;

/** Lengths of what `heldArrays` makes arrays of. */
export function heldLengths(holders: number, draws: number): number[] {
  const width = widthOf(holders);
  return [
    width * draws,
    SEAMS * holders * draws,
    LINES * holders,
    draws,
    draws,
    SOURCES_AT_ONCE * width,
    SOURCES_AT_ONCE * draws,
    draws,
    width,
    draws > 1 ? MOST_UNITS * width : 0,
    width,
    width,
  ];
}

/** Arrays of those lengths by their names. */
export function heldArrays(holders: number, arrays: readonly Float64Array[]): HeldArrays {
  const [held, pressed, limit, most, touchMm, forces, sizes, wrong, start, units, by, last] = arrays;
  const which = new Int32Array(last.buffer, last.byteOffset, last.length);
  const width = widthOf(holders);
  return { holders, width, held, pressed, limit, most, touchMm, forces, sizes, wrong, start, units, by, which };
}

/** Rows of draws, and what is done to all or one of them. */
export interface HeldRows extends HeldArrays {
  /**
   * Adds what sources bring to every draw: `forces`, a row per source, by `sizes`, a row of draws per source. `wrong` takes whether
   * something is wrong with a draw then: a line over its limit, a seam that overlaps, or presses and came off.
   */
  bring: (sources: number) => void;
  /**
   * Makes a draw's row what it was at its start, with so many units added: `which` of them, `by` how much.
   * @returns whether something is wrong with it then.
   */
  give: (draw: number, count: number) => boolean;
}

type Places = (...places: number[]) => number;

/** @returns null where this machine has no such kernel. */
export function heldKernel(holders: number, draws: number): HeldRows | null {
  const lengths = heldLengths(holders, draws);
  const kernel = started(HELD_HEX, total(lengths));
  if (!kernel) return null;
  const bring = kernel.exports.bring as Places;
  const give = kernel.exports.give as Places;
  const { arrays, starts } = laid(kernel.buffer, lengths);
  const rows = heldArrays(holders, arrays);
  const [held, pressed, limit, most, touch, forces, sizes, wrong, start, units, by, which] = starts;
  const row = 8 * rows.width;
  const lines = 8 * rows.limit.length;
  return {
    ...rows,
    bring: (sources) => void bring(held, draws, row, lines, forces, sizes, sources, limit, most, touch, pressed, wrong),
    give: (draw, count) =>
      give(
        held + draw * row,
        row,
        lines,
        start,
        units,
        which,
        by,
        count,
        limit,
        rows.most[draw],
        rows.touchMm[draw],
        pressed + draw * (row - lines),
      ) === 1,
  };
}
