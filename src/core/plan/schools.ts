import type { Structure } from "../frame";
import { acrossAndAround } from "./acrossAndAround";
import { hingeFirst } from "./hingeFirst";
import type { LiesOn, Step, Up } from "./step";
import { type Workpiece, workpiece } from "./workpiece";

/** An established order: a pure sorter of steps over the joints of a frame. */
export interface School {
  id: "hinge first" | "across and around";
  part: Step["part"];
  /** @param up how the frame lies when this part begins. */
  order: (work: Workpiece, up: Up) => Step[];
}

const TACK_SCHOOL: School = { id: "hinge first", part: "tack", order: (work) => hingeFirst(work) };
const WELD_SCHOOL: School = { id: "across and around", part: "weld", order: acrossAndAround };

/** An order of work with the schools that made it. */
export interface Order {
  tack: School["id"];
  weld: School["id"];
  steps: Step[];
}

/** The whole order for a frame: tacking, then welding as the frame lies by then. @param on what it is built on. */
export function orderOfWork(
  structure: Structure,
  on: LiesOn = "surface",
  tack = TACK_SCHOOL,
  weld = WELD_SCHOOL,
): Order {
  const work = workpiece(structure, on);
  const first = tack.order(work, "top");
  const second = weld.order(work, first.at(-1)?.up ?? "top");
  return { tack: tack.id, weld: weld.id, steps: [...first, ...second] };
}
