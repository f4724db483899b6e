import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { job as jobOf } from "../../../tests/support/jobs";
import { HANDLING_S, timelineOf } from "../plan";
import { builtOf } from "./built";
import type { Job } from "./jobSchema";
import { timeOf } from "./orderOutlook";
import { paceOf, paceWords } from "./pace";
import { weldOf } from "./settings";

const plain: Job = jobOf([]);
const { structure, order } = builtOf(plain.plan);
if (!structure || !order) throw new Error("no order");
const times = timelineOf(structure, weldOf(plain.plan), order.steps).steps;
/** A moment of one morning, so many seconds after six. */
const moment = (s: number): string => {
  const part = (v: number, digits = 2): string => String(Math.floor(v)).padStart(digits, "0");
  const ms = Math.round(1000 * s);
  return `2026-03-02T${part(6 + ms / 3_600_000)}:${part((ms / 60_000) % 60)}:${part((ms / 1000) % 60)}.${part(ms % 1000, 3)}Z`;
};

/** The first steps of the order ticked, each so long after the one before. */
function ticked(gaps: readonly number[]): Job {
  let at = 0;
  const entries = gaps.map((gap, i) => {
    at += gap;
    const step = order?.steps[i];
    if (!step) throw new Error("no such step");
    return {
      kind: "tick" as const,
      id: `00000000-0000-4000-8000-${String(i).padStart(12, "0")}`,
      at: moment(at),
      origin: "bench",
      step: step.id,
      done: true,
    };
  });
  return { ...plain, entries };
}

/** Gaps as whoever takes `moveS` between welds would leave them. */
const gapsOf = (moveS: number, count: number): number[] =>
  order.steps.slice(0, count).map((s) => {
    const takes = times.get(s.key)?.takesS ?? 0;
    return s.joint === null ? takes : takes - HANDLING_S.move + moveS;
  });

describe("the pace of a job", () => {
  it("is what is usual until there are ticks enough, and says nothing of itself", () => {
    expect(paceOf(plain)).toEqual({ handling: HANDLING_S, from: {} });
    expect(paceWords(paceOf(plain))).toBe("");
    expect(paceOf(ticked(gapsOf(60, 6))).from.move).toBeUndefined();
  });
  it("comes out as it went in, whatever it was, and the time of the order goes by it", () => {
    fc.assert(
      fc.property(fc.integer({ min: 6, max: 400 }), (moveS) => {
        const job = ticked(gapsOf(moveS, 24));
        const pace = paceOf(job);
        expect(pace.handling.move).toBeCloseTo(moveS, 1);
        expect(pace.from.move).toBeGreaterThanOrEqual(5);
        const welds = order.steps.filter((s) => s.joint !== null).length;
        const more = (timeOf(job)?.totalS ?? 0) - (timeOf(plain)?.totalS ?? 0);
        const other = Object.keys(pace.from).some((k) => k !== "move");
        // Cooling changes with the pace too, but never by more than all of it.
        if (!other && moveS > HANDLING_S.move)
          expect(more).toBeGreaterThan(0.5 * welds * (moveS - HANDLING_S.move) - (timeOf(plain)?.waitS ?? 0));
      }),
      { numRuns: 25 },
    );
  });
  it("leaves out ticks that were set in one go, and breaks", () => {
    const gaps = gapsOf(50, 24);
    const hurried = gaps.map((g, i) => (i % 5 === 1 ? 0.2 : i % 5 === 2 ? 7200 : g));
    expect(paceOf(ticked(hurried)).handling.move).toBeCloseTo(50, 1);
    expect(paceOf(ticked(gaps.map(() => 0.3))).from).toEqual({});
    expect(paceWords(paceOf(ticked(gaps)))).toContain("from one weld to the next 50 s");
  });
});
