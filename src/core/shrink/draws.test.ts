import { describe, expect, it } from "vitest";
import { FACTORS } from "../weld";
import { drawsOf } from "./draws";

describe("draws", () => {
  it("are the same every time, begin with the nominal one, and have half above it", () => {
    const [one, two] = [drawsOf(FACTORS, 64, 7), drawsOf(FACTORS, 64, 7)];
    const heat = one.shared(["transverse"]);
    expect([...heat]).toEqual([...two.shared(["transverse"])]);
    expect(heat[0]).toBe(1);
    const above = heat.filter((v) => v > 1).length;
    expect(above).toBeGreaterThan(16);
    expect(above).toBeLessThan(48);
    expect(heat.every((v) => v > 0)).toBe(true);
  });
  it("scatter as they are said to: lognormal with the stated variation", () => {
    const logs = [...drawsOf(FACTORS, 4000, 3).shared(["transverse"])].slice(1).map(Math.log);
    const mean = logs.reduce((s, v) => s + v, 0) / logs.length;
    const sd = Math.sqrt(logs.reduce((s, v) => s + (v - mean) ** 2, 0) / (logs.length - 1));
    expect(mean).toBeCloseTo(0, 1);
    expect(sd).toBeCloseTo(Math.sqrt(Math.log(1 + FACTORS.transverse.cv ** 2)), 2);
  });
  it("differ from bead to bead and go with nothing but the bead's name", () => {
    const draws = drawsOf(FACTORS, 64, 7);
    expect([...draws.bead("a", 0)]).not.toEqual([...draws.bead("b", 0)]);
    expect([...draws.bead("a", 0)]).toEqual([...drawsOf(FACTORS, 64, 7).bead("a", 0)]);
  });
});
