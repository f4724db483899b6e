import { type ProductRoom, productKernel } from "./kernel/kernelRoom";

/** Room without the kernel: the same, to the last digit. */
export function plainProducts(lengths: readonly number[]): ProductRoom {
  const arrays = lengths.map((length) => new Float64Array(length));
  const add: ProductRoom["add"] = (into, rows, columns, by, sized, sources) => {
    const [out, units, sizes] = [arrays[into], arrays[by], arrays[sized]];
    for (let k = 0; k < sources; k++)
      for (let d = 0; d < rows; d++) {
        const size = sizes[k * rows + d];
        if (size === 0) continue;
        for (let o = 0, row = d * columns, unit = k * columns; o < columns; o++)
          out[row + o] = out[row + o] + size * units[unit + o];
      }
  };
  return { arrays, add };
}

/** Room that was given back: a memory is dear, and the next one is as a rule of the same size. */
let free: ProductRoom | null = null;

/** Room with arrays of at least so many entries, by the kernel where there is one. It is the caller's until `giveBack`. */
export function productsFor(lengths: readonly number[]): ProductRoom {
  const known = free;
  free = null;
  if (known && lengths.every((length, i) => (known.arrays[i]?.length ?? 0) >= length)) return known;
  // So that a frame that grows by a member does not ask anew each time.
  const wider = lengths.map((length, i) => Math.max(Math.ceil(1.25 * length), known?.arrays[i]?.length ?? 0));
  return productKernel(wider) ?? plainProducts(wider);
}

/** Gives room back for whoever asks next. */
export function giveBack(room: ProductRoom): void {
  free = room;
}
