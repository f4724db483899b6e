import { type BentSection, plasticSection } from "../../check";
import { type EndName, MATERIALS, type Structure, type StructureMember } from "../../frame";
import { dot3, sub3, type Vec3 } from "../../numeric";
import { classOf } from "./pushable";
import { inPlane, LIKELY_YIELD, outOfPlane, SLENDER_RISK, type Tube, tubeOf } from "./remedy";

/** A member that stands free from its last joint on. */
export interface Cantilever {
  leg: StructureMember;
  /** What it stands on there. */
  root: StructureMember;
  /** From there to its free end, mm. */
  armMm: number;
}

/** @returns null for a member that meets no other. */
export function cantileverOf({ members, joints }: Structure, member: string, end: EndName): Cantilever | null {
  const leg = members.find((m) => m.id === member);
  if (!leg) return null;
  const arms = joints.flatMap((j): Cantilever[] => {
    const root = members.find((m) => m.id === (j.a === member ? j.b : j.b === member ? j.a : ""));
    return root ? [{ leg, root, armMm: Math.abs(dot3(sub3(leg.ends[end].at, j.at), leg.axes[0])) }] : [];
  });
  return arms.sort((p, q) => p.armMm - q.armMm || (p.root.id < q.root.id ? -1 : 1))[0] ?? null;
}

/** A cantilever with what stands square to the plane in which it is pushed. */
export interface Bent extends Cantilever {
  normal: Vec3;
}

/** A tube as it is bent in a plane: which of its faces lies there hangs on how it is turned. @param normal to that plane. */
export const bentIn = (normal: Vec3, { axes }: StructureMember, tube: Tube): BentSection =>
  Math.abs(dot3(axes[1], normal)) < Math.SQRT1_2 ? inPlane(tube) : outOfPlane(tube);

/** What it takes to turn free ends at their roots. */
export interface Turning {
  /** Across the free ends, N. */
  forceN: number;
  /** The shortest of them, mm. */
  armMm: number;
  /** Chance that a wall gives way first. */
  risk: number;
}

/**
 * Force across free ends at which the first of legs and roots turns, by its full plastic moment; a root that would be twisted is left. Source:
 * plastic hinge of a cantilever (from memory).
 * @param what they are called. @returns why they are not pushed.
 */
export function turning(all: readonly Bent[], what: string): Turning | { why: string } {
  const bent = all.flatMap(({ leg, root, armMm, normal }) =>
    [leg, root]
      .filter((m) => m === leg || Math.abs(dot3(m.axes[0], normal)) < Math.SQRT1_2)
      .map((m) => ({ m, tube: tubeOf(m), armMm, normal })),
  );
  if (bent.length === 0 || bent.some(({ tube }) => !tube))
    return { why: `${what} is of no square or rectangular tubes: how far to push it is not known here.` };
  const cls = Math.max(...bent.map(({ m }) => classOf(m)));
  if (cls > 2) return { why: `${what} is too thin to be bent past yield (class ${cls}): it would buckle.` };
  const forces = bent.flatMap(({ m, tube, armMm, normal }) => {
    const { eMPa, yieldMPa } = MATERIALS[m.material];
    const section = tube && bentIn(normal, m, tube);
    return section
      ? [plasticSection(section, { eMPa, yieldMPa: LIKELY_YIELD * yieldMPa }).plasticMomentNmm / armMm]
      : [];
  });
  return {
    forceN: Math.min(...forces),
    armMm: Math.min(...bent.map((b) => b.armMm)),
    risk: cls === 2 ? SLENDER_RISK : 0,
  };
}
