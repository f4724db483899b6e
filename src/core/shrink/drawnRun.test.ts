import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { comb, started } from "../../../tests/support/drawnFrames";
import { withDrawn } from "../../../tests/support/plans";
import { newPlan, type Plan, predicting, predictingElsewhere } from "../job";
import { drain } from "../numeric";
import type { DrawnRun } from "./drawnRun";
import type { FramePrediction } from "./prediction";
import { DRAWS } from "./simulate";

/** Every number of what is predicted, one after the other; shares of a band are of numbers that may be nothing. */
function numbersIn(of: unknown): number[] {
  if (typeof of === "number") return [of];
  if (of instanceof Float64Array) return [...of];
  if (of === null || typeof of !== "object") return [];
  return Object.entries(of).flatMap(([key, value]) => (key === "wide" ? [] : numbersIn(value)));
}
const plans: Record<string, () => Plan> = {
  rectangle: () => newPlan("x", "mm"),
  "gate leaf": () => withDrawn(newPlan("x", "mm"), started("gate leaf")),
  comb: () => withDrawn(newPlan("x", "mm"), comb(3, 300, 400)),
};
const whole = new Map<string, FramePrediction>();
const wholeOf = (name: string): FramePrediction => {
  const known = whole.get(name) ?? drain(predicting((plans[name] as () => Plan)()));
  whole.set(name, known);
  return known;
};

describe("draws that are worked through elsewhere", () => {
  it("make the prediction that one alone makes, to rounding, wherever they are parted and whenever they come", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.keys(plans)),
        fc.integer({ min: 1, max: DRAWS - 1 }),
        fc.integer({ min: 0, max: 400 }),
        (name, own, late) => {
          const plan = (plans[name] as () => Plan)();
          const theirs = drain(predictingElsewhere(plan, own));
          let asked = 0;
          const found = (): DrawnRun | undefined => (asked++ < late ? undefined : structuredClone(theirs));
          const shared = drain(predicting(plan, { elsewhere: { own, found } }));
          const [some, all] = [numbersIn(shared), numbersIn(wholeOf(name))];
          expect(some).toHaveLength(all.length);
          const largest = Math.max(...numbersIn(wholeOf(name).drawn).map(Math.abs));
          some.forEach((v, i) => {
            expect(Math.abs(v - (all[i] as number))).toBeLessThan(
              1e-9 * Math.max(largest, Math.abs(all[i] as number), 1),
            );
          });
          expect(asked).toBeGreaterThan(late);
        },
      ),
      { numRuns: 8, seed: 5 },
    );
  }, 120_000);
  it("are worked through here after all where nothing comes of them", () => {
    const plan = newPlan("x", "mm");
    const shared = drain(predicting(plan, { elsewhere: { own: 60, found: () => null } }));
    const all = wholeOf("rectangle");
    expect(shared.drawn[0]?.draws).toHaveLength(DRAWS + 1);
    expect(numbersIn(shared.prediction).map((v) => v.toFixed(9))).toEqual(
      numbersIn(all.prediction).map((v) => v.toFixed(9)),
    );
  });
});
