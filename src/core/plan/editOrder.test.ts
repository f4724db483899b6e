import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ladder } from "../../../tests/support/ladder";
import { additionsTo, withAdded, withMoved } from "./editOrder";
import { ownOrderProblems } from "./ownOrder";
import { chosenOrder, orderOfWork } from "./schools";
import { stepKey } from "./step";

const structure = ladder(1);
const ids = orderOfWork(structure).steps.map((s) => s.id);

describe("an order that is edited", () => {
  it("keeps its steps when one is moved, and moving back undoes it", () => {
    fc.assert(
      fc.property(fc.nat(ids.length - 1), fc.nat(ids.length - 1), (from, to) => {
        const moved = withMoved(ids, from, to);
        expect(stepKey(moved[to] as (typeof ids)[number])).toBe(stepKey(ids[from] as (typeof ids)[number]));
        expect(moved.map(stepKey).sort()).toEqual(ids.map(stepKey).sort());
        expect(withMoved(moved, to, from)).toEqual(ids);
      }),
    );
    expect(withMoved(ids, 0, -1)).toEqual(ids);
    expect(withMoved(ids, 3, ids.length)).toEqual(ids);
  });
  it("offers what is missing first, and is whole again with it", () => {
    const at = ids.findIndex((id) => stepKey(id) === "bead/A/top");
    const without = ids.filter((_, i) => i !== at);
    const [first] = additionsTo(structure, without);
    expect(first).toEqual({ id: ids[at], say: "Weld A, top face" });
    expect(withAdded(without, first?.id as (typeof ids)[number], at - 1)).toEqual(ids);
    const late = withAdded(without, first?.id as (typeof ids)[number], null);
    expect(late.findIndex((id) => stepKey(id) === "bead/A/top")).toBe(
      late.findIndex((id) => id.do === "wait" && id.until === "cold") - 1,
    );
  });
  it("offers turns and gates as often as one likes, each a step of its own", () => {
    for (const say of [
      "Turn the frame over",
      "Measure, tacked",
      "Wait until it is cold",
      "Tack A, inside corner, once more",
    ]) {
      const once = additionsTo(structure, ids).find((a) => a.say === say);
      if (!once) throw new Error(say);
      const more = withAdded(ids, once.id, 4);
      const twice = additionsTo(structure, more).find((a) => a.say === say);
      expect(stepKey(twice?.id as (typeof ids)[number])).not.toBe(stepKey(once.id));
      expect(ownOrderProblems(structure, more).some((p) => p.message.includes("Twice"))).toBe(false);
    }
  });
  it("still turns on two tacks of one face, and no more on tacks of two", () => {
    const closes = (list: typeof ids): boolean =>
      chosenOrder(structure, "surface", { by: "own", tack: "hinge first", weld: "skip", steps: list }).steps.some(
        (s) => s.key === "measure/tacked" && s.closes,
      );
    const before = ids.findIndex((id) => id.do === "measure" && id.gate === "tacked");
    const [hinge] = ids.filter((id) => id.do === "tack");
    if (hinge?.do !== "tack") throw new Error("a tack");
    expect(closes(withAdded(ids, { ...hinge, nth: 2 }, before - 1))).toBe(true);
    expect(closes(withAdded(ids, { do: "tack", joint: hinge.joint, line: "top" }, before - 1))).toBe(false);
  });
});
