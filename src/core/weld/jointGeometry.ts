import type { Axes } from "../frame";
import {
  type BeamJoint,
  type BeamNode,
  type BeamSection,
  extentAlong,
  type ModelJoint,
  type ModelMember,
} from "../mechanics";
import { add3, cross3, dot3, norm3, scale3, squareTo, sub3, unit3, type Vec3 } from "../numeric";
import { RING, SERIES } from "./ringConstants";

/** Where a joint lies, which way its lines run, and what its constants are per. */
export interface JointGeometry {
  at: Vec3;
  normal: Vec3;
  e1: Vec3;
  e2: Vec3;
  half1Mm: number;
  half2Mm: number;
  /** Width that the line constants are per. */
  widthMm: number;
  wallMm: number;
  beta: number;
  /** Between the two members' axes, degrees. */
  angleDeg: number;
  shear: number;
  lozenge: {
    section: BeamSection;
    axes: Axes;
    slenderness: number;
    widthMm: number;
    aboutMitre: number;
    aboutUp: number;
  };
  chord: ModelJoint["chord"];
}

/** Direction from a member's end at `node` into the member. */
function into(member: ModelMember, node: number): Vec3 {
  return node === member.nodes[0] ? member.axes[0] : scale3(member.axes[0], -1);
}

const angleBetween = (a: Vec3, b: Vec3): number => (Math.atan2(norm3(cross3(a, b)), dot3(a, b)) * 180) / Math.PI;

/** From the middle to where a face's weld line runs: the middle of a wall, or the face itself of what is solid, mm. */
export const lineAt = (widthMm: number, wallMm: number): number =>
  2 * wallMm >= widthMm ? widthMm / 2 : (widthMm - wallMm) / 2;

/** Width over wall of a hollow; what is solid does not give way like a lozenge. */
const slendernessOf = (widthMm: number, wallMm: number): number => Math.max(1, (widthMm - wallMm) / wallMm);

/** A mitre or straight butt: both members end at one point. */
export function cornerOf(
  spec: BeamJoint,
  a: ModelMember,
  b: ModelMember,
  nodeA: number,
  nodeB: number,
  nodes: readonly BeamNode[],
  up: Vec3,
): JointGeometry {
  const intoA = into(a, nodeA);
  const intoB = into(b, nodeB);
  const normal = unit3(sub3(intoB, intoA));
  const angleDeg = angleBetween(intoA, intoB);
  const straight = angleDeg > 179.9;
  // Up of the corner: square to both members, on the side where the frame's up is.
  let e2 = straight ? a.axes[2] : unit3(cross3(intoA, intoB));
  const lift = dot3(e2, up);
  if (lift < -1e-9) e2 = scale3(e2, -1);
  const e1 = straight ? cross3(e2, normal) : unit3(add3(intoA, intoB));
  const width = Math.min(
    extentAlong(a.section, a.axes, cross3(e2, intoA)),
    extentAlong(b.section, b.axes, cross3(e2, intoB)),
  );
  const height = Math.min(extentAlong(a.section, a.axes, e2), extentAlong(b.section, b.axes, e2));
  const wallMm = Math.min(a.section.wallMm, b.section.wallMm);
  const butt = spec.kind === "butt";
  return {
    at: (nodes[nodeA] as BeamNode).at,
    normal,
    e1,
    e2,
    half1Mm: lineAt(width, wallMm) / Math.sin(((angleDeg / 2) * Math.PI) / 180),
    half2Mm: lineAt(height, wallMm),
    widthMm: width,
    wallMm,
    beta: 1,
    angleDeg,
    shear: butt ? RING.butt.shear : RING.mitre.shear,
    lozenge: {
      section: a.section,
      axes: a.axes,
      slenderness: slendernessOf(width, wallMm),
      widthMm: width,
      aboutMitre: butt ? 0 : SERIES.mitreAboutMitre,
      aboutUp: butt ? 0 : SERIES.mitreAboutUp,
    },
    chord: null,
  };
}

/** A tee or lap: the second member lands on a face of the first. Moves the branch's node to that face. */
export function branchOn(
  spec: BeamJoint,
  a: ModelMember,
  b: ModelMember,
  nodeA: number,
  nodeB: number,
  nodes: BeamNode[],
): JointGeometry {
  const along = a.axes[0];
  const pA = (nodes[nodeA] as BeamNode).at;
  const pB = (nodes[nodeB] as BeamNode).at;
  const lap = spec.kind === "lap";
  const direction = lap ? unit3(sub3(pB, pA)) : into(b, nodeB);
  const normal = unit3(squareTo(direction, along));
  const e2 = cross3(along, normal);
  const depth = extentAlong(a.section, a.axes, normal);
  const chordWidth = extentAlong(a.section, a.axes, e2);
  const slope = dot3(direction, normal);
  let at = add3(pA, scale3(normal, depth / 2));
  if (!lap) {
    // The branch ends on the chord's face: its node goes there along the branch.
    at = add3(pB, scale3(direction, (depth / 2 - dot3(sub3(pB, pA), normal)) / slope));
    (nodes[nodeB] as BeamNode).at = at;
  }
  const t = b.section.wallMm;
  const acrossBranch = lap ? cross3(normal, b.axes[0]) : squareTo(along, direction);
  const width = extentAlong(b.section, b.axes, unit3(norm3(acrossBranch) > 1e-9 ? acrossBranch : b.axes[1]));
  const height = lap ? chordWidth : extentAlong(b.section, b.axes, e2);
  const tc = a.section.wallMm;
  return {
    at,
    normal,
    e1: along,
    e2,
    half1Mm: lineAt(width, t) / (lap ? 1 : slope),
    half2Mm: lineAt(height, t),
    widthMm: width,
    wallMm: t,
    beta: lap ? 1 : height / chordWidth,
    angleDeg: angleBetween(lap ? b.axes[0] : direction, along),
    shear: RING.tee.shear,
    lozenge: {
      section: b.section,
      axes: b.axes,
      slenderness: slendernessOf(chordWidth, tc),
      widthMm: width,
      aboutMitre: SERIES.teeAboutChord,
      aboutUp: 0,
    },
    chord: { member: a.id, wallMm: tc, branchWallMm: t, depthMm: depth, alongMm: width },
  };
}
