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
