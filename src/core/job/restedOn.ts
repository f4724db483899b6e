import { onThreeRests } from "../bed";
import type { Structure } from "../frame";
import type { LiesOn } from "../plan";
import type { Plan } from "./planSchema";

/** What a frame is built on: three rests by that school, where three of those that there are carry it; else a surface. */
export function liesOn({ bed }: Pick<Plan, "bed">, structure: Structure): LiesOn {
  if (bed.school !== "three") return "surface";
  const rests = bed.rests.map((r) => ({ id: r.id, x: r.x.mm, y: r.y.mm }));
  return onThreeRests(rests, structure) ? "three rests" : "surface";
}
