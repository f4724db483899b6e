import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { drawnPlan } from "../../../tests/support/plans";
import { markingOut } from "../cut";
import { length } from "../units";
import { alongLine, tapedAlong } from "./alongTube";
import { builtOf } from "./built";

const tube = (begins: number) => ({ begins: Float64Array.of(begins, begins + 7, begins, begins + 7) });

describe("a place along a tube, as it is taped", () => {
  it("is from its long point, where the marking-out of a rung is taped from, too", () => {
    const { structure } = builtOf(drawnPlan(started("ladder", {}, squareTube(40, 3))));
    if (!structure) throw new Error("no structure");
    const [list] = markingOut(structure, []);
    const side = structure.members.find((m) => m.id === list?.member);
    if (!side || !list) throw new Error("nothing is marked out");
    expect(list.marks.length).toBeGreaterThan(0);
    for (const mark of list.marks) {
      if (mark.kind !== "lands") continue;
      const joint = structure.joints.find((j) => j.a === side.id && j.b === mark.member);
      if (!joint) continue;
      const alongMm = Math.hypot(...joint.at.map((v, i) => v - (side.from[i] ?? 0)));
      expect(tapedAlong(side, length(String(alongMm)), "mm").mm).toBeCloseTo(mark.centreMm, 2);
    }
  });
  it("is back what was typed, in both units, whatever the tube", () => {
    fc.assert(
      fc.property(fc.integer({ min: -1200, max: 300 }), fc.integer({ min: 0, max: 90_000 }), (begins, typed) => {
        const m = tube(begins / 10);
        const mm = length(String(typed / 10));
        expect(tapedAlong(m, alongLine(m, mm, "mm"), "mm").text).toBe(mm.text);
        const inches = length(`${Math.floor(typed / 64)} ${typed % 64}/64`, "in");
        expect(tapedAlong(m, alongLine(m, inches, "inch-fraction"), "inch-fraction").mm).toBeCloseTo(inches.mm, 2);
      }),
    );
  });
  it("is left as it was typed where the tube begins with its line", () => {
    const typed = length("12 1/2", "in");
    expect(alongLine(tube(0), typed, "inch-fraction")).toBe(typed);
    expect(tapedAlong(tube(0), typed, "inch-fraction")).toBe(typed);
  });
});
