import { type BentMaterial, plasticSection, wallClass, weldRingMoment } from "../../check";
import { MATERIALS, type Structure, type StructureMember } from "../../frame";
import { SIDES } from "../../geometry";
import { mechanicalKind } from "../../mechanics";
import { norm3, sub3 } from "../../numeric";
import { formatSmall, physical, type UnitPreference } from "../../units";
import { filletOfHeat } from "../../weld";
import { weldOf } from "../settings";
import { inPlane, LIKELY_YIELD, type RemedyContext, SLENDER_RISK, type Tube, tubeOf } from "./remedy";

/** What a shop pulls or presses with, N; and how far one pushes what springs back, as a share of the shorter side. Source: own judgement. */
export const MOST_N = 30_000;
const MOST_BACK = 0.1;

/** Why a push is more than a shop has, in words; null where it is not. */
export function tooMuch(
  { springbackMm, forceN, sideMm }: { springbackMm: number; forceN: number; sideMm: number },
  units: UnitPreference,
): string | null {
  if (forceN > MOST_N)
    return `takes about ${physical("force", forceN / 1000, units)}: more than a hoist or a screw in a shop gives (${physical("force", MOST_N / 1000, units)}, own judgement)`;
  if (springbackMm > MOST_BACK * sideMm)
    return `means going about ${formatSmall(springbackMm, units, { decimals: 0 })} beyond, all of which comes back: too far to be steered`;
  return null;
}

/** The quadrilateral of a frame as something that is pushed past yield. */
export interface Pushable {
  lengthMm: number;
  heightMm: number;
  rail: Tube;
  post: Tube;
  material: BentMaterial;
  /** Chance that a wall or a seam gives way first, and the words for it. */
  risk: number;
  cautions: string[];
}

/** @returns why it is not pushed; null for a frame without corners. */
export function pushable(context: RemedyContext): Pushable | { why: string } | null {
  const { quad, members } = context.structure;
  if (!quad) return null;
  const sides = SIDES.map((s) => members.find((m) => m.id === quad.sides[s]));
  const [rail, post] = sides.map(tubeOf);
  const [first, second] = sides;
  if (!rail || !post || !first || !second || sides.some((m) => !tubeOf(m)))
    return {
      why: "Its sides are no square or rectangular tubes: how far to push them past yield is not known here.",
    };
  const cls = Math.max(...sides.map((m) => classOf(m as StructureMember)));
  if (cls > 2)
    return {
      why: `Pulled or pressed past yield its thin walls would buckle before they turn (class ${cls}): no racking, no untwisting by force.`,
    };
  const weak = filletCorner(context, post, second);
  const lengthOf = (m: StructureMember): number => norm3(sub3(m.to, m.from));
  const { eMPa, yieldMPa } = MATERIALS[first.material];
  return {
    lengthMm: lengthOf(first),
    heightMm: lengthOf(second),
    rail,
    post,
    material: { eMPa, yieldMPa: LIKELY_YIELD * yieldMPa },
    risk: (cls === 2 ? SLENDER_RISK : 0) + (weak ? SLENDER_RISK : 0),
    cautions: [
      ...(cls === 2 ? ["Its walls may be bent, not turned: stop at the first dent."] : []),
      ...(weak
        ? [
            `The fillets at ${weak.joint} bear about ${Math.round(100 * weak.share)} % of what the tube bears before it turns: the seam may tear first. Watch it, and stop.`,
          ]
        : []),
    ],
  };
}

/** Class of the widest face of a member. */
export function classOf(m: StructureMember): number {
  const t = tubeOf(m);
  return t ? wallClass(Math.max(t.widthMm, t.heightMm), t.wallMm, MATERIALS[m.material].yieldMPa).cls : 4;
}

/**
 * The corner whose fillets bear least of what the tube beside it bears in bending, where that is less than all of it: butted and mitred
 * seams go through the wall and are taken to bear as much as the tube.
 */
function filletCorner(
  { structure, beads, plan }: RemedyContext,
  post: Tube,
  second: StructureMember,
): { joint: string; share: number } | null {
  const material = MATERIALS[second.material];
  const { process } = weldOf(plan);
  const { plasticMomentNmm } = plasticSection(inPlane(post), material);
  let worst: { joint: string; share: number } | null = null;
  for (const id of Object.values(structure.quad?.joints ?? {})) {
    const joint = structure.joints.find((j) => j.id === id);
    if (!joint || mechanicalKind(joint) !== "tee") continue;
    const legs = beads.filter((b) => b.joint === id).map((b) => filletOfHeat(process, b.heatJPerMm));
    const throatMm = legs.length > 0 ? Math.min(...legs) * Math.SQRT1_2 : 0;
    const share = weldRingMoment(inPlane(post), throatMm, material.ultimateMPa).momentNmm / plasticMomentNmm;
    if (share < Math.min(1, worst?.share ?? 1)) worst = { joint: id, share };
  }
  return worst;
}

/**
 * Members besides the sides that join two of them: each bends at both ends, as a side does. Where sides land on posts, what joins two posts on
 * another level counts half: of four such that go round each turns at one of its ends against the next.
 */
export function crossing({ quad, members, joints }: Structure): number {
  if (!quad) return 0;
  const sides = new Set<string>(Object.values(quad.sides));
  const posts = new Set<string>(Object.values(quad.posts));
  const others = members.filter((m) => !sides.has(m.id) && !posts.has(m.id));
  const joining = (to: ReadonlySet<string>): number =>
    others.filter(
      (m) => joints.filter((j) => (j.b === m.id && to.has(j.a)) || (j.a === m.id && to.has(j.b))).length >= 2,
    ).length;
  return joining(sides) + joining(posts) / 2;
}
