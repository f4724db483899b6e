import { describe, expect, it } from "vitest";
import { length } from "../units";
import { consumed, consumedWords, discWords, fedWords } from "./consumables";
import type { Weld } from "./weldSchema";

const weld: Weld = { process: "MAG", volts: 18, amps: 120, travelMmPerS: 5, tackLength: length("10") };

describe("what an arc takes", () => {
  it("is feed times time, by arithmetic: 120 A on 0.8 mm wire, ten minutes", () => {
    // 2 in/min per ampere x 120 A = 240 in/min = 6.096 m/min; ten minutes 60.96 m of 0.5027 mm2, 0.2405 kg; gas 12 x 10 l.
    const { wire, gas, electrodes } = consumed(weld, 600, 3, "mild steel");
    expect(wire?.diameterMm).toBe(0.8);
    expect(wire?.feedMPerMin).toBeCloseTo(6.096, 3);
    expect(wire?.lengthM).toBeCloseTo(60.96, 2);
    expect(wire?.kg).toBeCloseTo(0.2405, 3);
    expect(gas?.litres).toBeCloseTo(120, 9);
    expect(electrodes).toBeNull();
  });
  it("lays down about the metal that the heat of the bead says: within a third, over the settings that one begins with", () => {
    // A bead of Q J/mm is Q / 35 mm3 per mm (the butt rule of the heat); the wire brings feed over travel.
    for (const [amps, volts, travelMmPerS, wallMm] of [
      [90, 17, 6.5, 2],
      [120, 18, 5, 3],
      [165, 20, 4.6, 5],
    ] as const) {
      const one = { ...weld, amps, volts, travelMmPerS };
      const { wire } = consumed(one, 60, wallMm, "mild steel");
      const brought =
        ((wire?.feedMPerMin ?? 0) * 1000 * (Math.PI * (wire?.diameterMm ?? 0) ** 2)) / 4 / 60 / travelMmPerS;
      const said = (0.8 * volts * amps) / travelMmPerS / 35;
      expect(brought / said).toBeGreaterThan(0.67);
      expect(brought / said).toBeLessThan(1.5);
    }
  });
  it("counts electrodes begun, no gas where the wire makes its own, and knows no feed of aluminium", () => {
    const stick = consumed({ ...weld, process: "stick", amps: 110 }, 141, 5, "mild steel");
    expect(stick).toEqual({ wire: null, gas: null, electrodes: { diameterMm: 3.2, count: 3 } });
    expect(consumed({ ...weld, process: "flux core" }, 60, 3, "mild steel").gas).toBeNull();
    expect(consumed({ ...weld, process: "TIG" }, 60, 3, "aluminium 6061-T6" as never)).toMatchObject({ wire: null });
    expect(consumed(weld, 60, 3, "aluminium 5083" as never).wire).toBeNull();
  });
  it("is said in the job's units, and rules of thumb are called so", () => {
    const used = consumed(weld, 600, 3, "mild steel");
    expect(consumedWords(used, "mm")).toBe(
      "Wire of 0.8 mm about 61 m (0.24 kg), fed 6.1 m/min; gas about 120 l at 12 l/min: rules of thumb.",
    );
    expect(consumedWords(used, "inch-decimal")).toBe(
      "Wire of 0.031 in about 200 ft (0.53 lb), fed 240 in/min; gas about 4.2 ft³ at 25 ft³/h: rules of thumb.",
    );
    expect(fedWords(used, "mm")).toBe("Wire of 0.8 mm, fed about 6.1 m/min; gas about 12 l/min (rule of thumb).");
    expect(fedWords(consumed({ ...weld, process: "stick" }, 0, 3, "mild steel"), "inch-fraction")).toBe(
      "Electrodes of 0.126 in (rule of thumb).",
    );
    expect(consumedWords({ wire: null, gas: null, electrodes: null }, "mm")).toBe("");
    expect(discWords(0, "mm")).toBe("");
    expect(discWords(400, "mm")).toBe("About 1 flap disc for 400 mm of bead ground flush: rule of thumb.");
    expect(discWords(3100, "mm")).toMatch(/^About 2 flap discs/);
  });
});
