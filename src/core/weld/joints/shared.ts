import type { BeamMember, BeamSection, MechanicalFrame, ModelMember } from "../../mechanics";
import { cross3, dot3, norm3, scale3, sub3, unit3, type Vec3 } from "../../numeric";
import type { Problem } from "../../units";
import { FITTED } from "../ringConstants";

/** Direction from a member's end at a node into the member. */
export const into = (member: ModelMember, node: number): Vec3 =>
  node === member.nodes[0] ? member.axes[0] : scale3(member.axes[0], -1);

export const angleBetween = (a: Vec3, b: Vec3): number => (Math.atan2(norm3(cross3(a, b)), dot3(a, b)) * 180) / Math.PI;

/** From the middle to where a face's weld line runs: the middle of a wall, or the face itself of what is solid, mm. */
export const lineAt = (widthMm: number, wallMm: number): number =>
  2 * wallMm >= widthMm ? widthMm / 2 : (widthMm - wallMm) / 2;

/** Width over wall of a hollow; what is solid does not give way like a lozenge. */
export const slendernessOf = (widthMm: number, wallMm: number): number => Math.max(1, (widthMm - wallMm) / wallMm);

/** Direction of a member from its first point to its last. */
export const direction = (frame: MechanicalFrame, m: BeamMember): Vec3 =>
  unit3(sub3(frame.points[m.points.at(-1) as string], frame.points[m.points[0]]));

export const error = (joint: string, message: string): Problem => ({
  path: `joints/${joint}`,
  message,
  severity: "error",
});

/** Sections beyond those that were fitted. */
export function unfittedSections(a: BeamSection, b: BeamSection): string[] {
  const shapes = new Set([a.shape, b.shape]);
  if (shapes.size > 1 || !shapes.has("tube")) return ["a section that is no square tube"];
  return [a, b].some((s) => Math.abs(s.widthMm - s.heightMm) > 0.02 * s.widthMm) ? ["tube that is not square"] : [];
}

/** An angle beyond those that were fitted. */
export const unfittedAngle = (angleDeg: number): string[] =>
  Math.abs(angleDeg - FITTED.cornerDeg) > FITTED.toleranceDeg ? [`${Math.round(angleDeg)}° and not 90°`] : [];
