import { type HeldRows, heldArrays, heldKernel, heldLengths } from "./kernel/heldKernel";

/** Rows without the kernel: the same, to the last digit. */
export function plainRows(holders: number, draws: number): HeldRows {
  const rows = heldArrays(
    holders,
    heldLengths(holders, draws).map((length) => new Float64Array(length)),
  );
  const { held, pressed, limit, most, touchMm, forces, sizes, wrong, start, units, by, which, width } = rows;
  const isWrong = (d: number): boolean => {
    const row = d * width;
    for (let k = 0; k < limit.length; k++) if (Math.abs(held[row + k]) > limit[k] * most[d]) return true;
    const seams = d * (width - limit.length) - limit.length;
    for (let k = limit.length; k < width; k++) {
      const here = held[row + k];
      if (here > touchMm[d] || (here < -touchMm[d] && pressed[seams + k] > 0)) return true;
    }
    return false;
  };
  return {
    ...rows,
    bring: (sources) => {
      for (let d = 0, row = 0; d < draws; d++, row += width) {
        for (let s = 0; s < sources; s++) {
          const size = sizes[s * draws + d];
          for (let k = 0; k < width; k++) held[row + k] = held[row + k] + size * forces[s * width + k];
        }
        wrong[d] = Number(isWrong(d));
      }
    },
    give: (draw, count) => {
      const row = draw * width;
      for (let k = 0; k < width; k++) held[row + k] = start[k];
      for (let q = 0; q < count; q++) {
        const unit = which[q] * width;
        for (let k = 0; k < width; k++) held[row + k] = held[row + k] + by[q] * units[unit + k];
      }
      return isWrong(draw);
    },
  };
}

/** Rows that were given back: a memory is dear, and the next ones are as a rule of the same size. */
let free: HeldRows | null = null;

/** Rows for so many draws, by the kernel where it is worth its memory, to be filled in. They are the caller's until `giveRowsBack`. */
export function rowsFor(holders: number, draws: number): HeldRows {
  if (draws === 1) return plainRows(holders, draws);
  const known = free;
  free = null;
  if (known?.holders === holders && known.wrong.length === draws) return known;
  return heldKernel(holders, draws) ?? plainRows(holders, draws);
}

/** Gives rows back for whoever asks next. */
export function giveRowsBack(rows: HeldRows): void {
  if (rows.wrong.length > 1) free = rows;
}
