import { extentAlong, type JointInput } from "../../mechanics";
import { add3, cross3, dot3, norm3, scale3, squareTo, sub3, unit3, type Vec3 } from "../../numeric";
import type { ChordPlace, JointPlace } from "../jointKind";
import { alongSeam } from "./alongSeam";
import { angleBetween, into, lineAt } from "./shared";

/** An end that stands on its chord with less of itself holds as one that stands there with so much of it (own judgement: tables end there). */
const LEAST_LANDED = 0.25;

/** Where a branch stands, its chord not yet looked at as what heat reaches. */
type Standing = Omit<JointPlace, "chords" | "along" | "form"> & { form: ChordPlace["form"]; acrossMm: number };

function standing({ frame, spec, a, b, nodeA, nodeB, nodes }: JointInput, lap: boolean): Standing {
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
  const girth = extentAlong(b.section, b.axes, unit3(norm3(acrossBranch) > 1e-9 ? acrossBranch : b.axes[1]));
  // Of two that lie along each other the seams run by the edges of the narrower.
  const beside = spec.seamMm !== undefined;
  const width = spec.seamMm ?? girth;
  const height = beside ? Math.min(girth, chordWidth) : lap ? chordWidth : extentAlong(b.section, b.axes, e2);
  // What stands out beside its chord stands as on one that is as wide as itself: the tables end there.
  const faceMm = Math.max(chordWidth, height);
  const half1Mm = beside ? width / 2 : lineAt(width, t) / (lap ? 1 : slope);
  const wholeMm = width / (lap ? 1 : slope);
  const [from, to] = spec.landedMm ?? [-wholeMm / 2, wholeMm / 2];
  // Where its end is pointed it has no wall: the ring of lines goes up to the point. Of next to nothing that lands there, half is left.
  const middle = (from + to) / 2;
  const [first, last] = [Math.min(middle, Math.max(from, -half1Mm)), Math.max(middle, Math.min(to, half1Mm))];
  return {
    at: lap ? add3(pA, scale3(normal, depth / 2)) : add3(onFace, scale3(along, (first + last) / 2)),
    ...(lap ? {} : { nodeBAt: onFace }),
    normal,
    e1: along,
    e2,
    half1Mm: (last - first) / 2,
    half2Mm: lineAt(height, t),
    widthMm: beside ? girth : width,
    wallMm: t,
    beta: lap && !beside ? 1 : height / chordWidth,
    angleDeg: angleBetween(lap ? b.axes[0] : direction, along),
    form: {
      table: "tee",
      bMm: faceMm,
      tMm: a.section.wallMm,
      branchWallMm: t,
      eMPa: frame.material.eMPa,
      beta: lap && !beside ? 1 : height / faceMm,
      wh: depth / faceMm,
      bx: Math.max(to - from, LEAST_LANDED * wholeMm) / height,
    },
    acrossMm: height,
  };
}

const chordOf = (
  of: "a" | "b",
  member: string,
  { normal, e1, e2, form, acrossMm }: Standing,
  rest: Pick<ChordPlace, "takes" | "lines">,
): ChordPlace => ({
  of,
  member,
  normal,
  e1,
  e2,
  form,
  wallMm: form.tMm,
  branchWallMm: form.branchWallMm,
  branchAcrossMm: acrossMm,
  ...rest,
});

/** Which line of the one lies where each line of the other does. */
function linesOf(own: Standing, other: Standing): ChordPlace["lines"] {
  const same = Math.abs(dot3(own.e1, other.e1)) >= Math.abs(dot3(own.e1, other.e2));
  const pair = (at: Vec3, first: number): [number, number] => {
    const [way, from] = same === (first === 0) ? [other.e1, 0] : [other.e2, 2];
    return dot3(at, way) > 0 ? [from, from + 1] : [from + 1, from];
  };
  return [...pair(own.e1, 0), ...pair(own.e2, 2)];
}

/**
 * The second member lands on a face of the first: it ends there (tee), lies over it and runs on, or lies along it (lap).
 * A tee's branch ends on the chord's face, so its node goes there along the branch. Of a tee two walls of the chord and one of the branch
 * take a seam's heat; of a lap two of either, and both members are chords.
 */
export function branchPlace(input: JointInput, lap: boolean): JointPlace {
  const { a, b, nodeA, nodeB } = input;
  const own = standing(input, lap);
  const { acrossMm: _, ...place } = own;
  const [tA, tB] = [a.section.wallMm, b.section.wallMm];
  const first = (takes: number): ChordPlace => chordOf("a", a.id, own, { takes, lines: [0, 1, 2, 3] });
  if (!lap) return { ...place, along: null, chords: [first((2 * tA) / (tB + 2 * tA))] };
  const other = standing({ ...input, a: b, b: a, nodeA: nodeB, nodeB: nodeA }, true);
  const second = chordOf("b", b.id, other, { takes: tB / (tA + tB), lines: linesOf(own, other) });
  const along = input.spec.seamMm === undefined ? null : alongSeam(input, own);
  return { ...place, along, chords: [first(tA / (tA + tB)), second] };
}
