import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { bareUnit, readLength, UNIT_PREFERENCES, type UnitPreference } from "@/core/units";
import { keysFor, markMm, pressed, stepped } from "./keys";

const type = (keys: string[]): string => keys.reduce(pressed, "");
const read = (text: string, units: UnitPreference): number => {
  const found = readLength(text, bareUnit(units));
  if (!found.ok) throw new Error(`${text}: ${found.message}`);
  return found.value.mm;
};

describe("the keys of the pad", () => {
  it("type what a reading of their units is", () => {
    expect(read(type(["1", "2", "0", "0", ",", "5"]), "mm")).toBe(1200.5);
    expect(read(type(["4", "7", "1/4"]), "inch-fraction")).toBeCloseTo(47.25 * 25.4, 9);
    expect(read(type(["4", "7", "space", "space", "3", "/", "1", "6"]), "inch-fraction")).toBeCloseTo(
      (47 + 3 / 16) * 25.4,
      9,
    );
    expect(read(type(["3", "'", "1", "1", "1/4"]), "inch-fraction")).toBeCloseTo(47.25 * 25.4, 9);
    expect(read(type(["-", "1/8"]), "inch-fraction")).toBeCloseTo(-25.4 / 8, 9);
    expect(read(type(["4", "7", "1/16"]), "inch-fraction")).toBeCloseTo((47 + 1 / 16) * 25.4, 9);
    expect(read(type(["4", "7", ".", "2"]), "inch-decimal")).toBeCloseTo(47.2 * 25.4, 9);
    for (const units of UNIT_PREFERENCES) {
      const keys = keysFor(units, false).flat();
      expect(new Set(keys).size).toBe(keys.length);
      for (const digit of "0123456789") expect(keys).toContain(digit);
    }
  });
  it("step to the next mark of the instrument, there and back, whatever stands in the field", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -4000, max: 400_000 }),
        fc.constantFrom(0.02, 0.1, 0.5, 1),
        fc.constantFrom(...UNIT_PREFERENCES),
        (tenths, step, units) => {
          const stepMm = markMm(step, units);
          const from = tenths / 10;
          const up = read(stepped(from, stepMm, 1, units), units);
          const down = read(stepped(from, stepMm, -1, units), units);
          const shown = units === "inch-decimal" ? 0.002 : 1e-6;
          expect(up - from).toBeGreaterThan(-shown);
          expect(up - from).toBeLessThanOrEqual(1.06 * stepMm + shown);
          expect(from - down).toBeGreaterThan(-shown);
          expect(from - down).toBeLessThanOrEqual(1.06 * stepMm + shown);
          // On a mark, one step is one mark.
          expect(read(stepped(up, stepMm, -1, units), units)).toBeCloseTo(
            up - stepMm,
            units === "inch-decimal" ? 1 : 5,
          );
        },
      ),
    );
  });
});
