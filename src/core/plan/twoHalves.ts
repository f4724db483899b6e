import { OrderBuilder } from "./orderBuilder";
import type { Step } from "./step";
import { hingeFace, layDown, lockFace, tackBelow, tackBetween } from "./tacking";
import type { Workpiece } from "./workpiece";

/**
 * Tacking, school "two halves": two L shapes, each set to its angle on one tack, then tacked round its corner; joined at the other two
 * corners. The joined frame is held by its halves: what their angles are off is not closed any more. For four sides that are
 * joined end to end.
 */
export function twoHalves(work: Workpiece): Step[] {
  const order = new OrderBuilder("tack", "top", work.on);
  const halves = work.corners.slice(0, 2);
  const joining = work.corners.slice(2);
  layDown(order, work);
  for (const w of halves) order.weld("tack", w, hingeFace(w), { kind: "half by itself" });
  order.measure("dry fit", 2, { kind: "halves before joining" }, true);
  for (const w of halves) order.weld("tack", w, lockFace(w), { kind: "locks" });
  for (const w of halves) order.weld("tack", w, w.up, { kind: "holds against lifting" });
  for (const w of joining) order.weld("tack", w, hingeFace(w), { kind: "joins the halves" });
  for (const w of joining) order.weld("tack", w, lockFace(w), { kind: "locks" });
  for (const w of joining) order.weld("tack", w, w.up, { kind: "holds against lifting" });
  order.measure("tacked", 1, { kind: "joined" });
  tackBetween(order, work, work.branches);
  tackBelow(order, work);
  order.measure("tacked", 2, { kind: "last cheap moment" });
  return order.steps;
}
