import { describe, expect, it } from "vitest";
import { assembledHex } from "../../../script/lib/kernel";
import { seeded } from "../numeric";
import { kernelRoom } from "./kernel/kernelRoom";
import { LOWER_SIX_HEX } from "./kernel/lowerSixBytes";
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
  it("ships the kernel that its text says", async () => {
    expect(LOWER_SIX_HEX).toBe(await assembledHex());
  });

  it.each([60, 61, 96, 143])("is the same by the kernel and the plain way, to the last digit: size %i", (n) => {
    const random = seeded(n);
    const start = matrix(n, random);
    const room = kernelRoom(n);
    expect(room).not.toBeNull();
    const [wide, plain] = [new PackedSymmetric(n, start, room), new PackedSymmetric(n, start, null)];
    const [w1, w2] = [new Float64Array(12 * n), new Float64Array(12 * n)];
    for (const c of [0, n - 6, 7, 7]) {
      const d = matrix(6, random);
      wide.update(c, 6, d, w1, 6 * n);
      plain.update(c, 6, d, w2, 6 * n);
    }
    expect(wide.half()).toEqual(plain.half());
    expect(w1).toEqual(w2);
    expect(plain.half()).not.toEqual(new PackedSymmetric(n, start, null).half());
  });

  it("says that there is no kernel for what is small", () => {
    expect(kernelRoom(24)).toBeNull();
  });
});
