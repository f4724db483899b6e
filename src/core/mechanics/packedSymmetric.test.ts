import { describe, expect, it } from "vitest";
import { assembledHex } from "../../../script/lib/kernel";
import { seeded } from "../numeric";
import { FLEXIBILITY_HEX } from "./kernel/flexibilityBytes";
import { HELD_HEX } from "./kernel/heldBytes";
import { kernelRoom } from "./kernel/kernelRoom";
import { QUASI_DEFINITE_HEX } from "./kernel/quasiDefiniteBytes";
import { SIZED_HEX } from "./kernel/sizedBytes";
import { PackedSymmetric } from "./packedSymmetric";

/** A symmetric matrix with a heavy diagonal. */
function matrix(n: number, random: () => number): Float64Array {
  const s = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      const v = i === j ? n + random() : random() - 0.5;
      s[i * n + j] = v;
      s[j * n + i] = v;
    }
  return s;
}

describe("a symmetric matrix under updates", () => {
  it("ships the kernels that their texts say", async () => {
    expect(FLEXIBILITY_HEX).toBe(await assembledHex("flexibility"));
    expect(HELD_HEX).toBe(await assembledHex("held"));
    expect(QUASI_DEFINITE_HEX).toBe(await assembledHex("quasiDefinite"));
    expect(SIZED_HEX).toBe(await assembledHex("sized"));
  });

  it.each([60, 61, 96, 143])("is the same by the kernel and the plain way, to the last digit: size %i", (n) => {
    const random = seeded(n);
    const start = matrix(n, random);
    const room = kernelRoom(n);
    expect(room).not.toBeNull();
    const [wide, plain] = [new PackedSymmetric(n, start, room), new PackedSymmetric(n, start, null)];
    for (const c of [0, n - 6, 7, 7]) {
      const d = matrix(6, random);
      wide.update(c, 6, d);
      plain.update(c, 6, d);
    }
    expect(wide.half()).toEqual(plain.half());
    const q = Float64Array.from({ length: 8 }, random);
    const h = Float64Array.from({ length: n }, random);
    for (const c of [0, 12, n - (n % 2) - 6]) {
      const [by, other] = [new Float64Array(n), new Float64Array(n)];
      wide.reach(c, q, 2, by);
      plain.reach(c, q, 2, other);
      expect(by).toEqual(other);
      const added = new Float64Array(n);
      plain.addSix(c, q, added, 2);
      added.forEach((v, i) => {
        expect(v).toBeCloseTo(other[i] as number, 9);
      });
    }
    const [by, other] = [Float64Array.from(h), Float64Array.from(h)];
    wide.addTimes(h, 6, q.slice(0, 6), by);
    plain.addTimes(h, 6, q.slice(0, 6), other);
    expect(by).toEqual(other);
    for (const i of [0, 17, n - 1]) {
      const one = new Float64Array(n);
      plain.addTimes(h, 0, new Float64Array(6), one);
      expect(wide.rowTimes(i, h)).toBeCloseTo(one[i] as number, 9);
    }
    expect(plain.half()).not.toEqual(new PackedSymmetric(n, start, null).half());
  });

  it("says that there is no kernel for what is small", () => {
    expect(kernelRoom(24)).toBeNull();
  });
});
