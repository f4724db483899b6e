import type { StructureFace } from "../frame";
import { norm3, sub3 } from "../numeric";
import type { OrderBuilder } from "./orderBuilder";
import type { Up } from "./step";
import type { JointWork } from "./workpiece";

/** The face of a joint that looks up while the frame lies so. */
export const facing = (w: JointWork, side: Up): StructureFace | null => (side === "top" ? w.up : w.down);

/** Whether no other corner is farther from one than this one is. */
function isAcross(w: JointWork, from: JointWork, corners: readonly JointWork[]): boolean {
  const far = (c: JointWork): number => norm3(sub3(c.joint.at, from.joint.at));
  return far(w) > 0 && far(w) >= Math.max(...corners.map(far)) - SAME_MM;
}

/** Corners are as far away as each other within this, mm. */
const SAME_MM = 1;

/** The outside of every corner, in pairs across from each other. */
export function outsidesAcross(order: OrderBuilder, corners: readonly JointWork[]): void {
  corners.forEach((w, i) => {
    const before = corners[i - 1];
    order.weld(
      "bead",
      w,
      w.second,
      before && isAcross(w, before, corners)
        ? { kind: "across from", joint: before.joint.id }
        : { kind: "outside first" },
    );
  });
}

/** Cold in its clamps, off, and measured. */
export function coolAndLetGo(order: OrderBuilder): void {
  order.wait("cold", { kind: "cold in its clamps" });
  order.release({ kind: "now it shows" });
  order.measure("cold", 1, { kind: "only cold counts" });
}
