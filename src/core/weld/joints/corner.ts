import { extentAlong, type JointInput } from "../../mechanics";
import { add3, cross3, dot3, norm3, scale3, sub3, unit3, type Vec3 } from "../../numeric";
import type { Problem } from "../../units";
import type { JointCase, JointPlace } from "../jointKind";
import { angleBetween, direction, error, into, lineAt } from "./shared";

/** Points this near to a line lie on it, mm. */
const ON_LINE_MM = 0.01;
/** From this angle on a corner is straight, degrees. */
const STRAIGHT_DEG = 179.9;

/** A corner, mitred or straight: both members end at one point. */
export function cornerPlace({ frame, a, b, nodeA, nodeB, nodes, up }: JointInput): JointPlace {
  const intoA = into(a, nodeA);
  const intoB = into(b, nodeB);
  const normal = unit3(sub3(intoB, intoA));
  const angleDeg = angleBetween(intoA, intoB);
  const straight = angleDeg > STRAIGHT_DEG;
  // Up of the corner: square to both members, on the side where the frame's up is.
  let e2 = straight ? a.axes[2] : unit3(cross3(intoA, intoB));
  if (dot3(e2, up) < -1e-9) e2 = scale3(e2, -1);
  const e1 = straight ? cross3(e2, normal) : unit3(add3(intoA, intoB));
  const width = Math.min(
    extentAlong(a.section, a.axes, cross3(e2, intoA)),
    extentAlong(b.section, b.axes, cross3(e2, intoB)),
  );
  const height = Math.min(extentAlong(a.section, a.axes, e2), extentAlong(b.section, b.axes, e2));
  const wallMm = Math.min(a.section.wallMm, b.section.wallMm);
  return {
    at: nodes[nodeA].at,
    normal,
    e1,
    e2,
    half1Mm: lineAt(width, wallMm) / Math.sin(((angleDeg / 2) * Math.PI) / 180),
    half2Mm: lineAt(height, wallMm),
    widthMm: width,
    wallMm,
    beta: 1,
    angleDeg,
    form: {
      table: "mitre",
      bMm: Math.min(width, height),
      tMm: wallMm,
      eMPa: frame.material.eMPa,
      hw: height / width,
      angleDeg,
    },
    along: null,
    chords: [],
  };
}

/** What two ends that shall meet in a corner make with each other. */
interface Opening {
  /** Cosine between the ways into both members: 1 folded back, -1 straight on. */
  cosine: number;
  sine: number;
}

/** Problems of any corner; those of its kind are told from how far it opens. */
export function cornerProblems(c: JointCase, own: (opening: Opening) => string | null): Problem[] {
  const { frame, spec, a, b, point, pointB } = c;
  const [da, db] = [direction(frame, a), direction(frame, b)];
  if (norm3(sub3(frame.points[pointB], frame.points[point])) > ON_LINE_MM)
    return [error(spec.id, `${a.id} and ${b.id} do not meet at ${spec.id}.`)];
  const inward = (points: readonly string[], p: string, d: Vec3): Vec3 => (p === points[0] ? d : scale3(d, -1));
  const message = own({
    cosine: dot3(inward(a.points, point, da), inward(b.points, pointB, db)),
    sine: norm3(cross3(da, db)),
  });
  return message === null ? [] : [error(spec.id, message)];
}
