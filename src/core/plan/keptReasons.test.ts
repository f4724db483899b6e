import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { resolveStructure, STARTERS } from "../frame";
import { withMoved } from "./editOrder";
import { TACK_SCHOOLS, WELD_SCHOOLS } from "./schoolIds";
import { chosenOrder, notForFrame, orderOfWork, ownChoice } from "./schools";
import type { Step } from "./step";

const anyOrder = fc.tuple(
  fc.constantFrom(...STARTERS.map((s) => s.name)),
  fc.constantFrom(...TACK_SCHOOLS),
  fc.constantFrom(...WELD_SCHOOLS),
  fc.boolean(),
);

const isWork = ({ id }: Step): boolean => id.do === "tack" || id.do === "bead" || id.do === "flip";
const workBefore = (steps: readonly Step[], i: number): string[] =>
  steps
    .slice(0, i)
    .filter(isWork)
    .map((s) => s.key);

describe("reasons of an order that was begun from a school", () => {
  it("are the school's to the last, as long as nothing was changed", () => {
    fc.assert(
      fc.property(anyOrder, ([name, tack, weld, over]) => {
        const { structure } = resolveStructure(started(name));
        fc.pre([tack, weld].every((id) => notForFrame(id, structure) === null));
        const order = orderOfWork(structure, "surface", tack, weld, over && structure.groups.length === 0);
        const own = chosenOrder(
          structure,
          "surface",
          ownChoice(
            order,
            order.steps.map((s) => s.id),
          ),
        );
        expect(own.steps.map(({ key, why }) => [key, why])).toEqual(order.steps.map(({ key, why }) => [key, why]));
      }),
      { numRuns: 60 },
    );
  });

  it("stand on what they stood on: the same work done, the same piece last; and outside of what was moved they all stand", () => {
    let lost = 0;
    fc.assert(
      fc.property(anyOrder, fc.nat(400), fc.nat(400), ([name, tack, weld], from, to) => {
        const { structure } = resolveStructure(started(name));
        fc.pre([tack, weld].every((id) => notForFrame(id, structure) === null));
        const order = orderOfWork(structure, "surface", tack, weld);
        const [a, b] = [from % order.steps.length, to % order.steps.length];
        const ids = withMoved(
          order.steps.map((s) => s.id),
          a,
          b,
        );
        const { steps } = chosenOrder(structure, "surface", ownChoice(order, ids));
        expect(steps.map((s) => s.id)).toEqual(ids);
        steps.forEach((step, i) => {
          const at = order.steps.findIndex((s) => s.key === step.key);
          const there = order.steps[at] as Step;
          const [here, then] = [workBefore(steps, i), workBefore(order.steps, at)];
          const isAsThere =
            here.at(-1) === then.at(-1) && [...here].sort().join() === [...then].sort().join() && step.up === there.up;
          if (isAsThere && step.closes === there.closes) expect(step.why).toEqual(there.why);
          else {
            lost++;
            expect(["own", "close while it turns"]).toContain(step.why.kind);
          }
          if (i < Math.min(a, b)) expect(step.why).toEqual(there.why);
        });
      }),
      { numRuns: 120 },
    );
    expect(lost).toBeGreaterThan(0);
  });

  it("are none of a step that no school has, nor of any that comes after it and counts on what was done", () => {
    const { structure } = resolveStructure(started("ladder"));
    const order = orderOfWork(structure);
    const first = order.steps.findIndex((s) => s.id.do === "bead");
    const bead = order.steps[first]?.id as Extract<Step["id"], { do: "bead" }>;
    const ids = order.steps.map((s) => s.id);
    const more = { do: "tack" as const, joint: bead.joint, line: bead.line, nth: 9 };
    const { steps } = chosenOrder(
      structure,
      "surface",
      ownChoice(order, [...ids.slice(0, first), more, ...ids.slice(first)]),
    );
    expect(steps.slice(0, first).map((s) => s.why)).toEqual(order.steps.slice(0, first).map((s) => s.why));
    expect(steps.slice(first).every((s) => s.why.kind === "own" || s.closes)).toBe(true);
  });
});
