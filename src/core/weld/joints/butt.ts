import type { JointKind } from "../jointKind";
import { cornerPlace, cornerProblems } from "./corner";
import { untabledSections } from "./shared";

/** Two ends in one line. */
export const BUTT: JointKind = {
  name: "butt",
  lines: ["inside", "outside", "top", "bottom"],
  endsBoth: true,
  runsPast: false,
  problems: (c) =>
    cornerProblems(c, ({ sine, cosine }) =>
      cosine > 0 || sine > 0.02
        ? `${c.a.id} and ${c.b.id} meet at an angle at ${c.spec.id}: make it a mitre or a tee, not a butt.`
        : null,
    ),
  place: cornerPlace,
  fillet: false,
  unfitted: (a, b, place) => untabledSections(a, b, place.form),
};
