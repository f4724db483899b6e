import { describe, expect, it } from "vitest";
import { seeded } from "../numeric";
import { productKernel } from "./kernel/kernelRoom";
import { giveBack, plainProducts, productsFor } from "./products";

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
      const filled = [drawn(draws * outputs), drawn(sources * outputs), drawn(sources * draws)] as const;
      const [out, units, sizes] = filled;
      sizes[0] = 0;
      const lengths = filled.map((a) => a.length);
      const kernel = productKernel(lengths);
      expect(kernel).not.toBeNull();
      const [by, plain] = [kernel, plainProducts(lengths)].map((room) => {
        filled.forEach((values, i) => {
          room?.arrays[i]?.set(values);
        });
        room?.add(0, draws, outputs, 1, 2, sources);
        return room?.arrays[0]?.slice();
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

  it("adds to any of its arrays, from any two others", () => {
    for (const room of [productKernel([2, 2, 1, 4]), plainProducts([2, 2, 1, 4])]) {
      room?.arrays[1]?.set([1, 2]);
      room?.arrays[2]?.set([10]);
      room?.arrays[3]?.set([1, 1, 1, 1]);
      room?.add(3, 1, 2, 1, 2, 1);
      expect([...(room?.arrays[3] ?? [])]).toEqual([11, 21, 1, 1]);
      expect([...(room?.arrays[0] ?? [])]).toEqual([0, 0]);
    }
  });

  it("is used again once it was given back, and never by two at once", () => {
    const room = productsFor([10, 10, 10]);
    const other = productsFor([10, 10, 10]);
    expect(other).not.toBe(room);
    giveBack(room);
    expect(productsFor([5, 12, 5])).toBe(room);
    giveBack(room);
    expect(productsFor([1e5, 10, 10]).arrays[0]?.length).toBeGreaterThanOrEqual(1e5);
  });
});
