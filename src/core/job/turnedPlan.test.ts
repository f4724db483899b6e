import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FREE_FRAMES, started } from "../../../tests/support/drawnFrames";
import { withDrawn } from "../../../tests/support/plans";
import { resolveStructure, STARTERS, type Structure, TURN_NAMES } from "../frame";
import { holdOf, type OrderChoice } from "../plan";
import { length } from "../units";
import { seamId } from "../weld";
import { builtOf } from "./built";
import { layOut } from "./layOut";
import { partPlan } from "./partPlan";
import { newPlan, planProblems } from "./plan";
import { type Plan, planSchema } from "./planSchema";
import { turnedPlan } from "./turnedPlan";

const FRAMES = { ...Object.fromEntries(STARTERS.map((s) => [s.name, started(s.name)])), ...FREE_FRAMES };
const planOf = (name: string): Plan => withDrawn(newPlan(name, "mm"), FRAMES[name as keyof typeof FRAMES]);
const structureOf = (plan: Plan): Structure => {
  if (plan.frame.by !== "members") throw new Error("not drawn");
  return resolveStructure(plan.frame.drawn).structure;
};

/** A plan that says something of every face of its joints. */
function said(name: string): Plan {
  const plan = planOf(name);
  const places = structureOf(plan).joints.flatMap((j) => j.faces.map((f) => ({ joint: j.id, line: f.line })));
  const [first, last] = [places[0], places.at(-1)];
  if (!first || !last) return plan;
  const order: OrderChoice = {
    by: "own",
    tack: "hinge first",
    weld: "across and around",
    steps: places.map((p) => ({ do: "bead", ...p })),
  };
  return {
    ...plan,
    order,
    weld: { ...plan.weld, seams: [{ id: seamId(first), lengths: 2 }] },
    found: [{ id: last.joint, gap: length("1"), line: last.line, faces: [{ line: last.line, gap: length("1") }] }],
    holds: first === last ? [] : [holdOf({ do: "bead", ...first }, { do: "bead", ...last }, "cold")],
    drill: [
      {
        id: "H1",
        member: structureOf(plan).members[0]?.id ?? "",
        for: "mounting",
        at: length("100"),
        face: "top",
        diameter: length("9"),
        through: true,
      },
    ],
  };
}

describe("a plan whose frame is turned", () => {
  it("speaks of the same faces, and turned on until it lies as before is the plan that it was", () => {
    fc.assert(
      fc.property(fc.constantFrom(...Object.keys(FRAMES)), fc.constantFrom(...TURN_NAMES), (name, turn) => {
        const plan = said(name);
        const once = turnedPlan(plan, turn);
        expect(planSchema.safeParse(once).error).toBeUndefined();
        // Every weld of the order is a face that the joint has, each once.
        const faces = structureOf(once).joints.flatMap((j) => j.faces.map((f) => `${j.id} ${f.line}`));
        const laid =
          once.order?.by === "own" ? once.order.steps.flatMap((s) => ("line" in s ? `${s.joint} ${s.line}` : [])) : [];
        expect(laid.toSorted()).toEqual(faces.toSorted());
        let now = plan;
        for (let i = 0; i < (turn === "upside down" ? 2 : 4); i++) now = turnedPlan(now, turn);
        const { frame: _is, ...rest } = now;
        const { frame: _was, ...before } = plan;
        expect(rest).toEqual(before);
      }),
      { numRuns: 80 },
    );
  });
  it("that is entered by its sizes stays as it is", () => {
    const plan = newPlan("Base", "mm");
    expect(turnedPlan(plan, "upside down")).toBe(plan);
  });
});

describe("a part of a frame as a job of its own", () => {
  it("can be laid out for every frame and any of its members, with rests under it and nothing of the whole left in it", () => {
    fc.assert(
      fc.property(fc.constantFrom(...Object.keys(FRAMES)), fc.integer({ min: 2, max: 9 }), (name, many) => {
        const plan = said(name);
        const ids = structureOf(plan)
          .members.map((m) => m.id)
          .slice(0, many);
        const part = partPlan(plan, ids, "Part") as Plan;
        expect(planSchema.safeParse(part).error).toBeUndefined();
        expect(planProblems(part).filter((p) => p.severity === "error" && !p.path.startsWith("frame.drawn."))).toEqual(
          [],
        );
        expect(part.bed.rests.length).toBeGreaterThanOrEqual(2);
        expect([part.found, part.holds, part.weld.seams, part.drill]).toEqual([undefined, undefined, undefined, []]);
        expect([part.limits, part.weld.process, part.stock]).toEqual([plan.limits, plan.weld.process, plan.stock]);
      }),
      { numRuns: 60 },
    );
    expect(partPlan(planOf("table base"), ["NONE"], "Part")).toBeNull();
    expect(partPlan(newPlan("Base", "mm"), ["AB"], "Part")).toBeNull();
  });
  it("lies flat where the whole stands: one side of a table on its feet has no riser and nothing in the air", () => {
    const table = withDrawn(newPlan("Table", "mm"), started("table base", { way: "on its feet" }));
    const side = structureOf(table)
      .members.filter((m) => m.from[0] < 200 && m.to[0] < 200)
      .map((m) => m.id);
    const part = partPlan(table, side, "Side") as Plan;
    const { structure } = builtOf(part);
    if (!structure) throw new Error("cannot be built");
    expect(structure.high[2] - structure.low[2]).toBeLessThan(60);
    expect(layOut(part, structure, null).fixture.raised).toEqual([]);
  });
});
