import { dot3, norm3, sub3, unit3 } from "../../numeric";
import type { JointKind } from "../jointKind";
import { branchPlace } from "./branch";
import { direction, error, untabledSections, untabledSlope } from "./shared";

/** Under this angle between them one member lies along the other, sine. */
const ALONG_SINE = 0.17;

/** The second member lies over the first and runs on. */
export const LAP: JointKind = {
  name: "lap",
  lines: ["plus", "minus", "top", "bottom"],
  endsBoth: false,
  runsPast: true,
  problems: ({ frame, spec, a, b, point, pointB }) => {
    const gap = sub3(frame.points[pointB], frame.points[point]);
    if (norm3(gap) < 1)
      return [
        error(spec.id, `${a.id} and ${b.id} are at the same height at ${spec.id}: they would pass through each other.`),
      ];
    return Math.abs(dot3(unit3(gap), direction(frame, a))) > 0.02
      ? [error(spec.id, `${b.id} does not lie square over ${a.id} at ${spec.id}.`)]
      : [];
  },
  place: (input) => branchPlace(input, true),
  fillet: true,
  unfitted: (a, b, place) => [
    ...(Math.sin((place.angleDeg * Math.PI) / 180) < ALONG_SINE
      ? ["a seam along two members side by side, taken as those along a short tee"]
      : ["a lap is taken as a tee", ...untabledSlope(place.angleDeg)]),
    ...untabledSections(a, b, place.form),
  ],
};
