import { describe, expect, it } from "vitest";
import { deckWithPole, FREE_FRAMES, tableWith } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import type { DrawnFrame } from "../frame";
import { partsOfSteps } from "../plan";
import { coldSet, tapedPairs } from "./coldSet";
import { evaluate } from "./evaluate";
import { gateLines } from "./gateLines";
import { quantityWords } from "./quantityId";

/** Lines of each step that measures, with its gate. */
function linesIn(frame: DrawnFrame) {
  const evaluation = evaluate(
    jobOf([], () => drawnPlan(frame)),
    null,
  );
  const { structure, steps, places } = evaluation;
  if (!structure || !places) throw new Error("no frame");
  const parts = partsOfSteps(structure, steps);
  const lines = steps.flatMap((s) =>
    s.gate ? [{ gate: s.gate, all: gateLines(s, parts.get(s.key), evaluation) }] : [],
  );
  return { evaluation, places, lines };
}

describe("lines to write readings on", () => {
  it("are cold what the screen asks for, of any frame", () => {
    for (const frame of [deckWithPole(800), tableWith(700, 50), FREE_FRAMES["six sides"], FREE_FRAMES.foot]) {
      const { evaluation, lines } = linesIn(frame);
      const cold = lines.filter((l) => l.gate === "cold");
      expect(cold).toHaveLength(1);
      expect(cold[0]?.all).toEqual(coldSet(evaluation).map(quantityWords));
      expect(new Set(cold[0]?.all).size).toBe(cold[0]?.all.length);
    }
  });
  it("are before welding the sides, the diagonals and what lies beyond them; of a frame without corners the ways between its places", () => {
    const [dry] = linesIn(deckWithPole(800)).lines;
    expect(dry?.all).toEqual(["AB", "BC", "CD", "DA", "AC", "BD", "A to PE", "B to PE", "C to PE"]);
    const ring = linesIn(FREE_FRAMES["six sides"]);
    expect(ring.lines[0]?.all).toEqual(tapedPairs(ring.places).map(([p, q]) => `${p} to ${q}`));
    expect(ring.lines.every((l) => l.all.length > 0)).toBe(true);
  });
});
