import { memberAxes } from "../../frame";
import { extentAlong } from "../../mechanics";
import { cross3, norm3, scale3, squareTo, sub3, unit3, type Vec3 } from "../../numeric";
import type { Problem } from "../../units";
import type { JointCase, JointKind } from "../jointKind";
import { TABLED } from "../tabled";
import { branchPlace } from "./branch";
import { direction, error, untabledSections, untabledSlope } from "./shared";

/** A branch wider than its chord by more than this counts as standing out beside it. */
const WIDEST = 1.05;

/** Under this angle between branch and chord there is no tee to weld, sine. */
const FLAT_SINE = 0.17;

function problems({ frame, spec, a, b, point, pointB }: JointCase): Problem[] {
  const [da, db] = [direction(frame, a), direction(frame, b)];
  const gap = sub3(frame.points[pointB], frame.points[point]);
  if (norm3(cross3(da, db)) < FLAT_SINE)
    return [error(spec.id, `${b.id} lies along ${a.id} at ${spec.id}: under 10° there is no tee to weld.`)];
  // No two bodies touch whose lines are farther apart than both reach.
  if (norm3(gap) > [a, b].reduce((sum, { section: s }) => sum + Math.hypot(s.widthMm, s.heightMm) / 2, 0))
    return [error(spec.id, `${b.id} passes ${a.id} at ${norm3(gap).toFixed(1)} mm: they do not touch at ${spec.id}.`)];
  const first = pointB === b.points[0];
  const out = first ? db : scale3(db, -1);
  const end = frame.points[(first ? b.points.at(-1) : b.points[0]) as string];
  const length = norm3(sub3(end, frame.points[pointB]));
  const [from, to] = [a.points[0], a.points.at(-1)].map((p) => frame.points[p as string]) as [Vec3, Vec3];
  const axes = memberAxes(from, to, a.up, unit3(frame.up ?? [0, 0, 1]));
  const halfDepth = extentAlong(a.section, axes, unit3(squareTo(out, da))) / 2;
  return length <= halfDepth / Math.max(0.1, norm3(cross3(out, da)))
    ? [error(spec.id, `${b.id} ends inside ${a.id}: it is shorter than half the tube that it lands on.`)]
    : [];
}

/** The second member ends on a face of the first. */
export const TEE: JointKind = {
  name: "tee",
  lines: ["plus", "minus", "top", "bottom"],
  endsBoth: false,
  runsPast: false,
  problems,
  place: (input) => branchPlace(input, false),
  fillet: true,
  unfitted: (a, b, place) => [
    ...untabledSlope(place.angleDeg),
    ...untabledSections(a, b, place.form),
    ...(place.beta < TABLED.narrowestBranch ? ["a branch much narrower than its chord"] : []),
    ...(place.beta > WIDEST ? ["a branch that stands out beside its chord"] : []),
  ],
};
