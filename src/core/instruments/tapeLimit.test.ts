import { describe, expect, it } from "vitest";
import { tapeLimitMm } from "./tapeLimit";

describe("limit of error of a tape (European directive on measuring instruments, from memory)", () => {
  it("of class II at 2 m is 0.3 + 0.2 x 2 = 0.7 mm; every metre that is begun counts", () => {
    expect(tapeLimitMm("II", 2000)).toBeCloseTo(0.7, 12);
    expect(tapeLimitMm("II", 2001)).toBeCloseTo(0.9, 12);
    expect(tapeLimitMm("I", 1000)).toBeCloseTo(0.2, 12);
  });
  it("grows with the class, and from the hook", () => {
    for (const mm of [300, 1200, 5000]) {
      expect(tapeLimitMm("I", mm)).toBeLessThan(tapeLimitMm("II", mm));
      expect(tapeLimitMm("II", mm)).toBeLessThan(tapeLimitMm("III", mm));
      expect(tapeLimitMm("III", mm, true) - tapeLimitMm("III", mm)).toBeCloseTo(0.3, 12);
    }
  });
});
