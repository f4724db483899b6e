import { type Structure, type StructureMember, seenAt } from "../frame";
import { CORNERS, type Corner, ends } from "../geometry";
import { add, add3, dot3, norm3, scale3, squareTo, sub3, unit3, type Vec3 } from "../numeric";
import { cornerAngleDeg } from "../square";
import type { Estimate } from "../units";
import type { Prediction } from "./prediction";
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
export const memberGrowth = (structure: Structure, growth: Growth): ((m: StructureMember) => number) =>
  stretching(structure, growing(structure, growth));

function stretching(structure: Structure, move: (at: Vec3) => Vec3): (m: StructureMember) => number {
  const joints = new Map(structure.joints.map((j) => [j.id, j.at]));
  return (m) => {
    const end = (which: "from" | "to"): Vec3 => move(joints.get(m.ends[which].joints[0] ?? "") ?? m.ends[which].at);
    return dot3(sub3(end("to"), end("from")), m.axes[0]);
  };
}

/** What the weld is likely to lean a quadrilateral by, where that is less than its scatter: noise, that nobody can aim at. */
export function leanNoise({ outcomes }: Pick<Prediction, "outcomes">): Estimate | null {
  const lean = outcomes.find((o) => o.id.kind === "square")?.estimate;
  return lean && lean.value !== 0 && Math.abs(lean.value) < (lean.high - lean.low) / 2 ? lean : null;
}

/** The lean in a set-up, as a movement of every place: the side CD slides along AB, what lies between goes along in proportion. */
function leaning({ quad, joints }: Structure, offsetsMm: SetUpShape["offsetsMm"]): (at: Vec3) => Vec3 {
  if (!quad) return () => NONE;
  const at = (c: "A" | "B" | "C" | "D"): Vec3 => joints.find((j) => j.id === quad.joints[c])?.at ?? quad.at[c];
  const off = (c: "A" | "B" | "C" | "D"): Vec3 => offsetsMm[quad.joints[c]] ?? NONE;
  const along = sub3(at("B"), at("A"));
  const [u, long] = [unit3(along), norm3(along)];
  const across = squareTo(sub3(at("D"), at("A")), u);
  const [v, wide] = [unit3(across), norm3(across)];
  const slides = (dot3(off("C"), u) + dot3(off("D"), u) - dot3(off("A"), u) - dot3(off("B"), u)) / 2;
  const rises = (dot3(off("B"), v) + dot3(off("C"), v) - dot3(off("A"), v) - dot3(off("D"), v)) / 2;
  // Whichever pair of sides turned, it is one shear.
  const lean = slides + (rises * wide) / long;
  return (p) => scale3(u, lean * (dot3(sub3(p, at("A")), v) / wide - 0.5));
}

/**
 * The set-up of a frame that shall end longer and wider than drawn: every place is set off by that besides. A lean that is
 * noise is left out.
 */
export function aimedSetUp(
  structure: Structure,
  prediction: Pick<Prediction, "outcomes" | "setUp">,
  growth: Growth,
): SetUpShape {
  const { quad } = structure;
  const { setUp } = prediction;
  const noise = leanNoise(prediction) !== null;
  if (!quad || (growth.lengthMm === 0 && growth.widthMm === 0 && !noise)) return setUp;
  const grown = growing(structure, growth);
  const lean = noise ? leaning(structure, setUp.offsetsMm) : () => NONE;
  const move = (p: Vec3): Vec3 => sub3(grown(p), lean(p));
  const longer = stretching(structure, move);
  const at = new Map(structure.joints.map((j) => [j.id, j.at]));
  const off = Object.fromEntries(CORNERS.map((c) => [c, move(at.get(quad.joints[c]) ?? quad.at[c])])) as Record<
    Corner,
    Vec3
  >;
  const flat = Object.fromEntries(
    CORNERS.map((c) => [c, add(quad.corners[c], seenAt(off[c], quad.view))]),
  ) as typeof quad.corners;
  const by = ({ id }: SetUpTarget): number => {
    if (id.kind === "length") {
      const m = structure.members.find((x) => x.id === id.member);
      return m ? longer(m) : 0;
    }
    if (id.kind === "angle") return cornerAngleDeg(flat, id.corner) - cornerAngleDeg(quad.corners, id.corner);
    if (id.kind !== "span") return 0;
    const [p, q] = ends(id.span);
    const drawn = sub3(quad.at[q], quad.at[p]);
    return norm3(add3(drawn, sub3(off[q], off[p]))) - norm3(drawn);
  };
  return {
    ...setUp,
    offsetsMm: Object.fromEntries(
      Object.entries(setUp.offsetsMm).map(([id, v]) => [id, add3(v, move(at.get(id) ?? NONE))]),
    ),
    targets: setUp.targets.map((t) => {
      const more = by(t);
      const { value, low, high } = t.target;
      return more === 0 ? t : { ...t, target: { value: value + more, low: low + more, high: high + more } };
    }),
  };
}
