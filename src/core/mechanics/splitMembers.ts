import { dot3, norm3, scale3, sub3, unit3 } from "../numeric";
import type { BeamMember, MechanicalFrame } from "./mechanicalFrame";

/** Points this near to a member's axis lie on it, mm. */
const ON_LINE_MM = 0.01;

/**
 * Splits members where branches land on them: every joint's point that lies on a member it names, but is not among that
 * member's points, is put in between. Points off the axis are left for frameProblems to name.
 * @returns the same frame when nothing has to be split.
 */
export function splitWhereBranchesLand(frame: MechanicalFrame): MechanicalFrame {
  const members = frame.members.map((member): BeamMember => {
    const [from, to] = [frame.points[member.points[0] ?? ""], frame.points[member.points.at(-1) ?? ""]];
    if (!from || !to) return member;
    const span = sub3(to, from);
    const length = norm3(span);
    if (!(length > 0)) return member;
    const axis = unit3(span);
    const along = (name: string): number => dot3(sub3(frame.points[name], from), axis);
    const wanted = frame.joints
      .flatMap((j) => [...(j.a === member.id ? [j.point] : []), ...(j.b === member.id ? [j.pointB ?? j.point] : [])])
      .filter((name) => {
        const at = frame.points[name];
        if (!at || member.points.includes(name)) return false;
        const r = sub3(at, from);
        const s = dot3(r, axis);
        return s > ON_LINE_MM && s < length - ON_LINE_MM && norm3(sub3(r, scale3(axis, s))) < ON_LINE_MM;
      });
    if (wanted.length === 0) return member;
    const points = [...new Set([...member.points, ...wanted])].sort((a, b) => along(a) - along(b));
    return { ...member, points };
  });
  return members.every((m, i) => m === frame.members[i]) ? frame : { ...frame, members };
}
