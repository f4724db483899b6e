import { describe, expect, it } from "vitest";
import { normalDraw, seeded } from "./random";

describe("random numbers", () => {
  it("are the same for the same seed, and others for another", () => {
    const ten = (seed: number) => {
      const r = seeded(seed);
      return Array.from({ length: 10 }, () => r());
    };
    expect(ten(5)).toEqual(ten(5));
    expect(ten(5)).not.toEqual(ten(6));
    for (const v of ten(7)) {
      expect(v).toBeGreaterThanOrEqual(0);
      expect(v).toBeLessThan(1);
    }
  });
  it("of a normal have mean nought, spread one, and 4.55 % beyond two (normal distribution, tables)", () => {
    const r = seeded(11);
    const draws = Array.from({ length: 20_000 }, () => normalDraw(r));
    const mean = draws.reduce((s, v) => s + v, 0) / draws.length;
    const sd = Math.sqrt(draws.reduce((s, v) => s + (v - mean) ** 2, 0) / draws.length);
    expect(mean).toBeCloseTo(0, 1);
    expect(sd).toBeCloseTo(1, 1);
    expect(draws.filter((v) => Math.abs(v) > 2).length / draws.length).toBeCloseTo(0.0455, 2);
  });
});
