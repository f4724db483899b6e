import { OrderBuilder } from "./orderBuilder";
import type { Step } from "./step";
import {
  hingeFace,
  hingeReason,
  hingesOf,
  layDown,
  lockFace,
  measureOnOneTack,
  tackBelow,
  tackBetween,
} from "./tacking";
import type { Workpiece } from "./workpiece";

/**
 * Tacking, school "outside first": the middle of the outside of each corner, across; measure and close the error on that one tack; then
 * the top of each and, after the turn, the bottom; the inside last of all.
 */
export function outsideFirst(work: Workpiece): Step[] {
  const order = new OrderBuilder("tack", "top", work.on);
  const { hinges, put } = hingesOf(work);
  layDown(order, work);
  for (const w of hinges) order.weld("tack", w, lockFace(w) ?? hingeFace(w), hingeReason(w, "outside holds", work));
  measureOnOneTack(order, work);
  for (const w of hinges) order.weld("tack", w, w.up, { kind: "top and bottom soon" });
  tackBetween(order, work, put);
  tackBelow(order, work, true);
  for (const w of hinges) order.weld("tack", w, hingeFace(w), { kind: "inside tacked last" });
  order.measure("tacked", 2, { kind: "last cheap moment" });
  return order.steps;
}
