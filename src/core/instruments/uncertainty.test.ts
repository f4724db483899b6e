import { describe, expect, it } from "vitest";
import { SHELF } from "./shelf";
import { correctedMm, fullUncertainty, readingUncertainty, uOfLimit, uOfResolution } from "./uncertainty";

describe("uncertainty of a reading", () => {
  it("of a step is its length over the root of twelve, of a limit over the root of three (GUM, 4.3.7, from memory)", () => {
    expect(uOfResolution(1)).toBeCloseTo(0.288_675, 6);
    expect(uOfLimit(1)).toBeCloseTo(0.577_35, 5);
  });
  it("holds what readings share apart from what each has, and grows with length where scale does", () => {
    for (const instrument of SHELF) {
      const u = readingUncertainty(instrument);
      expect(u.uMm, instrument.id).toBeGreaterThan(0);
      expect(fullUncertainty(u, 0), instrument.id).toBeGreaterThanOrEqual(u.uMm);
      expect(fullUncertainty(u, 5000), instrument.id).toBeGreaterThanOrEqual(fullUncertainty(u, 1000));
    }
  });
  it("takes off what a test found, and nothing where nothing was found", () => {
    const [plain] = SHELF;
    if (!plain) throw new Error("an empty shelf");
    expect(correctedMm(plain, 1000)).toBeCloseTo(1000, 1);
  });
});
