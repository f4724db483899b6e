import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, roundTube, squareTube, started } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import { resolveStructure } from "../frame";
import { predicted } from "../shrink";
import { placesOf } from "../square";
import { evaluate } from "./evaluate";
import type { Plan } from "./planSchema";
import { predict } from "./predict";
import { sharedWords } from "./sharedWords";

/** A hoop on a cross tube, that reaches so far beyond either leg. */
const hoop = (leftMm: number, rightMm: number) => {
  const [a, b] = [leftMm, leftMm + 380];
  return drawn(
    {
      X1: [
        [0, 0, 0],
        [b + rightMm, 0, 0],
      ],
      P1: [
        [a, 0, 0],
        [a, 640, 0],
      ],
      P2: [
        [b, 0, 0],
        [b, 640, 0],
      ],
      TOP: [
        [a, 640, 0],
        [b, 640, 0],
      ],
    },
    [roundTube(38, 3)],
  );
};

const told = (plan: Plan) => {
  const prediction = predict(plan)?.prediction ?? null;
  const e = evaluate(
    jobOf([], () => plan),
    prediction,
  );
  return e.cut.map((piece) => ({
    piece,
    words: sharedWords(plan, piece, e.prediction, plan.units),
    lossMm: piece.members.map(
      (m) => (e.prediction && predicted(e.prediction, { kind: "length", member: m })?.value) ?? 0,
    ),
    aside: e.prediction?.setUp.asideMm ?? {},
  }));
};

describe("ends of one tube that reach about as far", () => {
  it("are both measured or neither, so that alike legs are cut alike", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 40, max: 400, noNaN: true }),
        fc.double({ min: 0.85, max: 1, noNaN: true }),
        (far, share) => {
          const { structure } = resolveStructure(hoop(far, share * far));
          const { freeEnds } = placesOf(structure);
          expect("X1S" in freeEnds).toBe("X1E" in freeEnds);
        },
      ),
    );
    // A quarter of the frame lies between these two ends.
    const legs = told(drawnPlan(hoop(190, 192))).filter((p) => p.piece.members.includes("P1"));
    expect(legs.map((p) => p.piece.members)).toEqual([["P1", "P2"]]);
  });
});

describe("a piece that is cut by more or less than its own weld takes", () => {
  it("says by how much, and which tubes bend; one that is not says nothing", () => {
    const kinked = told(drawnPlan(started("rails with a kink", {}, { ...squareTube(60, 3), id: "S1" })));
    const said = kinked.filter((p) => p.words !== null);
    expect(said.length).toBeGreaterThan(0);
    for (const { piece, words, lossMm, aside } of kinked) {
      const added = piece.allowanceMm?.value ?? Number.NaN;
      const shared = added + lossMm.reduce((sum, v) => sum + v, 0) / lossMm.length;
      if (words === null) {
        const isBetween = piece.members.some((m) => /^M/.test(m));
        if (isBetween) expect(Math.abs(shared)).toBeLessThan(0.5);
        continue;
      }
      const figure = Number(/^([\d.]+)\smm/.exec(words)?.[1]);
      expect(figure).toBeCloseTo(Math.abs(shared), 1);
      expect(words).toContain(shared > 0 ? " more than" : " less than");
      const names = /takes: (.*) bends?, /.exec(words)?.[1]?.split(" and ") ?? [];
      expect(names.length).toBeGreaterThan(0);
      for (const name of names) expect(aside[name]).toBeGreaterThan(0);
    }
    // Nothing bends aside in a ring.
    for (const p of told(drawnPlan(started("ladder")))) expect(p.words).toBeNull();
  });
});
