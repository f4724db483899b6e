import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { rectangle } from "../../../tests/support/plans";
import { CORNERS } from "../geometry";
import { length } from "../units";
import { openEnds } from "./fittedParts";
import { CORNER_WAYS } from "./frameWords";
import { fromRectangle } from "./fromRectangle";
import { rectangleProblems } from "./rectangleProblems";
import type { Rectangle } from "./rectangleSchema";
import { resolveStructure } from "./resolveStructure";
import { structureProblems } from "./structureProblems";

const structureOf = (change: Partial<Rectangle>) => {
  const frame = fromRectangle({ ...rectangle(), ...change }, "mm");
  const resolved = resolveStructure(frame);
  return { frame, ...resolved };
};

describe("a rectangle by its sizes", () => {
  it("has its outside sizes and its corners A to D whichever way its corners are made", () => {
    const some = fc.record({
      corners: fc.constantFrom(...CORNER_WAYS),
      length: fc.integer({ min: 400, max: 4000 }),
      width: fc.integer({ min: 300, max: 2000 }),
      gap: fc.constantFrom("0", "1.5"),
      caps: fc.boolean(),
    });
    fc.assert(
      fc.property(some, ({ corners, length: l, width, gap, caps }) => {
        const change = { corners, length: length(String(l)), width: length(String(width)), gap: length(gap), caps };
        const { structure, frame, ...resolved } = structureOf(change);
        expect(structureProblems(frame, { structure, ...resolved }).filter((p) => p.severity === "error")).toEqual([]);
        expect(structure.quad?.lengthMm).toBeCloseTo(l, 6);
        expect(structure.quad?.widthMm).toBeCloseTo(width, 6);
        const kinds = CORNERS.map((c) => structure.joints.find((j) => j.id === structure.quad?.joints[c])?.kind);
        expect(new Set(kinds)).toEqual(new Set([corners === "mitred" ? "mitre" : "butt"]));
        // Butted, two open ends a side that runs through; capped, none.
        expect(openEnds(structure)).toHaveLength(corners === "mitred" || caps ? 0 : 4);
        expect(structure.parts).toHaveLength(corners !== "mitred" && caps ? 4 : 0);
      }),
      { numRuns: 30 },
    );
  });
  it("leaves the gap and runs the sides through that were said", () => {
    const { structure } = structureOf({ corners: "BC and DA run through", gap: length("2"), cross: [] });
    const at = (id: string) => structure.members.find((m) => m.id === id);
    const { lengthMm, widthMm } = structure.quad ?? { lengthMm: 0, widthMm: 0 };
    expect(at("BC")?.longMm).toBeCloseTo(widthMm, 6);
    expect(at("AB")?.longMm).toBeCloseTo(lengthMm - 2 * rectangle().section.face.mm - 4, 6);
  });
  it("grinds the faces flush that were said, at every joint, and no others", () => {
    const { structure } = structureOf({ ground: ["top"] });
    for (const j of structure.joints)
      for (const f of j.faces) expect(f.care, `${j.id} ${f.line}`).toBe(f.toward[2] > 0.7 ? "grind flush" : "none");
    expect(structure.joints.flatMap((j) => j.faces).some((f) => f.care === "grind flush")).toBe(true);
  });
  it("refuses a gap that is none", () => {
    expect(rectangleProblems({ ...rectangle(), gap: length("-1") })[0]?.path).toBe("frame.sizes.gap");
  });
});
