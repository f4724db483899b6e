import { OrderBuilder } from "./orderBuilder";
import type { Step } from "./step";
import { belowReason, hingeFace, layDown, lockFace } from "./tacking";
import { allJoints, type Workpiece } from "./workpiece";

/**
 * Tacking, school "all held": everything is clamped, every joint is tacked on all faces that can be reached, one after the other, and
 * nothing is let go before both sides hold. No joint is left to turn, so no error is closed on the way.
 */
export function allHeld(work: Workpiece): Step[] {
  const order = new OrderBuilder("tack", "top", work.on);
  const all = allJoints(work);
  layDown(order, work);
  for (const w of all) {
    order.weld("tack", w, hingeFace(w), { kind: "all faces at once" });
    order.weld("tack", w, lockFace(w), { kind: "locks" });
    order.weld("tack", w, w.up, { kind: "holds against lifting" });
    for (const f of w.more) order.weld("tack", w, f, { kind: "all faces at once" });
  }
  const below = all.filter((w) => w.down);
  if (below.length > 0) order.turn("bottom", { kind: "below wants a tack" });
  for (const w of below) order.weld("tack", w, w.down, belowReason(w));
  order.measure("tacked", 1, { kind: "what it took" });
  return order.steps;
}
