import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Instrument, readingUncertainty } from "../instruments";
import { readSlant, slantMmPerM } from "./slant";
import { slantSchema } from "./slantSchema";

describe("a slope or an angle as it is typed", () => {
  it("is read in the unit that is said, or in the bare one", () => {
    const read = (text: string, bare: "mm/m" | "deg" | "%" = "mm/m") => {
      const found = readSlant(text, bare);
      return found.ok ? [found.value.value, found.value.slant] : found.message;
    };
    expect(read("0.4")).toEqual([0.4, "mm/m"]);
    expect(read("-0,4 mm/m")).toEqual([-0.4, "mm/m"]);
    expect(read("−0.4")).toEqual([-0.4, "mm/m"]);
    expect(read("0.1°")).toEqual([0.1, "deg"]);
    expect(read("90.05", "deg")).toEqual([90.05, "deg"]);
    expect(read("2 %")).toEqual([2, "%"]);
    for (const bad of ["", "steep", "1 2", "0.4 mm", "1e9", "--3"])
      expect(read(bad), bad).toMatch(/Cannot read|no slope/);
    expect(read("180", "deg")).toMatch(/no slope or angle/);
  });
  it("says of itself what the schema takes", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -900, max: 900, noNaN: true }),
        fc.constantFrom("mm/m" as const, "%" as const),
        (x, unit) => {
          const read = readSlant(x.toFixed(3), unit);
          expect(read.ok && slantSchema.safeParse(read.value).success).toBe(true);
          if (read.ok)
            expect(slantSchema.safeParse({ ...read.value, value: read.value.value + 1 }).success).toBe(false);
        },
      ),
    );
  });
  it("comes to the same over a metre, whatever its unit", () => {
    expect(slantMmPerM({ value: 0.1, slant: "deg" })).toBeCloseTo(1.745, 3);
    expect(slantMmPerM({ value: 0.01, slant: "deg" })).toBeCloseTo(0.1745, 4);
    expect(slantMmPerM({ value: 1, slant: "%" })).toBe(10);
  });
});

describe("what a line is read to", () => {
  const tape: Instrument = {
    id: "t",
    name: "t",
    kind: "tape",
    resolutionMm: 0.5,
    handlingMm: 0.2,
    zeroMm: 0,
    scaleMmPerM: 0,
  };
  it("counts at both ends of a tape: a thick marker line far more than a scribed one", () => {
    const u = (readTo: NonNullable<Instrument["readTo"]>): number => readingUncertainty({ ...tape, readTo }).uMm;
    expect(u("scribe line")).toBeGreaterThan(u("edge"));
    expect(u("marker line")).toBeGreaterThan(1.5 * u("scribe line"));
    // 0.5 mm either way at both ends: sqrt(2) 0.5 / sqrt(3).
    expect(Math.sqrt(u("marker line") ** 2 - u("edge") ** 2)).toBeCloseTo((Math.SQRT2 * 0.5) / Math.sqrt(3), 9);
  });
});
