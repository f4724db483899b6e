import type { BeamJointKind, BeamSection } from "../mechanics";
import { FITTED } from "./ringConstants";

/**
 * Why the constants of a joint are the nearest ones rather than fitted ones, in words; empty when they were fitted.
 * @param angleDeg between the two members. @param beta branch width over chord width.
 */
export function jointFit(
  kind: BeamJointKind,
  a: BeamSection,
  b: BeamSection,
  angleDeg: number,
  beta: number,
): string[] {
  const why: string[] = [];
  if (kind === "lap") why.push("a lap is taken as a tee");
  if (kind === "butt") why.push("a straight butt was not fitted");
  else if (Math.abs(angleDeg - FITTED.cornerDeg) > FITTED.toleranceDeg)
    why.push(`${Math.round(angleDeg)}° and not 90°`);
  const shapes = new Set([a.shape, b.shape]);
  if (shapes.size > 1 || !shapes.has("tube")) why.push("a section that is no square tube");
  else if ([a, b].some((s) => Math.abs(s.widthMm - s.heightMm) > 0.02 * s.widthMm)) why.push("tube that is not square");
  if (kind === "mitre" && (a.widthMm !== b.widthMm || a.heightMm !== b.heightMm || a.wallMm !== b.wallMm))
    why.push("unequal sections");
  if (kind === "tee" && beta < FITTED.narrowestBranch) why.push("a branch much narrower than its chord");
  return why;
}
