import { OrderBuilder } from "./orderBuilder";
import { type Step, turned, type Up } from "./step";
import { coolAndLetGo, facing, outsidesAcross } from "./welding";
import { allJoints, type Workpiece } from "./workpiece";

/**
 * Welding, school "across and around": outside seams first, always to the opposite corner, then one face all round, the turn, the
 * other face, insides last; what is put into the ring jumps about, a class of faces at a time.
 * @param up how the frame lies when tacking ends.
 */
export function acrossAndAround(work: Workpiece, up: Up): Step[] {
  const order = new OrderBuilder("weld", up, work.on);
  const all = allJoints(work);
  const corners = all.filter((w) => w.corner);
  const branches = all.filter((w) => !w.corner);
  outsidesAcross(order, corners);
  order.wait("touch", { kind: "hot reads long" });
  // Everything on the face that is up already, then what is left: a frame is turned no more often than its faces need.
  const other = turned(up);
  for (const w of all) order.weld("bead", w, facing(w, up), { kind: "face all round" });
  if (all.some((w) => facing(w, other))) order.turn(other, { kind: "second takes back" });
  for (const w of corners) order.weld("bead", w, facing(w, other), { kind: "second takes back" });
  for (const w of corners) for (const f of w.more) order.weld("bead", w, f, { kind: "while it is up" });
  for (const w of corners) order.weld("bead", w, w.first, { kind: "inside last" });
  for (const w of branches) order.weld("bead", w, w.first, { kind: "jumping about" });
  for (const w of branches) order.weld("bead", w, w.second, { kind: "opposes the other side" });
  for (const w of branches) for (const f of w.more) order.weld("bead", w, f, { kind: "while it is up" });
  for (const w of branches)
    order.weld("bead", w, facing(w, other), { kind: facing(w, up) ? "second takes back" : "while it is up" });
  coolAndLetGo(order);
  return order.steps;
}
