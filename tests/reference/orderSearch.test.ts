// The search among orders against every order there is, on small generated frames.
import { describe, expect, it } from "vitest";
import { weldSpace } from "@/core/job/orderChoices";
import { searching } from "@/core/job/orderSearching";
import { worthBy } from "@/core/job/orderWorth";
import { drain, seeded } from "@/core/numeric";
import { USUAL_ORDER } from "@/core/plan";
import { length } from "@/core/units";
import { squareTube, started } from "../support/drawnFrames";
import { job as jobOf } from "../support/jobs";
import { drawnPlan } from "../support/plans";

/** Every order of some things. */
function orders<T>(list: readonly T[]): T[][] {
  if (list.length < 2) return [[...list]];
  return list.flatMap((x, i) => orders([...list.slice(0, i), ...list.slice(i + 1)]).map((rest) => [x, ...rest]));
}

const FRAMES = 20;
const TRIALS = 40;
const MOST_TURNS = 2;
/** Beads that are left to put in order; the others are kept clear. */
const BEADS = 4;

/** A rectangle or drawbar of any tube, of which few faces get a bead. */
function frame(i: number) {
  const random = seeded(911 + i);
  const any = (from: number, to: number): number => Math.round(from + (to - from) * random());
  const wall = [1.6, 2, 3, 4][any(0, 3)] ?? 3;
  const section = squareTube(any(25, 60), wall);
  const name = i % 2 === 0 ? "rectangle" : "A-shaped drawbar";
  const drawn = started(name, {}, section);
  const plan = drawnPlan(drawn);
  const joints = drawn.members.length;
  return { plan, random, joints };
}

describe("the search among orders of beads", () => {
  it("comes within half a hundredth of the best of all orders, on twenty generated frames", () => {
    const gaps: number[] = [];
    for (let i = 0; i < FRAMES; i++) {
      const { plan, random } = frame(i);
      // Tight limits: chances that differ.
      const limits = plan.limits.kind === "own" ? { ...plan.limits, flat: length("0.6") } : plan.limits;
      const job = jobOf([], () => ({ ...plan, limits }) as typeof plan);
      const worth = worthBy(job);
      const { beads } = weldSpace(job, USUAL_ORDER, 20).start;
      // The first beads are welded already, so that few are left.
      const picked = [...beads].sort(() => random() - 0.5);
      const left = new Set(picked.slice(0, BEADS));
      const done = beads.filter((b) => !left.has(b));
      const ticked = jobOf(
        done.map((step, k) => ({
          kind: "tick",
          id: `00000000-0000-4000-9000-9${String(i).padStart(5, "0")}${String(k).padStart(6, "0")}`,
          at: "2026-11-24T08:00:00.000Z",
          origin: "test",
          step,
          done: true,
        })),
        () => job.plan,
      );
      const few = weldSpace(ticked, USUAL_ORDER, 20);
      expect(few.start.beads).toHaveLength(BEADS);
      expect(few.start.tacks).toEqual([]);
      const all = orders(few.start.beads).map((b) => worth(few.choiceOf({ ...few.start, beads: b })));
      const [best] = drain(searching(ticked, USUAL_ORDER, { trials: TRIALS, mostTurns: 20, seed: i }, worth));
      expect(best).toBeDefined();
      const top = Math.max(...all);
      expect(best?.worth ?? 0).toBeLessThanOrEqual(top + 1e-12);
      gaps.push(Math.exp(top) - Math.exp(best?.worth ?? Number.NEGATIVE_INFINITY));
    }
    expect(Math.max(...gaps)).toBeLessThan(0.005);
  });

  it("honours the most turns that are allowed", () => {
    for (const i of [0, 1]) {
      const { plan } = frame(i);
      const job = jobOf([], () => plan);
      const worth = worthBy(job);
      for (const { choice } of drain(
        searching(job, USUAL_ORDER, { trials: 30, mostTurns: MOST_TURNS, seed: 5 }, worth),
      ))
        expect(choice.by === "schools" ? 0 : choice.steps.filter((s) => s.do === "flip").length).toBeLessThanOrEqual(
          MOST_TURNS,
        );
    }
  });
});
