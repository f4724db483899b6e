import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { ladder } from "../../../tests/support/ladder";
import { drawnPlan } from "../../../tests/support/plans";
import { builtOf, comparing, type Job, orderAdvice, planProblems, schoolsToLookAt } from "../job";
import { searching } from "../job/orderSearching";
import { drain } from "../numeric";
import type { HeldWeld, Hold } from "./holdSchema";
import { brokenHolds, circleOf, holdOf, holdProblems } from "./holds";
import { HOLD_UNTIL } from "./holdUntil";
import { chosenOrder, orderOfWork } from "./schools";
import { USUAL_ORDER } from "./usualOrder";

const FRAMES = ["ladder", "gate leaf", "A-shaped drawbar", "table base"] as const;

/** Beads of a frame, and holds among them that are in no circle: of two the later in a random row waits for the earlier. */
const anyHeld = fc.record({
  frame: fc.constantFrom(...FRAMES),
  pairs: fc.array(fc.tuple(fc.nat(), fc.nat(), fc.constantFrom(...HOLD_UNTIL)), { minLength: 1, maxLength: 6 }),
  row: fc.integer({ min: 1, max: 1e6 }),
});
function heldJob({ frame, pairs, row }: { frame: string; pairs: [number, number, Hold["until"]][]; row: number }): Job {
  const plain = jobOf([], () => drawnPlan(started(frame)));
  const { structure } = builtOf(plain.plan);
  if (!structure) throw new Error("no frame");
  const beads: HeldWeld[] = orderOfWork(structure).steps.flatMap((s) =>
    s.id.do === "bead" ? [{ do: "bead" as const, joint: s.id.joint, line: s.id.line }] : [],
  );
  const place = (i: number): number => (i * 7919 + row) % 104_729;
  const holds = pairs.flatMap(([a, b, until]) => {
    const [i, j] = [a % beads.length, b % beads.length];
    if (i === j) return [];
    const [first, second] = place(i) < place(j) ? [i, j] : [j, i];
    return [holdOf(beads[second] as HeldWeld, beads[first] as HeldWeld, until)];
  });
  const each = [...new Map(holds.map((h) => [h.id, h])).values()];
  return { ...plain, plan: { ...plain.plan, holds: each } };
}

describe("welds that wait for others", () => {
  it("wait in every order that is compared and in every one that a search makes, and nothing is lost by it", () => {
    fc.assert(
      fc.property(anyHeld, (any) => {
        const job = heldJob(any);
        const { structure, on } = builtOf(job.plan);
        const holds = job.plan.holds ?? [];
        if (!structure) throw new Error("no frame");
        const beads = structure.joints.flatMap((j) => j.faces.filter((f) => f.bead)).length;
        expect(circleOf(holds)).toBeNull();
        const schools = drain(schoolsToLookAt(job, () => undefined)).slice(1);
        const start = schools[any.row % schools.length];
        if (!start) throw new Error("no school");
        let n = 0;
        const found = drain(searching(job, start, { trials: 12, mostTurns: 6, seed: any.row }, () => n++));
        expect(found.length).toBeGreaterThan(0);
        for (const choice of [...schools, ...found.map((f) => f.choice)]) {
          const { steps } = chosenOrder(structure, on, choice);
          expect(
            brokenHolds(
              steps.map((s) => s.id),
              holds,
            ),
          ).toEqual([]);
          expect(holdProblems(structure, steps, holds)).toEqual([]);
          expect(steps.filter((s) => s.id.do === "bead").length).toBe(beads);
          expect(new Set(steps.map((s) => s.key)).size).toBe(steps.length);
        }
      }),
      { numRuns: 12 },
    );
  });
  it("in a circle are named, as are those of welds that are gone and those that the order does not keep", () => {
    const structure = ladder(1);
    const { steps } = orderOfWork(structure);
    const bead = (joint: string, line: HeldWeld["line"]): HeldWeld => ({ do: "bead", joint, line });
    const [a, b, c] = [bead("A", "top"), bead("B", "top"), bead("C", "top")];
    const said = (...holds: Hold[]): string =>
      holdProblems(structure, steps, holds)
        .map((p) => p.message)
        .join(" ");
    const circle = said(holdOf(a, b, "laid"), holdOf(b, c, "cold"), holdOf(c, a, "touch"));
    expect(circle).toMatch(/in a circle/);
    for (const corner of ["A", "B", "C"]) expect(circle).toContain(`bead at ${corner}, top face`);
    expect(said(holdOf(bead("A", "outside"), bead("A", "inside"), "laid"))).toMatch(
      /^Not kept in this order: bead at A, outside corner: not before bead at A, inside corner is laid\.$/,
    );
    expect(said(holdOf(bead("A", "inside"), bead("A", "outside"), "laid"))).toBe("");
    expect(said(holdOf(a, bead("Z", "top"), "laid"))).toMatch(/no longer has/);
  });
  it("are told with the plan, which is kept all the same", () => {
    const job = jobOf([], (p) => ({
      ...p,
      holds: [holdOf({ do: "bead", joint: "A", line: "outside" }, { do: "bead", joint: "B", line: "inside" }, "cold")],
    }));
    const said = planProblems(job.plan).filter((p) => p.path === "order");
    expect(said.map((p) => p.severity)).toEqual(["warning"]);
    expect(said[0]?.message).toMatch(/B, inside corner is cold/);
  });
});

