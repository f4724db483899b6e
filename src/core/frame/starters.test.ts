import { describe, expect, it } from "vitest";
import { squareTube } from "../../../tests/support/drawnFrames";
import { resolveStructure } from "./resolveStructure";
import { STARTERS, starterProblems, usualValues } from "./starters";
import { structureProblems } from "./structureProblems";

describe("starters", () => {
  it("with their usual sizes build a frame that nothing is wrong with", () => {
    for (const starter of STARTERS) {
      expect(starterProblems(starter, usualValues(starter)), starter.name).toEqual([]);
      const built = starter.build(usualValues(starter), squareTube(), "mm");
      if (!built.ok) throw new Error(built.message);
      const errors = structureProblems(built.value, resolveStructure(built.value)).filter(
        (p) => p.severity === "error",
      );
      expect(errors, starter.name).toEqual([]);
    }
  });
  it("begin with the sizes of the frame that stands, and with whole inches where one works in them", () => {
    for (const starter of STARTERS)
      for (const units of ["inch-fraction", "inch-decimal"] as const) {
        const values = usualValues(starter, units);
        const inches = starter.fields.flatMap((f) => (f.kind === "length" ? [Number(values[f.key]) / 25.4] : []));
        for (const v of inches) expect(Math.abs(2 * v - Math.round(2 * v)), `${starter.name}, ${v}`).toBeLessThan(1e-9);
        for (const [length, width] of [
          [40, 24],
          [24, 72],
          [9, 7],
        ] as const) {
          const typed = { length: 25.4 * length, width: 25.4 * width };
          const own = usualValues(starter, units, typed, squareTube(25, 2));
          const said = `${starter.name}, ${length} by ${width} in`;
          expect(starterProblems(starter, own, units), said).toEqual([]);
          expect(starter.build(own, squareTube(25, 2), units).ok, said).toBe(true);
          if (starter.fields.some((f) => f.key === "width") && length > 10) expect(own, said).toMatchObject(typed);
        }
      }
  });
  it("say which size is impossible, at its field", () => {
    for (const starter of STARTERS) {
      const [first] = Object.entries(usualValues(starter)).find(([, v]) => typeof v === "number") ?? [];
      if (!first) continue;
      const found = starterProblems(starter, { ...usualValues(starter), [first]: -5 });
      expect(
        found.map((p) => p.key),
        starter.name,
      ).toContain(first);
    }
  });
});
