import { OrderBuilder } from "./orderBuilder";
import { type Step, turned, type Up } from "./step";
import { coolAndLetGo, facing } from "./welding";
import { allJoints, type Workpiece } from "./workpiece";

/**
 * Welding, school "strength first": the fillets that carry, insides of corners and sides of what is put between, then two outer faces,
 * and the flat seam outside each corner last.
 * @param up how the frame lies when tacking ends.
 */
export function strengthFirst(work: Workpiece, up: Up): Step[] {
  const order = new OrderBuilder("weld", up, work.on);
  const all = allJoints(work);
  const corners = all.filter((w) => w.corner);
  const branches = all.filter((w) => !w.corner);
  for (const w of corners) order.weld("bead", w, w.first, { kind: "carries" });
  for (const w of branches) {
    order.weld("bead", w, w.first, { kind: "carries" });
    order.weld("bead", w, w.second, { kind: "opposes the other side" });
  }
  for (const w of all) for (const f of w.more) order.weld("bead", w, f, { kind: "while it is up" });
  order.wait("touch", { kind: "hot reads long" });
  for (const w of all) order.weld("bead", w, facing(w, up), { kind: "face all round" });
  if (all.some((w) => facing(w, turned(up)))) order.turn(turned(up), { kind: "second takes back" });
  for (const w of all)
    order.weld("bead", w, facing(w, turned(up)), { kind: facing(w, up) ? "second takes back" : "while it is up" });
  for (const w of corners) order.weld("bead", w, w.second, { kind: "outside last" });
  coolAndLetGo(order);
  return order.steps;
}
