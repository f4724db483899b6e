import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { drawnPlan } from "../../../tests/support/plans";
import { builtOf, weldOf } from "../job";
import { drain } from "../numeric";
import { chosenOrder, heldMechanics, loadSteps, type OrderChoice, ownChoice, USUAL_ORDER } from "../plan";
import { FACTORS, NOMINAL_JOINTS, withHeatShare } from "../weld";
import { frameOutputs } from "./frameOutcomes";
import { nominalRun } from "./nominalRun";

/** The nominal frame by an order; kept for the next, or worked out anew. */
function run(name: string, orderOf: (usual: OrderChoice) => OrderChoice, keep: boolean, more = 1): Float64Array {
  const { structure, on } = builtOf(drawnPlan(started(name)));
  if (!structure) throw new Error("no frame");
  const { mechanics, by } = heldMechanics(structure, on);
  const { steps } = chosenOrder(structure, on, orderOf(USUAL_ORDER));
  const load = loadSteps(structure, withHeatShare(weldOf(drawnPlan(started(name))), more), steps, by);
  const outputs = frameOutputs(structure, mechanics.joints);
  return drain(nominalRun(mechanics.frame, load, FACTORS, NOMINAL_JOINTS, outputs, keep ? "drawn" : null)).out;
}

/** The usual order with one step more, or its beads backward. */
const tackedMore = (name: string) => (): OrderChoice => {
  const { structure, order } = builtOf(drawnPlan(started(name)));
  if (!structure || !order) throw new Error("no frame");
  const ids = order.steps.map((s) => s.id);
  const bead = ids.findLast(
    (id) => id.do === "bead" && !ids.some((t) => t.do === "tack" && t.joint === id.joint && t.line === id.line),
  );
  const at = ids.findIndex((id) => id.do === "bead");
  if (bead?.do !== "bead") return ownChoice(order, [...ids].reverse());
  return ownChoice(order, [...ids.slice(0, at), { do: "tack", joint: bead.joint, line: bead.line }, ...ids.slice(at)]);
};

describe("a frame that is kept for another order", () => {
  it("comes to the same as one worked out anew, whatever order or current was run on it before", () => {
    for (const name of ["ladder", "gate leaf", "A-shaped drawbar"]) {
      const strength = (usual: OrderChoice): OrderChoice => ({ ...usual, weld: "strength first" });
      const orders = [(usual: OrderChoice) => usual, strength, tackedMore(name), (usual: OrderChoice) => usual];
      for (const [i, order] of orders.entries()) {
        // Another current is another load on the same frame.
        const more = 1 + 0.2 * i;
        const [kept, anew] = [run(name, order, true, more), run(name, order, false, more)];
        expect(Math.max(...anew.map(Math.abs)), name).toBeGreaterThan(0.1);
        expect(Math.max(...anew.map((v, i) => Math.abs(v - (kept[i] ?? Number.NaN)))), name).toBeLessThan(1e-9);
      }
    }
  });
});
