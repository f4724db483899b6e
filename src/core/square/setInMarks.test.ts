import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { SPANS } from "../geometry";
import { leanShare, nearerBy } from "./setInMarks";
import type { Quad } from "./shape";

const rectangle = (L: number, H: number): Quad => ({
  A: { x: 0, y: 0 },
  B: { x: L, y: 0 },
  C: { x: L, y: H },
  D: { x: 0, y: H },
});

describe("marks set in from the corners", () => {
  it("lie on the smaller rectangle inside a rectangle (closed form)", () => {
    const sizes = fc.record({ L: fc.integer({ min: 300, max: 5000 }), H: fc.integer({ min: 300, max: 3000 }) });
    fc.assert(
      fc.property(sizes, fc.integer({ min: 0, max: 100 }), ({ L, H }, s) => {
        const q = rectangle(L, H);
        expect(nearerBy(q, "AB", s)).toBeCloseTo(2 * s, 9);
        expect(nearerBy(q, "DA", s)).toBeCloseTo(2 * s, 9);
        expect(nearerBy(q, "AC", s)).toBeCloseTo(Math.hypot(L, H) - Math.hypot(L - 2 * s, H - 2 * s), 9);
      }),
    );
  });
  it("keep as far from both edges where corners lean, and say less of the lean by what the inner frame is smaller", () => {
    const q = rectangle(760, 560);
    const inner = Math.hypot(730, 530);
    expect(leanShare(q, "AC", 15)).toBeCloseTo((760 * 560) / Math.hypot(760, 560) / ((730 * 530) / inner), 4);
    expect(leanShare(q, "AB", 15)).toBe(1);
    const leant: Quad = { ...q, C: { x: 790, y: 560 }, D: { x: 30, y: 560 } };
    // Two strips of that width cut the corners off: the side between the marks is what is left of a slanted side.
    const slant = Math.hypot(30, 560) / 560;
    for (const span of SPANS) expect(nearerBy(leant, span, 0)).toBeCloseTo(0, 12);
    expect(nearerBy(leant, "BC", 15)).toBeCloseTo(2 * 15 * slant, 9);
    expect(nearerBy(leant, "AB", 15)).toBeCloseTo(2 * 15 * slant, 9);
  });
});
