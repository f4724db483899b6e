import { add3, cross3, dot3, norm3, scale3, squareTo, sub3, unit3, type Vec3 } from "../numeric";
import type { DrawnJoint } from "./drawnSchema";
import type { FaceLine } from "./frameWords";
import { angleOf, type JointCandidate, UP } from "./jointHabits";
import { intoMember, reach } from "./meeting";
import { mitreReaches } from "./mitre";
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

/** The faces of a joint, which way each looks and how long its bead is. */
export function facesOf(f: JointCandidate, said: DrawnJoint | undefined): StructureFace[] {
  const face = (line: FaceLine, toward: Vec3, lengthMm: number, words?: string): StructureFace => {
    const own = said?.faces.find((x) => x.line === line);
    return {
      line,
      toward,
      words: words ?? SIDE_WORDS[directionWord(toward)],
      lengthMm,
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
    return [
      ...both(["inside", "outside"], e1, 2 * Math.min(reach(a, e2), reach(b, e2)), ["inside", "outside"]),
      ...both(["top", "bottom"], e2, length),
    ];
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
  const width = 2 * reach(b, unit3(squareTo(along, direction)));
  return [...both(["plus", "minus"], along, 2 * reach(b, e2)), ...both(["top", "bottom"], e2, width / sine)];
}
