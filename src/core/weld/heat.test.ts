import { describe, expect, it } from "vitest";
import { length } from "../units";
import { filletOfHeat, heatFromFillet, heatJPerMm, weldProblems } from "./heat";
import type { Weld } from "./weldSchema";

const weld: Weld = { process: "MAG", volts: 18, amps: 120, travelMmPerS: 5, tackLength: length("10") };

describe("heat", () => {
  it("is efficiency, volts and amps over travel: 20 V, 150 A, 6 mm/s MAG is 400 J/mm (closed form)", () => {
    expect(heatJPerMm({ ...weld, volts: 20, amps: 150, travelMmPerS: 6 })).toBeCloseTo(400, 9);
    expect(heatJPerMm({ ...weld, process: "TIG", volts: 20, amps: 150, travelMmPerS: 6 })).toBeCloseTo(300, 9);
  });
});

describe("heat from bead size", () => {
  it("is what a fillet's deposit takes: 4 mm by wire is 280 J/mm, and back", () => {
    expect(heatFromFillet("MAG", 4)).toBeCloseTo(280, 9);
    expect(filletOfHeat("MAG", 280)).toBeCloseTo(4, 9);
    expect(heatFromFillet("TIG", 3)).toBeGreaterThan(heatFromFillet("MAG", 3));
  });
});

describe("settings", () => {
  it("that no welder uses are questioned, a tack that is none is refused", () => {
    expect(weldProblems({ ...weld, travelMmPerS: 0.5 }, 3)[0]).toMatchObject({
      severity: "warning",
      message: expect.stringMatching(/burn through/),
    });
    expect(weldProblems({ ...weld, tackLength: length("0") }, 3)[0]).toMatchObject({
      path: "weld.tackLength",
      severity: "error",
    });
    expect(weldProblems(weld, 3)).toEqual([]);
  });
});
