import { overlapMm } from "../geometry";
import { cross3, dot3, norm3, scale3, squareTo, sub3, type Vec3 } from "../numeric";
import { bodyPoints } from "./resolveStructure";
import type { Structure, StructureMember } from "./structure";

/** Two members that land on a third in each other's place. */
export interface SharedFoot {
  on: string;
  a: string;
  b: string;
  /** How much of the face they share, across the narrower way, mm. */
  sharedMm: number;
}

/** Feet that share less are a matter of fit, mm. */
const SEEN_MM = 1;
/** Faces that look the same way to this cosine are one face. */
const SAME_FACE = 0.99;
/** A branch that leaves its chord by less than this, sine, has no foot on it. */
const LEAVES = 0.05;

/** Where a branch stands on the face of the member that runs through. */
interface Foot {
  member: string;
  /** The way that the face looks. */
  face: Vec3;
  points: Vec3[];
  /** From where to where along the chord, mm. */
  from: number;
  to: number;
}

/** The outline of a branch's end on its chord; null for what another may stand within. */
function footOf(chord: StructureMember, branch: StructureMember, end: "from" | "to"): Foot | null {
  const { shape } = branch.shape;
  if (shape === "angle" || shape === "channel") return null;
  const out = squareTo(scale3(branch.axes[0], end === "from" ? 1 : -1), chord.axes[0]);
  const size = norm3(out);
  if (size < LEAVES) return null;
  const [all, n] = [bodyPoints(branch), branch.outline.length];
  const points = end === "from" ? all.slice(0, n) : all.slice(n);
  const along = points.map((p) => dot3(p, chord.axes[0]));
  return {
    member: branch.id,
    face: scale3(out, 1 / size),
    points,
    from: Math.min(...along),
    to: Math.max(...along),
  };
}

/** Ways in the face that are square to the edges of an outline. */
const squareToEdges = ({ points, face }: Foot): Vec3[] =>
  points.flatMap((p, i) => {
    const way = cross3(face, sub3(points[(i + 1) % points.length] as Vec3, p));
    const size = norm3(way);
    return size > 1e-6 ? [scale3(way, 1 / size)] : [];
  });

/** Members that land on one face of a third in each other's place, though nothing joins them. */
export function sharedFeet({ members, joints }: Structure): SharedFoot[] {
  const byId = new Map(members.map((m) => [m.id, m]));
  const meet = (a: string, b: string): boolean =>
    joints.some((j) => (j.a === a && j.b === b) || (j.a === b && j.b === a));
  const feet = new Map<string, Foot[]>();
  for (const j of joints) {
    const [chord, branch] = [byId.get(j.a), byId.get(j.b)];
    const foot = j.kind === "tee" && chord && branch && j.endB !== null ? footOf(chord, branch, j.endB) : null;
    if (foot) feet.set(j.a, [...(feet.get(j.a) ?? []), foot]);
  }
  return [...feet].flatMap(([on, all]) =>
    all.flatMap((p, i) =>
      all.slice(i + 1).flatMap((q): SharedFoot[] => {
        if (p.to - q.from < SEEN_MM || q.to - p.from < SEEN_MM || p.member === q.member) return [];
        if (dot3(p.face, q.face) < SAME_FACE || meet(p.member, q.member)) return [];
        const sharedMm = overlapMm(p.points, q.points, [...squareToEdges(p), ...squareToEdges(q)]);
        return sharedMm > SEEN_MM ? [{ on, a: p.member, b: q.member, sharedMm }] : [];
      }),
    ),
  );
}
