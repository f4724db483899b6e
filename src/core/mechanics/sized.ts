import { type SizedRoom, sizedRoom } from "./kernel/kernelRoom";

type Entries = { out: number; units: number; sizes: number };

/** Room without the kernel: the same, to the last digit. */
export function plainSizedRoom(entries: Entries): SizedRoom {
  const out = new Float64Array(entries.out);
  const units = new Float64Array(entries.units);
  const sizes = new Float64Array(entries.sizes);
  const add = (draws: number, outputs: number, sources: number): void => {
    for (let k = 0; k < sources; k++)
      for (let d = 0; d < draws; d++) {
        const by = sizes[k * draws + d];
        if (by === 0) continue;
        for (let o = 0, row = d * outputs, unit = k * outputs; o < outputs; o++)
          out[row + o] = out[row + o] + by * units[unit + o];
      }
  };
  return { out, units, sizes, add };
}

let shared: { room: SizedRoom; has: Entries } | null = null;

/** Room for at least so many entries, by the kernel where there is one; the same for all who ask, until they ask again. */
export function sizedRoomFor(entries: Entries): SizedRoom {
  const has = shared?.has;
  if (shared && has && has.out >= entries.out && has.units >= entries.units && has.sizes >= entries.sizes)
    return shared.room;
  const wider = {
    out: Math.max(entries.out, has?.out ?? 0),
    units: Math.max(2 * entries.units, has?.units ?? 0),
    sizes: Math.max(2 * entries.sizes, has?.sizes ?? 0),
  };
  shared = { room: sizedRoom(wider) ?? plainSizedRoom(wider), has: wider };
  return shared.room;
}
