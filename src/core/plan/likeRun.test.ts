import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { ladder } from "../../../tests/support/ladder";
import { resolveStructure, STARTERS } from "../frame";
import { likeRun } from "./likeRun";
import { orderOfWork } from "./schools";

describe("a run of like steps", () => {
  it("is one face all round: four outside corners, then no more", () => {
    const { steps } = orderOfWork(ladder(1));
    const first = steps.find((s) => s.id.do === "bead");
    if (!first) throw new Error("a bead expected");
    const run = likeRun(steps, first, new Set());
    expect(run.map((s) => s.key)).toEqual(["A", "C", "B", "D"].map((c) => `bead/${c}/outside`));
    expect(likeRun(steps, first, new Set([first.key]))).toEqual([]);
    const [, second] = run;
    expect(likeRun(steps, first, new Set([second?.key as string]))).toEqual([first]);
  });
  it("never runs over a gate, a turn or a wait, in any frame; taken run by run all steps are done once", () => {
    for (const { name } of STARTERS) {
      const { steps } = orderOfWork(resolveStructure(started(name)).structure);
      const done = new Set<string>();
      for (const step of steps) {
        if (done.has(step.key)) continue;
        const run = likeRun(steps, step, done);
        for (const s of run.length > 0 ? run : [step]) {
          expect(done.has(s.key), name).toBe(false);
          done.add(s.key);
        }
        if (run.length > 1)
          expect(
            run.every((s) => s.id.do === "tack" || s.id.do === "bead"),
            name,
          ).toBe(true);
        // In their order, one after the other.
        expect(run.map((s) => steps.indexOf(s))).toEqual(run.map((_, i) => steps.indexOf(step) + i));
      }
      expect(done.size, name).toBe(steps.length);
    }
  });
});
