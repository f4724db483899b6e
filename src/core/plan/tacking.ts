import type { StructureFace } from "../frame";
import type { OrderBuilder } from "./orderBuilder";
import { allJoints, type JointWork, type Workpiece } from "./workpiece";

/** The face that lets a joint still turn: the inside of a corner, else the first that can be reached. */
export const hingeFace = (w: JointWork): StructureFace | null => w.first ?? w.second ?? w.more[0] ?? w.up;

/** The face across from it. */
export const lockFace = (w: JointWork): StructureFace | null => (w.first ? w.second : null);

/** Joints that are tacked first, and what is put between them when they hold. */
export const hingesOf = (work: Workpiece): { hinges: JointWork[]; put: JointWork[] } => ({
  hinges: work.ring ? work.corners : allJoints(work),
  put: work.ring ? work.branches : [],
});

/** Lays it down and looks at it dry. */
export function layDown(order: OrderBuilder, { structure }: Workpiece): void {
  order.hold({ kind: "bed holds flat", stands: structure.members.some((m) => Math.abs(m.axes[0][2]) > 0.5) });
  order.measure("dry fit", 1, { kind: "error costs a nudge" });
}

/** Tacks what is put into a ring that holds. */
export function tackBetween(order: OrderBuilder, put: readonly JointWork[]): void {
  for (const w of put) {
    order.weld("tack", w, hingeFace(w), { kind: "corners are locked" });
    order.weld("tack", w, lockFace(w), { kind: "opposes the other side" });
    if (w.corner) order.weld("tack", w, w.up, { kind: "holds against lifting" });
  }
}

/** Turns the frame and tacks what looked down: corners, and what can be reached from below alone, whatever kind it is. */
export function tackBelow(order: OrderBuilder, work: Workpiece): void {
  const all = allJoints(work);
  const below = [...all.filter((w) => w.corner && w.down), ...all.filter((w) => w.down && !hingeFace(w))];
  if (below.length > 0) order.turn("bottom", { kind: "below wants a tack" });
  for (const w of below) order.weld("tack", w, w.down, { kind: "opposes above" });
}

/** Why a joint is tacked when it is: the first of a row by itself, every other against the one before. */
export const pullsAgainst = (before: JointWork | undefined, first: "joint still turns" | "outside holds") =>
  before ? ({ kind: "pulls against", joint: before.joint.id } as const) : ({ kind: first } as const);