describe("the advice where welds wait", () => {
  it("is an order that keeps it, and says that the one as planned does not", () => {
    const hold = holdOf(
      { do: "bead", joint: "A", line: "outside" },
      { do: "bead", joint: "C", line: "inside" },
      "cold",
    );
    const job = jobOf([], (p) => ({ ...p, holds: [hold] }));
    const outlooks = drain(comparing(job, { trials: 0, mostTurns: 2 }, () => undefined, 24));
    const { choice, words } = orderAdvice(outlooks, USUAL_ORDER, "mm");
    const { structure, on } = builtOf(job.plan);
    if (!structure || !choice) throw new Error("no advice");
    const ids = chosenOrder(structure, on, choice).steps.map((s) => s.id);
    expect(brokenHolds(ids, [hold])).toEqual([]);
    expect(words[0]).toMatch(/^Advised: .*The order as planned does not keep what must wait, so it does not count\.$/);
    const waits = ids.findIndex((id) => id.do === "wait" && id.until === "cold");
    expect(waits).toBeLessThan(ids.findIndex((id) => id.do === "bead" && id.joint === "A" && id.line === "outside"));
    // Nobody is asked to keep anything: then the same order counts.
    const free = drain(
      comparing({ ...job, plan: { ...job.plan, holds: undefined } }, { trials: 0, mostTurns: 2 }, () => undefined, 24),
    );
    expect(free.every((o) => o.keeps)).toBe(true);
  });
});

describe("what whoever welds can do", () => {
  const drawbar = (hands: NonNullable<Job["plan"]["hands"]>): Job =>
    jobOf([], () => ({ ...drawnPlan(started("ladder")), hands }));
  const anyOrderOf = (job: Job, mostTurns: number) => {
    const [start] = drain(schoolsToLookAt(job, () => undefined));
    let n = 0;
    return start ? drain(searching(job, start, { trials: 10, mostTurns }, () => n++)) : [];
  };
  it("without overhead has no order that is never turned over; with it there is one, whole", () => {
    expect(anyOrderOf(drawbar({}), 0)).toEqual([]);
    const job = drawbar({ overhead: true });
    const found = anyOrderOf(job, 1);
    expect(found.length).toBeGreaterThan(0);
    for (const { choice } of found) {
      const plan = { ...job.plan, order: choice };
      expect(builtOf(plan).order?.steps.filter((s) => s.id.do === "flip").length).toBeLessThan(2);
      expect(planProblems(plan).filter((p) => p.path === "order")).toEqual([]);
    }
  });
  it("without upright names the seams that stand upright, and how to come at them", () => {
    const [said] = planProblems(drawbar({ noUpright: true }).plan).filter((p) => p.path === "order");
    expect(said?.message).toMatch(/^Upright as the frame lies, and not welded so here: .*corner/);
    expect(planProblems(drawbar({}).plan).filter((p) => p.path === "order")).toEqual([]);
  });
});
