import { describe, expect, it } from "vitest";
import { halfRule } from "./halfRule";
import { slides } from "./shape";

describe("half the difference of the diagonals", () => {
  it("leaves 1 - L/D of the error: 29 % on a square, next to nothing along a thin frame (closed form)", () => {
    expect(halfRule(1000, 1000, 4).leaves).toBeCloseTo(1 - Math.SQRT1_2, 12);
    expect(halfRule(4000, 300, 4).leaves).toBeLessThan(0.003);
    expect(halfRule(300, 4000, 4).leaves).toBeGreaterThan(0.9);
  });
  it("agrees with the exact slide of a frame that leans so far", () => {
    const lean = 3;
    const [l, h] = [1200, 800];
    const q = { A: { x: 0, y: 0 }, B: { x: l, y: 0 }, C: { x: l + lean, y: h }, D: { x: lean, y: h } };
    const apart = Math.hypot(l + lean, h) - Math.hypot(l - lean, h);
    expect(halfRule(l, h, apart).exactMm).toBeCloseTo(Math.abs(slides(q).CD), 3);
  });
});
