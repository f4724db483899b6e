import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { inchTube, ring, squareTube } from "../../../tests/support/drawnFrames";
import { drawnPlan, sizesPlan } from "../../../tests/support/plans";
import type { DrawnSection } from "../frame";
import type { Vec3 } from "../numeric";
import { length, type UnitPreference } from "../units";
import { planProblems } from "./plan";
import { narrowestFaceMm, thinnestWallMm, weldOf } from "./settings";

const CORNERS: Vec3[] = [
  [0, 0, 20],
  [900, 0, 20],
  [900, 600, 20],
  [0, 600, 20],
];
const tackOf = (section: DrawnSection, units: UnitPreference = "mm") =>
  weldOf(drawnPlan(ring(CORNERS, section), units)).tackLength;

describe("tacks to begin with", () => {
  it.each([
    ["40 x 3", squareTube(40, 3), "mm", "10"],
    ["40 x 1.5", squareTube(40, 1.5), "mm", "5"],
    ["60 x 5", squareTube(60, 5), "mm", "12"],
    ["20 x 3, of which a tack of 10 would be half", squareTube(20, 3), "mm", "8"],
    ["1 1/2 in x 1/8", inchTube, "inch-fraction", "3/8"],
    ["1 1/2 in x 1/8, in decimals", inchTube, "inch-decimal", "0.375"],
  ] as const)(
    "are as long as the wall asks for, and leave most of a face open: %s (common practice, no source)",
    (_, section, units, text) => {
      expect(tackOf(section, units).text).toBe(text);
    },
  );
  it("of any tube lie on whole millimetres or sixteenths, on less than half of the face, with nothing said against them", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(15, 20, 25, 40, 60, 100),
        fc.constantFrom(1, 1.5, 2, 3, 4, 6),
        fc.constantFrom("mm", "inch-fraction"),
        (face, wall, units) => {
          fc.pre(wall < face / 5);
          const plan = drawnPlan(ring(CORNERS, squareTube(face, wall)), units);
          const { mm, text } = weldOf(plan).tackLength;
          expect(mm).toBeLessThan(narrowestFaceMm(plan) / 2);
          expect(mm).toBeGreaterThanOrEqual(Math.min(4, narrowestFaceMm(plan) / 3));
          expect(units === "mm" ? mm : (16 * mm) / 25.4).toBeCloseTo(
            Math.round(units === "mm" ? mm : (16 * mm) / 25.4),
            9,
          );
          expect(length(text, units === "mm" ? "mm" : "in").mm).toBeCloseTo(mm, 9);
          expect(planProblems(plan).filter((p) => p.path === "weld.tackLength")).toEqual([]);
        },
      ),
    );
  });
  it("stay what somebody typed, whatever is welded then; and one that covers a face is told", () => {
    const plan = sizesPlan();
    const typed = { ...plan, weld: { ...plan.weld, tackLength: length("10") } };
    expect(weldOf(typed).tackLength.mm).toBe(10);
    const thin = drawnPlan(ring(CORNERS, squareTube(12, 1)));
    const long = { ...thin, weld: { ...thin.weld, tackLength: length("10") } };
    expect(thinnestWallMm(long)).toBe(1);
    expect(weldOf(long).tackLength.mm).toBe(10);
    expect(planProblems(long).find((p) => p.path === "weld.tackLength")?.message).toMatch(
      /10 mm is most of the narrowest face, 12 mm/,
    );
  });
});
