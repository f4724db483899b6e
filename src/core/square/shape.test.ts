import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { distance } from "../numeric";
import { cornerAngleDeg, type Quad, rack, shearMmPerM, slides, squareDifferenceMm2 } from "./shape";

const leaning = (l: number, h: number, lean: number): Quad => ({
  A: { x: 0, y: 0 },
  B: { x: l, y: 0 },
  C: { x: l + lean, y: h },
  D: { x: lean, y: h },
});
const size = fc.integer({ min: 300, max: 3000 });

describe("the shape of a quadrilateral", () => {
  it("leaning by s over h has a shear of 1000 s/h, and AC2 - BD2 of 4 l s (closed form)", () => {
    fc.assert(
      fc.property(size, size, fc.double({ min: -20, max: 20, noNaN: true }), (l, h, lean) => {
        const q = leaning(l, h, lean);
        expect(shearMmPerM(q)).toBeCloseTo((1000 * lean) / h, 6);
        expect(squareDifferenceMm2(q)).toBeCloseTo(4 * l * lean, 3);
        expect(cornerAngleDeg(q, "A") + cornerAngleDeg(q, "B")).toBeCloseTo(180, 9);
      }),
    );
  });
  it("is put right by sliding CD back by its lean, or AB after it", () => {
    const q = leaning(1200, 800, 5);
    // Positive goes toward C: back is toward D.
    expect(slides(q).CD).toBeCloseTo(-5, 9);
    expect(slides(q).AB).toBeCloseTo(5, 9);
    expect(slides(leaning(1200, 800, 0), 4 * 1200 * 3).CD).toBeCloseTo(3, 9);
  });
  it("racked keeps its sides and has equal diagonals, whichever way it is lettered", () => {
    for (const q of [leaning(1200, 800, 9), leaning(900, 1500, -7)]) {
      const turned: Quad = { A: q.B, B: q.A, C: q.D, D: q.C };
      for (const one of [q, turned]) {
        const found = rack(one);
        const along = {
          x: (one.B.x - one.A.x) / distance(one.A, one.B),
          y: (one.B.y - one.A.y) / distance(one.A, one.B),
        };
        const away = one.D.y > 0 ? 1 : -1;
        if (!found) throw new Error("no rack");
        const move = (p: { x: number; y: number }, a: number, w: number) => ({
          x: p.x + a * along.x,
          y: p.y + a * along.y + away * w,
        });
        const after = {
          ...one,
          C: move(one.C, found.cAlongMm, found.cAwayMm),
          D: move(one.D, found.dAlongMm, found.dAwayMm),
        };
        expect(distance(after.A, after.C)).toBeCloseTo(found.diagonalsMm.AC, 3);
        expect(distance(after.B, after.D)).toBeCloseTo(found.diagonalsMm.BD, 3);
        expect(distance(after.B, after.C)).toBeCloseTo(distance(one.B, one.C), 3);
        expect(distance(after.C, after.D)).toBeCloseTo(distance(one.C, one.D), 3);
      }
    }
  });
});
