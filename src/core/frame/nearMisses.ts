import { cross3, dot3, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { along, type EndName, endOf, intoMember, PARALLEL, type Placed, passing, reach } from "./meeting";
import type { StructureJoint } from "./structure";
import { TOLERANCES } from "./tolerances";

/** An end that stands free a little short of another member, or a little beside it. */
export interface NearMiss {
  member: string;
  end: EndName;
  to: string;
  /** Between the end and the other's face, mm. */
  gapMm: number;
  /** Where the end would stand so that a joint is found. */
  at: Vec3;
}

/** Joints are found up to this reach, mm; an end nearer than the second is said to miss (own judgement). */
export const JOINT_REACH_MM = TOLERANCES.meetSlackMm;
const NEAR_MISS_MM = 25;

const clampTo = (x: number, low: number, high: number): number => Math.min(high, Math.max(low, x));

/** How far a point lies from a member's body, mm; nought inside. */
function outside(n: Placed, p: Vec3): number {
  const w = sub3(p, n.from);
  const along = dot3(w, n.axes[0]);
  const past = Math.max(0, -along, along - n.lengthMm);
  const aside = sub3(w, scale3(n.axes[0], along));
  const far = norm3(aside);
  if (far < 1e-9) return past;
  return Math.hypot(past, Math.max(0, far - reach(n, unit3(aside))));
}

/** Where an end goes to meet another member: along its own line where that passes through the other, else onto its line. */
function meets(m: Placed, end: EndName, n: Placed): Vec3 {
  const p = endOf(m, end);
  const across = cross3(m.axes[0], n.axes[0]);
  const sine = norm3(across);
  if (sine > PARALLEL) {
    const w = scale3(across, 1 / sine);
    const r = sub3(n.from, p);
    const passes = Math.abs(dot3(r, w));
    if (passes < reach(m, w) + reach(n, w) - TOLERANCES.touchMm) return along(m, passing(m, n)[0]);
  }
  return along(n, clampTo(dot3(sub3(p, n.from), n.axes[0]), 0, n.lengthMm));
}

/** Free ends that miss another member by more than a joint's reach and less than 25 mm, each with the nearest. */
export function nearMisses(placed: ReadonlyMap<string, Placed>, joints: readonly StructureJoint[]): NearMiss[] {
  const taken = new Set(
    joints.flatMap((j) => [...(j.endA ? [`${j.a} ${j.endA}`] : []), ...(j.endB ? [`${j.b} ${j.endB}`] : [])]),
  );
  const joined = new Set(joints.flatMap((j) => [`${j.a} ${j.b}`, `${j.b} ${j.a}`]));
  return [...placed.values()].flatMap((m) =>
    (["from", "to"] as const).flatMap((end): NearMiss[] => {
      if (taken.has(`${m.id} ${end}`)) return [];
      const p = endOf(m, end);
      const found = [...placed.values()]
        .filter((n) => n !== m && !joined.has(`${m.id} ${n.id}`))
        .map((n) => ({ n, gapMm: outside(n, p) }))
        .filter(({ gapMm }) => gapMm > JOINT_REACH_MM && gapMm < NEAR_MISS_MM)
        .sort((a, b) => a.gapMm - b.gapMm)[0];
      if (!found) return [];
      const at = meets(m, end, found.n);
      // Drawn on to it, not folded back over itself.
      if (dot3(sub3(at, p), intoMember(m, end)) > m.lengthMm / 2) return [];
      return [{ member: m.id, end, to: found.n.id, gapMm: found.gapMm, at }];
    }),
  );
}
