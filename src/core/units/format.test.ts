import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fixed, formatLength, formatSmall, fraction, nearLength, statedLength } from "./format";

describe("fractions", () => {
  it("carries, reduces and keeps the error", () => {
    expect(fraction(41.93, 16)).toMatchObject({ text: "41 15/16", value: 41.9375 });
    expect(fraction(41.93, 16).error).toBeCloseTo(0.0075, 9);
    expect(fraction(-0.001, 16).text).toBe("0");
  });
  it("is never further off than half a step", () => {
    fc.assert(
      fc.property(fc.double({ min: -1000, max: 1000, noNaN: true }), fc.constantFrom(8, 16, 32, 64), (x, den) => {
        expect(Math.abs(fraction(x, den).error)).toBeLessThanOrEqual(0.5 / den + 1e-9);
      }),
    );
  });
});

describe("showing a length", () => {
  it("states unit and rounding", () => {
    const shown = formatLength(1200, "inch-fraction", { denominator: 16 });
    expect(shown.text).toBe("47 1/4 in");
    expect(shown.roundingMm).toBeCloseTo(0.15, 9);
    expect(formatLength(1200, "mm").text).toBe("1200.0 mm");
    expect(formatLength(1200, "inch-decimal").text).toBe("47.244 in");
  });
  it("says that a mark is near where it is not on it", () => {
    expect(nearLength(12.65625 * 25.4, "inch-fraction")).toBe("12 21/32 in");
    expect(nearLength(12.6601 * 25.4, "inch-fraction")).toBe("≈ 12 21/32 in");
    expect(nearLength(1200.04, "mm")).toBe("1200.0 mm");
  });
  it("writes movements with sign, and small ones never as coarse fractions", () => {
    expect(formatSmall(1.42, "mm", { signed: true })).toBe("+1.4 mm");
    expect(formatSmall(-1.42, "inch-fraction", { signed: true })).toBe("−0.056 in");
    expect(fixed(-0.001, 1)).toBe("0.0");
  });
});

describe("a length that somebody stated", () => {
  it("is said as exactly as it was, never rounded into another", () => {
    expect(statedLength(47.9375 * 25.4, "inch-fraction")).toBe("47 15/16 in");
    expect(statedLength(47.9375 * 25.4, "inch-decimal")).toBe("47.9375 in");
    expect(statedLength((3 / 32) * 25.4, "inch-decimal")).toBe("0.09375 in");
    expect(statedLength(0.94 * 25.4, "inch-fraction")).toBe("0.94 in");
    expect(statedLength(1198.5, "mm", true)).toBe("1198.5");
  });
});
