import { describe, expect, it } from "vitest";
import { isMarkedIn, markedFirst } from "./markedIn";
import { SHELF } from "./shelf";

const of = (kind: (typeof SHELF)[number]["kind"], resolutionMm: number) => ({ kind, resolutionMm });

describe("the unit that an instrument is marked in", () => {
  it("is told from its smallest step; what shows digits is of both", () => {
    for (const step of [25.4 / 64, 25.4 / 32, 25.4 / 16, 25.4 / 8, 0.254]) {
      expect(isMarkedIn(of("tape", step), "inch-fraction"), String(step)).toBe(true);
      expect(isMarkedIn(of("tape", step), "mm"), String(step)).toBe(false);
    }
    for (const step of [1, 0.5, 2, 0.1]) {
      expect(isMarkedIn(of("rule", step), "mm"), String(step)).toBe(true);
      expect(isMarkedIn(of("rule", step), "inch-decimal"), String(step)).toBe(false);
    }
    expect(isMarkedIn(of("calliper", 0.01), "inch-decimal")).toBe(true);
  });
  it("puts the tapes of the job's unit in front, and drops none", () => {
    const tapes = SHELF.filter((i) => i.kind === "tape");
    for (const units of ["mm", "inch-fraction"] as const) {
      const sorted = markedFirst(tapes, units);
      const own = sorted.map((i) => isMarkedIn(i, units));
      expect(own.lastIndexOf(true)).toBeLessThan(own.includes(false) ? own.indexOf(false) : own.length);
      expect(sorted.map((i) => i.id).toSorted()).toEqual(tapes.map((i) => i.id).toSorted());
    }
    expect(markedFirst(tapes, "inch-fraction")[0]?.name).toMatch(/in/);
  });
});
