import { describe, expect, it } from "vitest";
import { good } from "../../../tests/support/corner";
import type { RingState } from "./jointKind";
import { beadBirth, lineOffset, ringStiffness, tackBirth } from "./ring";
import { weldedModel } from "./weldedModel";

const rings = weldedModel(good).joints.map((j) => ({ id: j.id, ring: j.ring }));
const STATES: RingState[] = [
  [0, 0, 0, 0],
  [10, 0, 0, 0],
  [10, 10, 0, 0],
  ["welded", 10, 0, 0],
  ["welded", "welded", 10, 10],
  ["welded", "welded", "welded", "welded"],
];

describe("the ring of a joint", () => {
  it("is symmetric, takes work whichever way it moves, and takes more with every line that holds", () => {
    const ways = [
      [1, 0, 0, 0, 0, 0],
      [0, 1, 0, 0.01, 0, 0],
      [0, 0, 1, 0, 0.01, 0.02],
      [0.3, -0.2, 0.1, 0.01, 0.02, -0.01],
    ];
    for (const { id, ring } of rings) {
      let before = ways.map(() => 0);
      for (const state of STATES) {
        const { kj } = ringStiffness(ring, state);
        const work = ways.map((d) => {
          let sum = 0;
          for (let i = 0; i < 6; i++)
            for (let j = 0; j < 6; j++) {
              expect(kj[6 * i + j]).toBeCloseTo(kj[6 * j + i] ?? Number.NaN, 3);
              sum += (d[i] ?? 0) * (kj[6 * i + j] ?? 0) * (d[j] ?? 0);
            }
          return sum;
        });
        work.forEach((w, i) => {
          expect(w, `${id} ${state.join()}`).toBeGreaterThan(0);
          expect(w, `${id} ${state.join()}`).toBeGreaterThanOrEqual((before[i] ?? 0) * (1 - 1e-9));
        });
        before = work;
      }
    }
  });
  it("closes with a load along its normal, and holds no more than its line can yield", () => {
    for (const { ring } of rings)
      for (let line = 0; line < 4; line++) {
        const { g, k, yieldN, lengthMm } = beadBirth(ring, [0, 0, 0, 0], line, null);
        const along = ring.normal.reduce((s, n, i) => s + n * (g[i] ?? 0), 0);
        expect(along).toBeCloseTo(k, 6);
        expect(yieldN).toBeCloseTo(ring.yieldPerMm * lengthMm, 9);
        expect(lengthMm).toBeCloseTo(2 * (line < 2 ? ring.half2Mm : ring.half1Mm), 9);
        const tack = tackBirth(ring, line, 10);
        expect(tack.yieldN).toBeCloseTo(10 * ring.yieldPerMm, 9);
        expect(lineOffset(ring, line).some((v) => v !== 0)).toBe(true);
      }
  });
  it("closes less at a corner of the tube that another line holds already", () => {
    const [mitre] = rings;
    if (!mitre) throw new Error("no joint");
    const free = beadBirth(mitre.ring, [0, 0, 0, 0], 2, null);
    const held = beadBirth(mitre.ring, ["welded", 0, 0, 0], 2, null);
    expect(held.k).toBeLessThan(free.k);
  });
});
