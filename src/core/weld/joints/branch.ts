import { extentAlong, type JointInput } from "../../mechanics";
import { add3, cross3, dot3, norm3, scale3, squareTo, sub3, unit3 } from "../../numeric";
import type { JointPlace } from "../jointKind";
import { angleBetween, into, lineAt } from "./shared";

/**
 * The second member lands on a face of the first: it ends there (tee), or lies over it and runs on (lap).
 * A tee's branch ends on the chord's face, so its node goes there along the branch.
 */
export function branchPlace({ frame, a, b, nodeA, nodeB, nodes }: JointInput, lap: boolean): JointPlace {
  const along = a.axes[0];
  const pA = nodes[nodeA].at;
  const pB = nodes[nodeB].at;
  const direction = lap ? unit3(sub3(pB, pA)) : into(b, nodeB);
  const normal = unit3(squareTo(direction, along));
  const e2 = cross3(along, normal);
  const depth = extentAlong(a.section, a.axes, normal);
  const chordWidth = extentAlong(a.section, a.axes, e2);
  const slope = dot3(direction, normal);
  const onFace = add3(pB, scale3(direction, (depth / 2 - dot3(sub3(pB, pA), normal)) / slope));
  const t = b.section.wallMm;
  const acrossBranch = lap ? cross3(normal, b.axes[0]) : squareTo(along, direction);
  const width = extentAlong(b.section, b.axes, unit3(norm3(acrossBranch) > 1e-9 ? acrossBranch : b.axes[1]));
  const height = lap ? chordWidth : extentAlong(b.section, b.axes, e2);
  const tc = a.section.wallMm;
  return {
    at: lap ? add3(pA, scale3(normal, depth / 2)) : onFace,
    ...(lap ? {} : { nodeBAt: onFace }),
    normal,
    e1: along,
    e2,
    half1Mm: lineAt(width, t) / (lap ? 1 : slope),
    half2Mm: lineAt(height, t),
    widthMm: width,
    wallMm: t,
    beta: lap ? 1 : height / chordWidth,
    angleDeg: angleBetween(lap ? b.axes[0] : direction, along),
    form: {
      table: "tee",
      bMm: chordWidth,
      tMm: tc,
      branchWallMm: t,
      eMPa: frame.material.eMPa,
      beta: lap ? 1 : height / chordWidth,
      wh: depth / chordWidth,
      bx: width / (lap ? 1 : slope) / height,
    },
    chord: { member: a.id, wallMm: tc, branchWallMm: t, branchAcrossMm: height },
  };
}
