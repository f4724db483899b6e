import { lyingMembers } from "../fixture";
import { isRound, type StructureFace } from "../frame";
import type { OrderBuilder } from "./orderBuilder";
import type { Reason } from "./reason";
import { stillTurns } from "./stillTurns";
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
  const stands = structure.members.some((m) => Math.abs(m.axes[0][2]) > 0.5);
  order.hold({ kind: "bed holds flat", stands, rolls: lyingMembers(structure).every((m) => isRound(m.shape)) });
  order.measure("dry fit", 1, { kind: "error costs a nudge" });
}

/** Whether a branch has an end at which nothing is joined: a leg, an arm. */
const hangsFree = ({ structure }: Workpiece, { joint }: JointWork): boolean => {
  const ends = structure.members.find((m) => m.id === joint.b)?.ends;
  return ends !== undefined && (ends.from.joints.length === 0 || ends.to.joints.length === 0);
};

/**
 * A second side to tack of a branch that has none across from its first: what fits into a corner stands there with two walls that meet, and
 * where another member covers one side its top is left. An end that stands on several is held by the tacks of all of them.
 */
function nextFace({ structure }: Workpiece, { joint, first, second, more, up }: JointWork): StructureFace | null {
  if (!first || second) return null;
  const standsOn = structure.joints.filter((j) => j.b === joint.b && j.endB === joint.endB && j.kind !== "lap");
  return more[0] ?? (standsOn.length === 1 ? up : null);
}

/** Tacks what is put into a ring that holds, or onto it. */
export function tackBetween(order: OrderBuilder, work: Workpiece, put: readonly JointWork[]): void {
  for (const w of put) {
    order.weld("tack", w, hingeFace(w), { kind: hangsFree(work, w) ? "far end is free" : "corners are locked" });
    order.weld("tack", w, lockFace(w), { kind: "both sides hold" });
    order.weld("tack", w, nextFace(work, w), { kind: "one tack turns" });
    if (w.corner) order.weld("tack", w, w.up, { kind: "holds against lifting" });
  }
}

/**
 * Turns the frame and tacks what looked down: corners, and what can be reached from below alone, whatever kind it is.
 * @param left whether a side of the corners is left to the end.
 */
export function tackBelow(order: OrderBuilder, work: Workpiece, left = false): void {
  const all = allJoints(work);
  const below = [...all.filter((w) => w.corner && w.down), ...all.filter((w) => w.down && !hingeFace(w))];
  if (below.length > 0) order.turn("bottom", { kind: "below wants a tack" });
  for (const w of below) order.weld("tack", w, w.down, left ? { kind: "below wants a tack" } : belowReason(w));
}

/** Why a face that looked down is tacked: the last of a joint's, or the first of what can be reached from below alone. */
export const belowReason = (w: JointWork): Reason =>
  w.corner || hingeFace(w) ? { kind: "every side holds" } : { kind: "below wants a tack" };

/** Whether a frame gives way in its plane when each of its hinges has its one tack. */
const turnsOnHinges = (work: Workpiece): boolean =>
  stillTurns(
    work.structure,
    hingesOf(work).hinges.flatMap((w) => (hingeFace(w) ? [w.joint] : [])),
    work.rigid,
  );

/** Measures when every hinge has its one tack, and closes the error where something still turns. */
export function measureOnOneTack(order: OrderBuilder, work: Workpiece): void {
  const turns = turnsOnHinges(work);
  order.measure("tacked", 1, { kind: turns ? "close while it turns" : "stiff already" }, turns);
}

/** Why a joint is held by one tack when it is: pieces of seam along a member come from its ends inward. */
export const hingeReason = (
  { joint }: JointWork,
  reason: "joint still turns" | "outside holds",
  work: Workpiece,
): Reason => {
  if (joint.along) return { kind: "ends before middle" };
  return { kind: turnsOnHinges(work) ? reason : "one before the next" };
};

/**
 * The same for tacks inside the corners of a ring, which come in pairs across: two across a diagonal pull the frame out of square alike, the
 * other two against them.
 */
export function insideReason(w: JointWork, i: number, work: Workpiece): Reason {
  const { ring, corners } = work;
  const [a, across] = corners.map((c) => c.joint.id);
  // Outside ones bear it out only now and then: where the inside of one is covered, it is said of none.
  if (!ring || i === 0 || corners.some((c) => !c.first) || a === undefined || across === undefined)
    return hingeReason(w, "joint still turns", work);
  return i === 1 ? { kind: "pulls alike", joint: a } : { kind: "pulls against", joints: [a, across] };
}
