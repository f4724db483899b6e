import type { BeamMember, BeamSection, MechanicalFrame, ModelMember } from "../../mechanics";
import { cross3, dot3, norm3, scale3, sub3, unit3, type Vec3 } from "../../numeric";
import type { Problem } from "../../units";
import type { JointForm } from "../jointKind";
import { TABLED } from "../tabled";

/** Direction from a member's end at a node into the member. */
export const into = (member: ModelMember, node: number): Vec3 =>
  node === member.nodes[0] ? member.axes[0] : scale3(member.axes[0], -1);

export const angleBetween = (a: Vec3, b: Vec3): number => (Math.atan2(norm3(cross3(a, b)), dot3(a, b)) * 180) / Math.PI;

/** From the middle to where a face's weld line runs: the middle of a wall, or the face itself of what is solid, mm. */
export const lineAt = (widthMm: number, wallMm: number): number =>
  2 * wallMm >= widthMm ? widthMm / 2 : (widthMm - wallMm) / 2;

/** Direction of a member from its first point to its last. */
export const direction = (frame: MechanicalFrame, m: BeamMember): Vec3 =>
  unit3(sub3(frame.points[m.points.at(-1) as string], frame.points[m.points[0]]));

export const error = (joint: string, message: string): Problem => ({
  path: `joints/${joint}`,
  message,
  severity: "error",
});

const outside = (x: number, [from, to]: readonly [number, number]): boolean => x < from - 1e-9 || x > to + 1e-9;

/** Sections beyond those of the tables. @param form width over wall and proportions as the table takes them. */
export function untabledSections(a: BeamSection, b: BeamSection, { bMm, tMm }: JointForm): string[] {
  const shapes = new Set([a.shape, b.shape]);
  if (shapes.size > 1 || !shapes.has("tube")) return ["a section that is no square or rectangular tube"];
  const slim = [a, b].some((s) => outside(s.heightMm / s.widthMm, TABLED.heightOverWidth));
  return [
    ...(slim ? ["tube more than twice as wide as high, or as high as wide"] : []),
    ...(outside(bMm / tMm, TABLED.widthOverWall) ? [`a wall of 1/${Math.round(bMm / tMm)} of the width`] : []),
  ];
}

/** A branch that does not stand square on its chord. */
export const untabledSlope = (angleDeg: number): string[] =>
  Math.abs(angleDeg - TABLED.squareDeg) > TABLED.toleranceDeg ? [`${Math.round(angleDeg)}° and not 90°`] : [];

/** A mitre sharper or flatter than those of the table. */
export const untabledMitre = (angleDeg: number): string[] =>
  outside(Math.round(angleDeg), TABLED.mitreDeg) ? [`${Math.round(angleDeg)}° between the legs`] : [];
