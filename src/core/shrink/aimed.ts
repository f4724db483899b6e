import type { Structure, StructureMember } from "../frame";
import { CORNERS, ends, SPANS } from "../geometry";
import { add3, dot3, norm3, scale3, squareTo, sub3, unit3, type Vec3 } from "../numeric";
import type { SetUpShape, SetUpTarget } from "./settingUp";

/** How much longer (along AB) and wider than drawn the finished frame shall be, mm. */
export interface Growth {
  lengthMm: number;
  widthMm: number;
}

const NONE: Vec3 = [0, 0, 0];

/**
 * How far each place moves when a quadrilateral is made longer and wider than drawn: tubes keep their width, so it is the
 * centre lines of opposite sides that move apart. Nothing moves in a frame without corners.
 */
export function growing({ quad, joints }: Structure, { lengthMm, widthMm }: Growth): (at: Vec3) => Vec3 {
  if (!quad || (lengthMm === 0 && widthMm === 0)) return () => NONE;
  const at = Object.fromEntries(
    CORNERS.map((c) => [c, joints.find((j) => j.id === quad.joints[c])?.at ?? quad.at[c]]),
  ) as Record<"A" | "B" | "C" | "D", Vec3>;
  const along = sub3(at.B, at.A);
  const u = unit3(along);
  const across = squareTo(sub3(at.D, at.A), u);
  const v = unit3(across);
  const [long, wide] = [norm3(along), norm3(across)];
  return (p) => {
    const r = sub3(p, at.A);
    return add3(scale3(u, lengthMm * (dot3(r, u) / long - 0.5)), scale3(v, widthMm * (dot3(r, v) / wide - 0.5)));
  };
}

/** How much longer a member gets with the frame, mm: what its two joints move apart along it. */
export function memberGrowth(structure: Structure, growth: Growth): (m: StructureMember) => number {
  const move = growing(structure, growth);
  const joints = new Map(structure.joints.map((j) => [j.id, j.at]));
  return (m) => {
    const [from, to] = (["from", "to"] as const).map((end) =>
      move(joints.get(m.ends[end].joints[0] ?? "") ?? m.ends[end].at),
    ) as [Vec3, Vec3];
    return dot3(sub3(to, from), m.axes[0]);
  };
}

/** The set-up of a frame that shall end longer and wider than drawn: every place is set off by that besides. */
export function aimedSetUp(structure: Structure, setUp: SetUpShape, growth: Growth): SetUpShape {
  const { quad } = structure;
  if (!quad || (growth.lengthMm === 0 && growth.widthMm === 0)) return setUp;
  const move = growing(structure, growth);
  const longer = memberGrowth(structure, growth);
  const at = new Map(structure.joints.map((j) => [j.id, j.at]));
  const corner = Object.fromEntries(CORNERS.map((c) => [c, move(at.get(quad.joints[c]) ?? quad.at[c])]));
  const grown = ({ id }: SetUpTarget): number => {
    if (id.kind === "length") {
      const m = structure.members.find((x) => x.id === id.member);
      return m ? longer(m) : 0;
    }
    const span = id.kind === "span" ? SPANS.find((s) => s === id.span) : undefined;
    if (!span) return 0;
    const [p, q] = ends(span);
    const drawn = sub3(quad.at[q], quad.at[p]);
    return norm3(add3(drawn, sub3(corner[q] ?? NONE, corner[p] ?? NONE))) - norm3(drawn);
  };
  return {
    ...setUp,
    offsetsMm: Object.fromEntries(
      Object.entries(setUp.offsetsMm).map(([id, v]) => [id, add3(v, move(at.get(id) ?? NONE))]),
    ),
    targets: setUp.targets.map((t) => {
      const by = grown(t);
      const { value, low, high } = t.target;
      return by === 0 ? t : { ...t, target: { value: value + by, low: low + by, high: high + by } };
    }),
  };
}
