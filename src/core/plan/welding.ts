import type { StructureFace } from "../frame";
import type { OrderBuilder } from "./orderBuilder";
import type { Up } from "./step";
import type { JointWork } from "./workpiece";

/** The face of a joint that looks up while the frame lies so. */
export const facing = (w: JointWork, side: Up): StructureFace | null => (side === "top" ? w.up : w.down);

/** The outside of every corner, each across from the one before. */
export function outsidesAcross(order: OrderBuilder, corners: readonly JointWork[]): void {
  corners.forEach((w, i) => {
    const before = corners[i - 1];
    order.weld(
      "bead",
      w,
      w.second,
      before ? { kind: "across from", joint: before.joint.id } : { kind: "outside first" },
    );
  });
}

/** Cold in its clamps, off, and measured. */
export function coolAndLetGo(order: OrderBuilder): void {
  order.wait("cold", { kind: "cold in its clamps" });
  order.release({ kind: "now it shows" });
  order.measure("cold", 1, { kind: "only cold counts" });
}
