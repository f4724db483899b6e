import { OrderBuilder } from "./orderBuilder";
import { type Step, turned, type Up } from "./step";
import { coolAndLetGo, facing } from "./welding";
import { alongLayout, type Workpiece } from "./workpiece";

/**
 * Welding, school "joint by joint": along the layout, every face of a joint that can be reached before the next; the faces below after
 * the turn, along the same way.
 * @param up how the frame lies when tacking ends.
 */
export function jointByJoint(work: Workpiece, up: Up): Step[] {
  const order = new OrderBuilder("weld", up, work.on);
  const all = alongLayout(work);
  for (const w of all)
    for (const f of [w.second, w.first, ...w.more, facing(w, up)]) order.weld("bead", w, f, { kind: "as they come" });
  order.wait("touch", { kind: "hot reads long" });
  if (all.some((w) => facing(w, turned(up)))) order.turn(turned(up), { kind: "below in one go" });
  for (const w of all) order.weld("bead", w, facing(w, turned(up)), { kind: "below in one go" });
  coolAndLetGo(order);
  return order.steps;
}
