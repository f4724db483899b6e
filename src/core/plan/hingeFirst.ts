import { OrderBuilder } from "./orderBuilder";
import type { Step } from "./step";
import {
  hingeFace,
  hingesOf,
  insideReason,
  layDown,
  lockFace,
  measureOnOneTack,
  tackBelow,
  tackBetween,
} from "./tacking";
import type { Workpiece } from "./workpiece";

/**
 * Tacking, school "hinge first": one tack inside each corner, measure across, close the error while the corners still hinge, lock on
 * the outside, then the upper faces; what is put into the ring comes when it is locked; faces below after the turn. A frame
 * without a ring hinges at every joint, where that leaves it anything to turn.
 */
export function hingeFirst(work: Workpiece): Step[] {
  const order = new OrderBuilder("tack", "top", work.on);
  const { hinges, put } = hingesOf(work);
  layDown(order, work);
  hinges.forEach((w, i) => {
    order.weld("tack", w, hingeFace(w), insideReason(w, i, work));
  });
  measureOnOneTack(order, work);
  for (const w of hinges) order.weld("tack", w, lockFace(w), { kind: "locks" });
  for (const w of work.corners) order.weld("tack", w, w.up, { kind: "holds against lifting" });
  tackBetween(order, work, put);
  tackBelow(order, work);
  order.measure("tacked", 2, { kind: "last cheap moment" });
  return order.steps;
}
