import { expect, it } from "vitest";
import { niceShown, shownTicks } from "./shownTicks";

const DOMAIN = [0.03, 1.48] as const;
/** Figures that an axis shows, in the unit that it shows. */
const inInches = (mm: readonly number[]): number[] => mm.map((v) => +(v / 25.4).toFixed(9));

it("puts an axis at round figures of the unit that a person reads", () => {
  expect(niceShown(DOMAIN, 4, "length", "mm")).toEqual([0, 1.5]);
  expect(shownTicks([0, 1.5], 4, "length", "mm")).toEqual([0, 0.5, 1, 1.5]);
  for (const units of ["inch-fraction", "inch-decimal"] as const) {
    expect(inInches(niceShown(DOMAIN, 4, "length", units))).toEqual([0, 0.06]);
    expect(inInches(shownTicks(niceShown(DOMAIN, 4, "length", units), 4, "length", units))).toEqual([
      0, 0.02, 0.04, 0.06,
    ]);
  }
  // 12 thou in a foot are a millimetre in a metre.
  expect(shownTicks([-1, 1], 4, "slope", "inch-decimal").map((v) => +(12 * v).toFixed(9))).toEqual([-10, -5, 0, 5, 10]);
});
