import { describe, expect, it } from "vitest";
import { drillWords, wallWords } from "./gauges";
import { GAUGES_IN } from "./gaugeTable";
import { parseLength } from "./length";

describe("drills and walls as an inch shop asks for them", () => {
  it("takes fractions where they are near, numbers under a quarter where they are nearer (ASME B94.11M, from memory)", () => {
    expect(drillWords(12.7, "inch-fraction")).toBe("1/2 in");
    expect(drillWords(9, "inch-fraction")).toBe("23/64 in");
    expect(drillWords(0.136 * 25.4, "inch-fraction")).toBe("#29 (0.136 in)");
    expect(drillWords(0.25 * 25.4, "inch-decimal")).toBe("1/4 in");
    expect(drillWords(9, "mm")).toBe("9 mm");
  });
  it("says a wall with its gauge, and reads it back", () => {
    expect(wallWords(0.065 * 25.4, "inch-fraction")).toBe("0.065 in (16 ga)");
    expect(wallWords(3.175, "inch-fraction")).toBe("1/8 in");
    expect(wallWords(2, "mm")).toBe("2 mm");
    for (const [gauge, inch] of Object.entries(GAUGES_IN))
      for (const text of [`${gauge} ga`, `${gauge}ga`, `${gauge} gauge`]) {
        const read = parseLength(text, "in");
        expect(read.ok && read.value.mm, text).toBeCloseTo(inch * 25.4, 9);
      }
    expect(parseLength("19 ga", "in")).toMatchObject({ ok: false, message: expect.stringMatching(/no gauge of tube/) });
  });
});
