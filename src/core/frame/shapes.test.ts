import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { shapeProperties } from "./shapes";

describe("properties of a section (closed forms)", () => {
  it("of a flat are b h, b h3/12 and h b3/12; of a bar those of a circle", () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 100 }), fc.integer({ min: 3, max: 100 }), (b, h) => {
        const flat = shapeProperties({ shape: "flat", widthMm: b, heightMm: h });
        expect(flat.areaMm2).toBeCloseTo(b * h, 9);
        expect(flat.iyMm4 / ((b * h ** 3) / 12)).toBeCloseTo(1, 9);
        expect(flat.izMm4 / ((h * b ** 3) / 12)).toBeCloseTo(1, 9);
        const bar = shapeProperties({ shape: "bar", diameterMm: b });
        expect(bar.iyMm4 / ((Math.PI * b ** 4) / 64)).toBeCloseTo(1, 9);
        expect(bar.jMm4 / ((Math.PI * b ** 4) / 32)).toBeCloseTo(1, 9);
      }),
    );
  });
  it("of a round tube are those of two circles, torsion twice its bending", () => {
    const p = shapeProperties({ shape: "round tube", diameterMm: 60, wallMm: 3 });
    expect(p.areaMm2).toBeCloseTo((Math.PI / 4) * (60 ** 2 - 54 ** 2), 6);
    expect(p.iyMm4 / ((Math.PI / 64) * (60 ** 4 - 54 ** 4))).toBeCloseTo(1, 9);
    expect(p.jMm4 / (2 * p.iyMm4)).toBeCloseTo(1, 2);
  });
  it("of a closed tube twist far less than an open channel of the same sheet", () => {
    const tube = shapeProperties({ shape: "tube", widthMm: 50, heightMm: 50, wallMm: 3 });
    const channel = shapeProperties({ shape: "channel", widthMm: 50, heightMm: 50, wallMm: 3 });
    expect(tube.jMm4).toBeGreaterThan(100 * channel.jMm4);
  });
});
