import type { JointKind } from "../jointKind";
import { cornerPlace, cornerProblems } from "./corner";
import { untabledMitre, untabledSections } from "./shared";

/** Two ends cut to one plane. */
export const MITRE: JointKind = {
  name: "mitre",
  lines: ["inside", "outside", "top", "bottom"],
  endsBoth: true,
  runsPast: false,
  problems: (c) =>
    cornerProblems(c, ({ sine, cosine }) =>
      sine >= 0.02
        ? null
        : cosine > 0
          ? `${c.a.id} and ${c.b.id} lie on each other at ${c.spec.id}.`
          : `${c.spec.id} is straight: make it a butt, not a mitre.`,
    ),
  place: cornerPlace,
  fillet: false,
  unfitted: (a, b, place) => [
    ...untabledMitre(place.angleDeg),
    ...untabledSections(a, b, place.form),
    ...(a.widthMm !== b.widthMm || a.heightMm !== b.heightMm || a.wallMm !== b.wallMm ? ["unequal sections"] : []),
  ],
};
