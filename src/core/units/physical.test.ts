import { describe, expect, it } from "vitest";
import { asKept, asShown, inField, type Kind, physical, unitOf } from "./physical";
import { readSlant, slantMmPerM } from "./slant";

const KINDS: readonly Kind[] = ["slope", "speed", "heat", "mass", "area", "warmth", "force"];

describe("quantities in two systems", () => {
  it("are converted by the exact factors (NIST SP 811, appendix B; from memory)", () => {
    expect(asShown("mass", 1, "inch-fraction")).toBeCloseTo(2.2046226, 6);
    expect(asShown("area", 1, "inch-fraction")).toBeCloseTo(10.76391, 6);
    expect(asShown("speed", 5, "inch-decimal")).toBeCloseTo(11.811, 3);
    expect(asShown("heat", 1000, "inch-fraction")).toBeCloseTo(25.4, 9);
    expect(asShown("warmth", 40, "inch-fraction")).toBeCloseTo(72, 9);
    expect(asShown("force", 1, "inch-fraction")).toBeCloseTo(224.8089, 3);
    // 1 mm/m is 12 thou in a foot of 304.8 mm.
    expect(asShown("slope", 1, "inch-fraction")).toBeCloseTo((304.8 / 1000 / 25.4) * 1000, 9);
  });
  it("come back as they went", () => {
    for (const kind of KINDS)
      for (const units of ["mm", "inch-fraction", "inch-decimal"] as const)
        expect(asKept(kind, asShown(kind, 1.2345, units), units)).toBeCloseTo(1.2345, 12);
  });
  it("stand in a field as in words, and as they were typed where that says more", () => {
    expect(inField("speed", 5, "inch-decimal")).toBe(11.8);
    expect(inField("slope", 0.45, "inch-fraction")).toBe(5.4);
    for (const kind of KINDS)
      for (const typed of [7.25, 12.85, 118.5])
        expect(
          Math.abs(inField(kind, asKept(kind, typed, "inch-fraction"), "inch-fraction") / typed - 1),
          `${kind} ${typed}`,
        ).toBeLessThan(1.1e-3);
    expect(inField("speed", asKept("speed", 12.85, "inch-fraction"), "inch-fraction")).toBe(12.85);
  });
  it("carry one unit each, none of them metric in inches", () => {
    for (const kind of KINDS) {
      expect(unitOf(kind, "inch-fraction")).toBe(unitOf(kind, "inch-decimal"));
      expect(unitOf(kind, "inch-fraction")).not.toMatch(/mm|kg|m²|°C|kN/);
    }
    expect(physical("mass", 10.24, "mm")).toBe("10.2 kg");
    expect(physical("slope", 0.45, "inch-fraction")).toBe("5.4 thou/ft");
  });
  it("of slopes are read in either", () => {
    for (const [text, mmPerM] of [
      ["5.4 thou/ft", 0.45],
      ["0.006 in/ft", 0.5],
      ["1/8 in/ft", null],
    ] as const) {
      const read = readSlant(text, "mm/m");
      if (mmPerM === null) expect(read.ok).toBe(false);
      else expect(read.ok && slantMmPerM(read.value)).toBeCloseTo(mmPerM, 9);
    }
    const bare = readSlant("12", "thou/ft");
    expect(bare.ok && slantMmPerM(bare.value)).toBeCloseTo(1, 9);
  });
});
