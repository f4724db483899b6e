import { describe, expect, it } from "vitest";
import { seeded } from "../numeric";
import { sizedRoom } from "./kernel/kernelRoom";
import { plainSizedRoom, sizedRoomFor } from "./sized";

describe("what many sources do in many draws", () => {
  it.each([
    [1, 1, 1],
    [3, 7, 2],
    [5, 8, 9],
    [64, 43, 30],
  ])(
    "is the product of their sizes and units, by the kernel and without: %i draws, %i outputs, %i sources",
    (draws, outputs, sources) => {
      const random = seeded(draws + outputs);
      const drawn = (n: number) => Float64Array.from({ length: n }, () => random() - 0.5);
      const [out, units, sizes] = [drawn(draws * outputs), drawn(sources * outputs), drawn(sources * draws)];
      sizes[0] = 0;
      const entries = { out: out.length, units: units.length, sizes: sizes.length };
      const kernel = sizedRoom(entries);
      expect(kernel).not.toBeNull();
      const [by, plain] = [kernel, plainSizedRoom(entries)].map((room) => {
        room?.out.set(out);
        room?.units.set(units);
        room?.sizes.set(sizes);
        room?.add(draws, outputs, sources);
        return room?.out.slice();
      });
      expect(by).toEqual(plain);
      for (let d = 0; d < draws; d++)
        for (let o = 0; o < outputs; o++) {
          let sum = out[d * outputs + o] as number;
          for (let k = 0; k < sources; k++)
            sum += (sizes[k * draws + d] as number) * (units[k * outputs + o] as number);
          expect(plain?.[d * outputs + o]).toBeCloseTo(sum, 12);
        }
    },
  );

  it("finds room for more, and keeps what it has", () => {
    const room = sizedRoomFor({ out: 10, units: 10, sizes: 10 });
    expect(room.out.length).toBeGreaterThanOrEqual(10);
    expect(sizedRoomFor({ out: 5, units: 5, sizes: 5 })).toBe(room);
    expect(sizedRoomFor({ out: 1e5, units: 10, sizes: 10 }).out.length).toBeGreaterThanOrEqual(1e5);
  });
});
