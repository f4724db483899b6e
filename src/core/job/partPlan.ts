import { laidFlat, takenOut } from "../frame";
import { following } from "./following";
import type { Plan } from "./planSchema";

/** Rests laid under a part, where those of the whole were placed by hand. */
const USUAL_RESTS = 4;

/**
 * The plan of some members of a drawn frame as a frame of their own: laid down flat on the bed as a rule, with the limits, settings, stock and
 * shelf of the whole. What is said of single joints, of places on the bed and of holes stays with the whole.
 * @param where in place: as it stands in the whole.
 * @returns null for a frame that is not drawn, or where none of the members is in it.
 */
export function partPlan(
  plan: Plan,
  members: readonly string[],
  name: string,
  where: "laid flat" | "in place" = "laid flat",
): Plan | null {
  if (plan.frame.by !== "members") return null;
  const { drawn } = plan.frame;
  const ids = drawn.members.map((m) => m.id).filter((id) => members.includes(id));
  if (ids.length === 0) return null;
  const { found, held, holds, points, fixed, closing, order, fixture, ...rest } = plan;
  const { feet: _feet, ...bedOf } = plan.bed;
  const { side, holes, slots, floor, bed, own, have } = fixture ?? {};
  const kept = Object.entries({ side, holes, slots, floor, bed, own, have }).filter(([, v]) => v !== undefined);
  const { seams: _seams, ...weld } = plan.weld;
  const whole: Plan = {
    ...rest,
    name,
    purpose: `Part of ${plan.name}: ${ids.join(", ")}.`.slice(0, 2000),
    weld,
    drill: [],
    // What a class allows hangs on the sizes: the figures that somebody confirmed are of the whole.
    limits: plan.limits.kind === "class" ? { ...plan.limits, confirmed: {} } : plan.limits,
    bed: { ...bedOf, laid: plan.bed.laid ?? USUAL_RESTS },
    ...(kept.length > 0 ? { fixture: Object.fromEntries(kept) } : {}),
    ...(fixed ? { fixed: fixed.filter((id) => ids.includes(id)) } : {}),
    ...(closing ? { closing: closing.filter(({ id }) => ids.includes(id)) } : {}),
    ...(held?.lies ? { held: { lies: held.lies } } : {}),
    ...(order ? { order: { by: "schools", tack: order.tack, weld: order.weld } as const } : {}),
  };
  const apart = takenOut(drawn, ids, plan.units);
  const part: Plan = {
    ...whole,
    frame: { ...plan.frame, drawn: where === "in place" ? apart : laidFlat(apart, plan.units) },
  };
  return following(whole, part, false);
}
