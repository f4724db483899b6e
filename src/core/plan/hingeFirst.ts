import type { StructureFace } from "../frame";
import { OrderBuilder } from "./orderBuilder";
import type { Step } from "./step";
import { allJoints, type JointWork, type Workpiece } from "./workpiece";

/** The face that lets a joint still turn: the inside of a corner, else the first that can be reached. */
const hingeFace = (w: JointWork): StructureFace | null => w.first ?? w.second ?? w.more[0] ?? w.up;

/** The face across from it. */
const lockFace = (w: JointWork): StructureFace | null => (w.first ? w.second : null);

/**
 * Tacking, school "hinge first": one tack inside each corner, measure across, close the error while the corners still hinge, lock on
 * the outside, then the upper faces; what is put into the ring comes when it is locked; faces below after the turn. A frame
 * without a ring hinges at every joint.
 */
export function hingeFirst(work: Workpiece): Step[] {
  const order = new OrderBuilder("tack", "top", work.on);
  const { structure } = work;
  const hinges = work.ring ? work.corners : allJoints(work);
  const put = work.ring ? work.branches : [];
  const corners = allJoints(work).filter((w) => w.corner);
  order.hold({ kind: "bed holds flat", stands: structure.members.some((m) => Math.abs(m.axes[0][2]) > 0.5) });
  order.measure("dry fit", 1, { kind: "error costs a nudge" });
  hinges.forEach((w, i) => {
    const before = hinges[i - 1];
    order.weld(
      "tack",
      w,
      hingeFace(w),
      before ? { kind: "pulls against", joint: before.joint.id } : { kind: "joint still turns" },
    );
  });
  order.measure("tacked", 1, { kind: "close while it turns" }, true);
  for (const w of hinges) order.weld("tack", w, lockFace(w), { kind: "locks" });
  for (const w of work.corners) order.weld("tack", w, w.up, { kind: "holds against lifting" });
  for (const w of put) {
    order.weld("tack", w, hingeFace(w), { kind: "corners are locked" });
    order.weld("tack", w, lockFace(w), { kind: "opposes the other side" });
    if (w.corner) order.weld("tack", w, w.up, { kind: "holds against lifting" });
  }
  // What can be reached from below alone is tacked there, whatever kind it is.
  const below = [...corners.filter((w) => w.down), ...allJoints(work).filter((w) => w.down && !hingeFace(w))];
  if (below.length > 0) order.turn("bottom", { kind: "below wants a tack" });
  for (const w of below) order.weld("tack", w, w.down, { kind: "opposes above" });
  order.measure("tacked", 2, { kind: "last cheap moment" });
  return order.steps;
}
