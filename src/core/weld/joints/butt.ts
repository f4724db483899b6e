import type { JointKind } from "../jointKind";
import { RING } from "../ringConstants";
import { cornerPlace, cornerProblems } from "./corner";
import { unfittedSections } from "./shared";

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
  shear: RING.butt.shear,
  beadDensity: () => RING.butt.density,
  tackDensity: () => RING.butt.tack,
  cornerConstant: () => 0,
  lozenge: { about1: 0, about2: 0 },
  closingShare: () => 1,
  fillet: false,
  unfitted: (a, b) => ["a straight butt was not fitted", ...unfittedSections(a, b)],
};
