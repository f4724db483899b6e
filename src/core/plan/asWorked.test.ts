import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { resolveStructure, STARTERS } from "../frame";
import { asWorked, without, withRepeat } from "./asWorked";
import { ownOrder, ownOrderProblems } from "./ownOrder";
import { orderOfWork } from "./schools";
import { stepKey } from "./step";

const anyFrame = fc.constantFrom(...STARTERS.map((s) => s.name));

describe("an order as it was worked", () => {
  it("is what was ticked, as it was ticked, then the rest as planned: nothing lost, and as worked once it is taken", () => {
    fc.assert(
      fc.property(anyFrame, fc.array(fc.nat(500), { maxLength: 25 }), (name, picks) => {
        const { structure } = resolveStructure(started(name));
        const steps = orderOfWork(structure).steps.map((s) => s.id);
        const ticked = [...new Set(picks.map((p) => stepKey(steps[p % steps.length] as (typeof steps)[number])))];
        const found = asWorked(steps, ticked);
        if (!found) {
          const worked = ticked.filter((k) => /^(tack|bead|flip)/.test(k));
          expect(worked).toEqual(
            steps
              .map(stepKey)
              .filter((k) => /^(tack|bead|flip)/.test(k))
              .slice(0, worked.length),
          );
          return;
        }
        expect(found.map(stepKey).sort()).toEqual(steps.map(stepKey).sort());
        expect(found.slice(0, ticked.length).map(stepKey)).toEqual(ticked);
        const rest = found.slice(ticked.length).map(stepKey);
        expect(rest).toEqual(steps.map(stepKey).filter((k) => rest.includes(k)));
        expect(asWorked(found, ticked)).toBeNull();
      }),
    );
  });
  it("is as planned while it is ticked in turn, gates passed by or not, and where nothing is ticked", () => {
    const { structure } = resolveStructure(started("ladder"));
    const { steps } = orderOfWork(structure);
    const ids = steps.map((s) => s.id);
    for (let n = 0; n <= steps.length; n++) {
      const first = steps.slice(0, n).map((s) => s.key);
      expect(asWorked(ids, first)).toBeNull();
      expect(
        asWorked(
          ids,
          first.filter((k) => !k.startsWith("measure")),
        ),
      ).toBeNull();
    }
    expect(asWorked(ids, ["cut/M1", "bead/gone/top"])).toBeNull();
  });
});

describe("a weld that is laid once more", () => {
  it("stands right after it, under a number of its own, however often; and is nothing that is wrong", () => {
    fc.assert(
      fc.property(anyFrame, fc.nat(500), fc.integer({ min: 1, max: 3 }), (name, pick, times) => {
        const { structure } = resolveStructure(started(name));
        const steps = orderOfWork(structure).steps.map((s) => s.id);
        const welds = steps.filter((s) => s.do === "tack" || s.do === "bead");
        const id = welds[pick % welds.length] as (typeof welds)[number];
        let now = steps;
        for (let i = 0; i < times; i++) {
          const found = withRepeat(now, id);
          if (!found) throw new Error("no weld");
          expect(found.steps).toHaveLength(now.length + 1);
          expect(found.steps[now.findIndex((s) => stepKey(s) === stepKey(id)) + 1]).toEqual(found.added);
          expect(found.added.nth).toBe(i + 2);
          now = found.steps;
        }
        expect(new Set(now.map(stepKey)).size).toBe(now.length);
        expect(ownOrder(structure, "surface", now)).toHaveLength(now.length);
        expect(ownOrderProblems(structure, now).map((p) => p.message)).toEqual(
          ownOrderProblems(structure, steps).map((p) => p.message),
        );
      }),
      { numRuns: 40 },
    );
  });
  it("is no turn and no gate; what is left out is gone", () => {
    const { structure } = resolveStructure(started("ladder"));
    const ids = orderOfWork(structure).steps.map((s) => s.id);
    expect(withRepeat(ids, { do: "hold" })).toBeNull();
    expect(withRepeat(ids, { do: "bead", joint: "gone", line: "top" })).toBeNull();
    const bead = ids.find((s) => s.do === "bead") as (typeof ids)[number];
    expect(without(ids, bead)).toHaveLength(ids.length - 1);
    expect(without(ids, bead)).not.toContain(bead);
  });
});
