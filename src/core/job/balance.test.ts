import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { withDrawn } from "../../../tests/support/plans";
import { resolveStructure, setJoint } from "../frame";
import { newPlan } from "./plan";
import { predict } from "./predict";

describe("the order of a ladder, mitred or butted", () => {
  it("lets the pulls of its joints cancel: the likely lean is a small part of what may come of it", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 30 }),
        fc.integer({ min: 6, max: 15 }),
        fc.integer({ min: 1, max: 4 }),
        fc.boolean(),
        (long, wide, rungs, butted) => {
          let frame = started("ladder", { length: 100 * long, width: 100 * wide, rungs }, squareTube(40, 3));
          if (butted)
            for (const j of resolveStructure(frame).structure.joints.filter((x) => x.kind === "mitre"))
              frame = setJoint(frame, j.a, j.b, { kind: "butt", through: /^(AB|CD)/.test(j.a) ? j.a : j.b });
          const found = predict(withDrawn(newPlan("Ladder", "mm"), frame));
          const square = found?.prediction.outcomes.find((o) => o.id.kind === "square")?.estimate;
          if (!square) throw new Error("a prediction expected");
          expect(Math.abs(square.value)).toBeLessThan(0.4 * ((square.high - square.low) / 2));
        },
      ),
      { numRuns: 12, seed: 11 },
    );
  }, 120_000);
});
