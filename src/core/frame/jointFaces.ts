import { add3, cross3, dot3, norm3, scale3, squareTo, sub3, unit3, type Vec2, type Vec3 } from "../numeric";
import type { DrawnJoint } from "./drawnSchema";
import type { FaceLine } from "./frameWords";
import { angleOf, type JointCandidate, UP } from "./jointHabits";
import { intoMember, type Placed, reach } from "./meeting";
import { isAslant, mitreReaches, sameSection, sharedHeightMm } from "./mitre";
import { directionWord } from "./placing";
import type { StructureFace } from "./structure";
import { TOLERANCES } from "./tolerances";

const SIDE_WORDS = {
  left: "left side",
  right: "right side",
  front: "front",
  back: "back",
  down: "underside",
  up: "top",
} as const;

/** A quarter of a circle is so much of a side of the box round it, and of an ellipse in the mean (perimeter π (a + b), a hundredth short at a mitre). */
const ROUND = Math.PI / 4;

/**
 * How long the seams of a mitre are whose sections stand aslant to the plane of the bend: each wall belongs to the face that it looks to most.
 * @param cut square to the mitre's plane. @param toward the way each face looks. @returns mm, in their order.
 */
function aslantMm(m: Placed, cut: Vec3, toward: readonly Vec3[]): number[] {
  const [x, y, z] = m.axes;
  const long = toward.map(() => 0);
  m.outline.forEach((p, i) => {
    const q = m.outline[(i + 1) % m.outline.length] as Vec2;
    const edge = add3(scale3(y, q.x - p.x), scale3(z, q.y - p.y));
    const middle = add3(scale3(y, (p.x + q.x) / 2), scale3(z, (p.y + q.y) / 2));
    const out = squareTo(middle, unit3(edge));
    const best = toward.reduce((b, d, k) => (dot3(d, out) > dot3(toward[b] as Vec3, out) + 1e-9 ? k : b), 0);
    const onCut = sub3(edge, scale3(x, dot3(edge, cut) / dot3(x, cut)));
    long[best] = (long[best] ?? 0) + norm3(onCut);
  });
  return long;
}

/** The faces of a joint, which way each looks and how long its bead is. */
export function facesOf(f: JointCandidate, said: DrawnJoint | undefined): StructureFace[] {
  const face = (line: FaceLine, toward: Vec3, lengthMm: number, words?: string): StructureFace => {
    const own = said?.faces.find((x) => x.line === line);
    return {
      line,
      toward,
      words: words ?? SIDE_WORDS[directionWord(toward)],
      lengthMm,
      share: 1,
      bead: own?.bead ?? true,
      legMm: own?.leg?.mm ?? null,
      care: own?.care ?? "none",
    };
  };
  const both = (lines: [FaceLine, FaceLine], d: Vec3, lengthMm: number, words?: [string, string]) => [
    face(lines[0], d, lengthMm, words?.[0]),
    face(lines[1], scale3(d, -1), lengthMm, words?.[1]),
  ];
  const { through: a, branch: b } = f;
  if (f.kind === "mitre" && f.endA && f.endB) {
    const [ia, ib] = [intoMember(a, f.endA), intoMember(b, f.endB)];
    const angle = (angleOf(ia, ib) * Math.PI) / 180;
    let e2 = unit3(cross3(ia, ib));
    if (dot3(e2, UP) < -1e-9) e2 = scale3(e2, -1);
    const e1 = unit3(add3(ia, ib));
    const [wa, wb] = mitreReaches(a, b, ia, ib);
    const length = (2 * norm3(add3(scale3(ia, wb), scale3(ib, wa)))) / Math.sin(angle);
    const round = a.round && b.round ? ROUND : 1;
    const faces = [
      ...both(["inside", "outside"], e1, round * sharedHeightMm(a, b, e2, f.at, f.atB), ["inside", "outside"]),
      ...both(["top", "bottom"], e2, round * length),
    ];
    if (a.round || !isAslant(a, e2) || !sameSection(a, b)) return faces;
    const aslant = aslantMm(
      a,
      unit3(sub3(ia, ib)),
      faces.map((x) => x.toward),
    );
    return faces.map((x, i) => ({ ...x, lengthMm: aslant[i] ?? x.lengthMm }));
  }
  const straight = f.endA && f.endB && angleOf(intoMember(a, f.endA), intoMember(b, f.endB)) > TOLERANCES.straightDeg;
  if (straight && f.endA && f.endB) {
    const e2 = a.axes[2];
    const normal = unit3(sub3(intoMember(b, f.endB), intoMember(a, f.endA)));
    const e1 = cross3(e2, normal);
    return [
      ...both(["inside", "outside"], e1, 2 * Math.min(reach(a, e2), reach(b, e2))),
      ...both(["top", "bottom"], e2, 2 * Math.min(reach(a, e1), reach(b, e1))),
    ];
  }
  const along = a.axes[0];
  const direction = f.kind === "lap" || !f.endB ? unit3(sub3(f.atB, f.at)) : intoMember(b, f.endB);
  const normal = unit3(squareTo(direction, along));
  const e2 = cross3(along, normal);
  if (f.along) return both(["top", "bottom"], e2, f.along.seamMm);
  if (f.kind === "lap") {
    const [wide, long] = [2 * reach(b, along), 2 * reach(a, e2)];
    return [...both(["plus", "minus"], along, long), ...both(["top", "bottom"], e2, wide)];
  }
  const sine = norm3(cross3(direction, along));
  const round = b.round ? ROUND : 1;
  const width = round * 2 * reach(b, unit3(squareTo(along, direction)));
  return [...both(["plus", "minus"], along, round * 2 * reach(b, e2)), ...both(["top", "bottom"], e2, width / sine)];
}
