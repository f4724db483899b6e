import { SHELF } from "../instruments";
import { distance, type Vec2 } from "../numeric";
import { stated } from "../units";
import { coldSet } from "./coldSet";
import { couponPlan, type FrameCoupon } from "./couponPlan";
import type { Entry } from "./entrySchema";
import { evaluate } from "./evaluate";
import type { Job } from "./jobSchema";
import type { Plan } from "./planSchema";

const AT = "2000-01-01T00:00:00.000Z";
const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;

/** A bow is read by leaves under a straightedge, whatever lengths are read with. */
const BOWS_BY = "feeler";

/**
 * A small frame as if it had been read before it was welded and cold, with nothing moved: what it would teach hangs on how sure its
 * readings are, not on what is read. @param plan a new one of the shop, with what it has learned. @param instrumentId that it is read with.
 */
export function couponAsRead(kind: FrameCoupon, plan: Plan, instrumentId: string): Job {
  const made = couponPlan(kind, plan);
  const job: Job = { id: id(1), createdAt: AT, version: 1, plan: made, instruments: [...SHELF], entries: [] };
  const evaluation = evaluate(job, null);
  const { places, structure } = evaluation;
  if (!places || !structure) return job;
  const nodes: Record<string, Vec2> = { ...places.nodes, ...structure.quad?.corners };
  let n = 1;
  const base = () => ({ id: id(++n), at: AT, origin: "coupon" });
  const entries = (["tacked", "cold"] as const).flatMap((gate): Entry[] => {
    const round: Entry = { kind: "round", ...base(), gate, method: "heights" };
    const readings = coldSet(evaluation).flatMap((what): Entry[] => {
      if (what.kind !== "distance" && what.kind !== "height" && what.kind !== "straightness") return [];
      const mm = what.kind === "distance" ? distance(nodes[what.from] as Vec2, nodes[what.to] as Vec2) : 0;
      const value = stated(mm, made.units);
      const by = what.kind === "straightness" ? BOWS_BY : instrumentId;
      return [{ kind: "reading", ...base(), roundId: round.id, instrumentId: by, what, value }];
    });
    return [round, ...readings];
  });
  return { ...job, entries };
}
