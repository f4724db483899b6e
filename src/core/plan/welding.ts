import type { StructureFace } from "../frame";
import type { OrderBuilder } from "./orderBuilder";
import type { Up } from "./step";
import type { JointWork } from "./workpiece";

/** The face of a joint that looks up while the frame lies so. */
export const facing = (w: JointWork, side: Up): StructureFace | null => (side === "top" ? w.up : w.down);

export const turned = (up: Up): Up => (up === "top" ? "bottom" : "top");

/** Cold in its clamps, off, and measured. */
export function coolAndLetGo(order: OrderBuilder): void {
  order.wait("cold", { kind: "cold in its clamps" });
  order.release({ kind: "now it shows" });
  order.measure("cold", 1, { kind: "only cold counts" });
}
