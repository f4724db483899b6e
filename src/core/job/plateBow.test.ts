import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { bentPlate } from "../fixture";
import { length } from "../units";
import { newPlan, planProblems } from "./plan";
import { type Plan, planSchema } from "./planSchema";
import { PLATES, plateBow, plateBowWords } from "./plateBow";

const base = newPlan("x", "mm");
const plates = (trials: [shim: number, left: number][] = [], thickness = "3.2"): Plan => ({
  ...base,
  fixture: {
    plates: { material: "stainless 304", thickness: length(thickness), width: length("304"), length: length("508") },
    trials: trials.map(([shim, left], i) => ({
      id: `T${i + 1}`,
      member: PLATES,
      shim: length(String(shim)),
      left: length(String(left)),
    })),
  },
});

describe("two plates over a shim", () => {
  it("want one welded free before anything is said, then a shim with its range", () => {
    expect(planSchema.safeParse(plates([[0, -11]])).success).toBe(true);
    expect(plateBow(base)).toBeNull();
    expect(plateBow(plates())?.next).toBeNull();
    const found = plateBow(plates([[0, -11]]));
    expect(found?.freeMm).toBe(11);
    expect(found?.next?.mm).toBeGreaterThan(11);
    expect(found?.next?.lowMm).toBeLessThan(found?.next?.mm ?? 0);
    expect(found?.next?.highMm).toBeGreaterThan(found?.next?.mm ?? 0);
    expect(found && plateBowWords(found, "mm").join(" ")).toContain(`${found?.next?.mm.toFixed(1)}`);
  });
  it("come out within a millimetre at the third, whatever share really stays, where it stays the same share", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 0.9, noNaN: true }),
        fc.double({ min: 4, max: 15, noNaN: true }),
        (share, free) => {
          const weld = (shim: number): number => Math.round(10 * (share * shim - free)) / 10;
          const first = weld(0);
          const second = plateBow(plates([[0, first]]))?.next?.mm as number;
          const shim = Math.round(10 * second) / 10;
          const third = plateBow(
            plates([
              [0, first],
              [shim, weld(shim)],
            ]),
          )?.next?.mm as number;
          expect(Math.abs(share * third - free)).toBeLessThan(1);
        },
      ),
      { numRuns: 60, seed: 8 },
    );
  });
  it("bend as a beam does: closed form of three points", () => {
    // 48 E I d / L^3 of 3 x 300 over 500, E 193 GPa, 5 mm: I = 675 mm4.
    const found = bentPlate({ thicknessMm: 3, widthMm: 300, lengthMm: 500, youngMPa: 193_000, yieldMPa: 230 }, 5);
    expect(found.shimN).toBeCloseTo((48 * 193_000 * 675 * 5) / 500 ** 3, 6);
    expect(found.firstYieldMm).toBeCloseTo((230 * 500 ** 2) / (6 * 193_000 * 3), 9);
  });
  it("refuse a size that is a slip of the unit, at its field", () => {
    const wrong = plates([], "3200");
    expect(planProblems(wrong).find((p) => p.path === "fixture.plates.thickness")?.severity).toBe("error");
    expect(plateBow(wrong)).toBeNull();
  });
});
