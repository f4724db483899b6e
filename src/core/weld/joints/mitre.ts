import type { JointKind } from "../jointKind";
import { OUTSIDE_SHARE, RING, SERIES } from "../ringConstants";
import { cornerPlace, cornerProblems } from "./corner";
import { unfittedAngle, unfittedSections } from "./shared";

const STIFF = RING.mitre;

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
  shear: STIFF.shear,
  beadDensity: (line, along) => {
    if (line === 0) return STIFF.inside.density;
    if (line === 1) return STIFF.outside.density;
    const { densityInside, densityOutside } = STIFF.face;
    return densityOutside + ((densityInside - densityOutside) * (1 + along)) / 2;
  },
  tackDensity: (line) => [STIFF.inside.tack, STIFF.outside.tack][line] ?? STIFF.face.tack,
  cornerConstant: (corner) => (corner < 2 ? STIFF.corner.inside : STIFF.corner.outside),
  lozenge: { about1: SERIES.mitreAboutMitre, about2: SERIES.mitreAboutUp },
  closingShare: (line, before) => {
    if (line !== 1) return 1;
    const [inside, , top, bottom] = before.map((s) => s === "welded");
    if (inside || (top && bottom)) return OUTSIDE_SHARE.insideOrBothFaces;
    return top || bottom ? OUTSIDE_SHARE.oneFace : 1;
  },
  fillet: false,
  unfitted: (a, b, place) => [
    ...unfittedAngle(place.angleDeg),
    ...unfittedSections(a, b),
    ...(a.widthMm !== b.widthMm || a.heightMm !== b.heightMm || a.wallMm !== b.wallMm ? ["unequal sections"] : []),
  ],
};
