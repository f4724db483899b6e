import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { drawnPlan } from "../../../tests/support/plans";
import { builtOf } from "./built";
import { frictionWords } from "./frictionWords";
import { newPlan } from "./plan";
import { predict } from "./predict";

const plan = newPlan("x", "mm");
const { structure } = builtOf(plan);
const told = predict(plan)?.prediction;

describe("friction under clamps", () => {
  it("is told by what two clamps hold back of the side that draws together most: 2 mu P L / EA", () => {
    if (!structure || !told) throw new Error("no frame");
    const words = frictionWords(structure, told, "mm");
    // 800 N over the longest side of the usual tube: a few thousandths of a millimetre, by hand.
    const side = structure.members.find((m) => words?.includes(`${m.id} is likely`));
    if (!side) throw new Error("no side");
    const long = Math.hypot(side.to[0] - side.from[0], side.to[1] - side.from[1]);
    const backMm = (800 * long) / (210_000 * side.properties.areaMm2);
    expect(words).toContain(`hold ${backMm.toFixed(3)}`);
    const inches = frictionWords(structure, told, "inch-fraction");
    expect(inches).not.toMatch(/mm|N\b/);
    expect(inches).toContain(`hold ${(backMm / 25.4).toFixed(4)}`);
  });
  it("is next to nothing in thick tube, and no figure of noughts", () => {
    const thick = drawnPlan(started("rectangle", { length: "400", width: "300" }, squareTube(80, 6)));
    const built = builtOf(thick).structure;
    const found = predict(thick)?.prediction;
    if (!built || !found) throw new Error("no frame");
    for (const units of ["mm", "inch-fraction", "inch-decimal"] as const) {
      const words = frictionWords(built, found, units);
      expect(words).not.toMatch(/hold 0\.0+\s/);
      expect(words).toContain(units === "mm" ? "hold 0.001" : "hold next to nothing of that");
    }
  });
  it("says nothing where nothing draws together", () => {
    if (!structure) throw new Error("no frame");
    expect(frictionWords(structure, { outcomes: [] }, "mm")).toBeNull();
  });
});
