import { OrderBuilder } from "./orderBuilder";
import { type Step, turned, type Up } from "./step";
import { coolAndLetGo, facing, outsidesAcross } from "./welding";
import { allJoints, type JointWork, type Workpiece } from "./workpiece";

/**
 * Welding, school "corners then field": every corner is finished, outside, both flat faces and inside, before anything between is
 * touched; then what is put between, jumping about.
 * @param up how the frame lies when tacking ends.
 */
export function cornersThenField(work: Workpiece, up: Up): Step[] {
  const order = new OrderBuilder("weld", up, work.on);
  const all = allJoints(work);
  const corners = all.filter((w) => w.corner);
  const branches = all.filter((w) => !w.corner);
  outsidesAcross(order, corners);
  flats(order, corners);
  for (const w of corners) for (const f of w.more) order.weld("bead", w, f, { kind: "while it is up" });
  for (const w of corners) order.weld("bead", w, w.first, { kind: "inside last" });
  if (branches.length > 0) order.wait("touch", { kind: "corners cool first" });
  for (const w of branches) order.weld("bead", w, w.first, { kind: "field jumps about" });
  for (const w of branches) order.weld("bead", w, w.second, { kind: "opposes the other side" });
  for (const w of branches) for (const f of w.more) order.weld("bead", w, f, { kind: "while it is up" });
  flats(order, branches);
  coolAndLetGo(order);
  return order.steps;
}

/** The faces that look up as the frame lies, then, when it is turned, the others. */
function flats(order: OrderBuilder, of: readonly JointWork[]): void {
  const { up } = order;
  for (const w of of) order.weld("bead", w, facing(w, up), { kind: "face all round" });
  if (of.some((w) => facing(w, turned(up)))) order.turn(turned(up), { kind: "second takes back" });
  for (const w of of)
    order.weld("bead", w, facing(w, turned(up)), { kind: facing(w, up) ? "second takes back" : "while it is up" });
}
