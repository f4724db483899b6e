import { lyingMembers } from "../fixture";
import { byMm, type Structure, type StructureFace, type StructureJoint } from "../frame";
import { CORNERS } from "../geometry";
import { dot3, scale3, sub3, type Vec3 } from "../numeric";
import { byJointPlace, byPlace, diagonalPlace } from "./byPlace";
import type { LiesOn, Up } from "./step";

/** A face looks up or down when its way is this far from level. */
const UPRIGHT = 0.7;

/** Which way up the frame lies when a face with this way looks up; null where it looks aside. */
export const upWhenFacing = (toward: Vec3): Up | null =>
  toward[2] > UPRIGHT ? "top" : toward[2] < -UPRIGHT ? "bottom" : null;

/** One joint with its faces that get a bead, told apart by which way they look. */
export interface JointWork {
  joint: StructureJoint;
  /** A corner of the ring, or two ends that are mitred. */
  corner: boolean;
  /** Of the two sides: inside of a corner, or the side that looks toward the lower left of a branch. */
  first: StructureFace | null;
  second: StructureFace | null;
  up: StructureFace | null;
  down: StructureFace | null;
  /** Sides besides, of a joint that lies on its side: the longest first. */
  more: StructureFace[];
}

/** What there is to weld, in an order that depends on the frame alone and not on how it was drawn. */
export interface Workpiece {
  structure: Structure;
  on: LiesOn;
  /** Corners A, C, B, D of the quadrilateral, each across from the last; then other corners. */
  corners: JointWork[];
  /** Whether the corners are those of a quadrilateral: the rest is put into it. */
  ring: boolean;
  /** Branches, jumping about from the ends inward; none before what it lands on is held. */
  branches: JointWork[];
  /** Members that were welded to each other before, set by set. */
  rigid?: string[][];
}

/** Corners so that each tack is followed by the one across the diagonal. */
const ACROSS = ["A", "C", "B", "D"] as const;

/** Ways that differ by less than this, as a share of one, count as alike. */
const ALIKE_WAY = 0.01;

function workOf(structure: Structure, joint: StructureJoint, corner: boolean): JointWork {
  const { quad } = structure;
  const middle = quad
    ? scale3(
        CORNERS.map((c) => quad.at[c]).reduce<Vec3>((s, p) => [s[0] + p[0], s[1] + p[1], s[2] + p[2]], [0, 0, 0]),
        1 / 4,
      )
    : scale3([0, 1, 2].map((i) => (structure.low[i] as number) + (structure.high[i] as number)) as never, 0.5);
  const faces = joint.faces.filter((f) => f.bead);
  const up = faces.find((f) => upWhenFacing(f.toward) === "top") ?? null;
  const down = faces.find((f) => upWhenFacing(f.toward) === "bottom") ?? null;
  const level = faces.filter((f) => f !== up && f !== down);
  // Inward for a corner, toward the lower left for a branch.
  const worth = (f: StructureFace): number =>
    f.line === "inside"
      ? Number.NEGATIVE_INFINITY
      : corner
        ? -dot3(f.toward, sub3(middle, joint.at))
        : diagonalPlace(f.toward);
  const isAlike = (a: StructureFace, b: StructureFace): boolean =>
    Math.abs(worth(a) - worth(b)) < ALIKE_WAY * Math.max(1, Math.abs(worth(a)));
  const sorted = [...level].sort((a, b) => (isAlike(a, b) ? a.toward[0] - b.toward[0] : worth(a) - worth(b)));
  // A corner whose inside is covered has its outside alone.
  const isOutside = (f: StructureFace): boolean => f.line === "outside" || (f.line !== "inside" && worth(f) > 0);
  const outside = corner && sorted.every(isOutside) ? sorted[0] : undefined;
  const first = outside ? undefined : sorted[0];
  const second =
    outside ?? (first && sorted.find((f) => f !== first && dot3(f.toward, first.toward) < -UPRIGHT)) ?? null;
  return {
    joint,
    corner,
    first: first ?? null,
    second,
    up,
    down,
    more: sorted.filter((f) => f !== first && f !== second).sort((a, b) => byMm(b.lengthMm, a.lengthMm)),
  };
}

const isCorner = (j: StructureJoint): boolean => j.kind === "mitre";

/** The first, the last, the second, the one before the last: what lies along another is straight before its middle is held. */
const fromEnds = <T>(row: readonly T[]): T[] =>
  row.map((_, i) => row[i % 2 === 0 ? i / 2 : row.length - (i + 1) / 2] as T);

/** What jumping about takes together: the joints of a branch; of two that are mitred neither is one, and their corner is alone. */
const takenWith = (j: StructureJoint): string => (isCorner(j) ? j.id : j.b);

/** Branch members from the ends inward, in turn from either end, corners among them; the joints of every second one from its far end. */
function jumping(structure: Structure, joints: readonly StructureJoint[]): StructureJoint[] {
  const ends = (name: string): Vec3[] => {
    const m = structure.members.find((x) => x.id === name);
    if (m) return [m.ends.from.at, m.ends.to.at].sort(byPlace);
    return joints.flatMap((j) => (j.id === name ? [j.at] : []));
  };
  /** By where they begin; of those that begin at one place by where they end. */
  const byEnds = (a: string, b: string): number => {
    const [p, q] = [ends(a), ends(b)];
    return p.reduce((found, at, i) => found || byPlace(at, q[i] ?? at), 0);
  };
  const byJoint = byJointPlace(structure);
  const names = [...new Set(joints.map(takenWith))];
  const sorted = names.sort(byEnds);
  const order: string[] = [];
  for (let low = 0, high = sorted.length - 1; low <= high; low++, high--) {
    order.push(sorted[low] as string);
    if (high > low) order.push(sorted[high] as string);
  }
  return order.flatMap((name, i) => {
    const own = joints.filter((j) => takenWith(j) === name).sort(byJoint);
    if (own.every((j) => j.along)) return fromEnds(own);
    return i % 2 === 0 ? own : own.reverse();
  });
}

/** How many joints each member is away from what is held from the start: legs on a ring one, stretchers between them two. */
function awayFromHeld(joints: readonly StructureJoint[], held: ReadonlySet<string>): Map<string, number> {
  const away = new Map([...held].map((id) => [id, 0]));
  for (const [id, by] of away)
    for (const { a, b } of joints) {
      const other = a === id ? b : b === id ? a : id;
      // A map that grows is gone through to its end: nearest first.
      if (!away.has(other)) away.set(other, by + 1);
    }
  return away;
}

/**
 * In which turn each member is put in: no sooner than it hangs together with what is held, and after those it lands on that are no farther from
 * it. A brace that ends on a cross member follows it; what lies on uprights follows them.
 */
function turnOf(joints: readonly StructureJoint[], held: ReadonlySet<string>): Map<string, number> {
  const away = awayFromHeld(joints, held);
  const most = away.size;
  const landings = joints.filter(
    ({ kind, a, b }) => kind !== "mitre" && (away.get(a) ?? most) <= (away.get(b) ?? most),
  );
  const turn = new Map(away);
  // Members that land on each other all round follow no one: their turns end at the last.
  for (let moved = true; moved; ) {
    moved = false;
    for (const { a, b } of landings) {
      const after = Math.min(most, (turn.get(a) ?? most) + 1);
      if ((turn.get(b) ?? most) >= after) continue;
      turn.set(b, after);
      moved = true;
    }
  }
  return turn;
}

/**
 * The same joints so that each lands on something that is held by then: held from the start, or tacked before. What is nearer to what is held
 * comes first: no member goes between two of which one is not tacked yet.
 */
function supported(joints: readonly StructureJoint[], held: readonly string[]): StructureJoint[] {
  const standing = new Set(held);
  const turn = turnOf(joints, standing);
  const far = ({ a, b }: StructureJoint): number => Math.max(...[a, b].map((id) => turn.get(id) ?? turn.size));
  const left = [...joints].sort((p, q) => far(p) - far(q));
  const out: StructureJoint[] = [];
  while (left.length > 0) {
    const found = left.findIndex((j) => standing.has(j.a) || standing.has(j.b));
    const [next] = left.splice(Math.max(0, found), 1) as [StructureJoint];
    standing.add(next.a).add(next.b);
    out.push(next);
  }
  return out;
}

/** Whether four corners are among what there is to weld, each of one joint: sides that land on posts are worked as branches are. */
const isWorkedAsRing = ({ quad, joints }: Pick<Structure, "quad" | "joints">): boolean =>
  quad !== null && CORNERS.every((c) => !quad.posts[c] && joints.some((j) => j.id === quad.joints[c]));

/**
 * What there is to weld on a structure. @param on what it lies on meanwhile. @param held members that stand already, besides those that
 * lie on the bed.
 */
export function workpiece(structure: Structure, on: LiesOn = "surface", held: readonly string[] = []): Workpiece {
  const { joints } = structure;
  const quad = isWorkedAsRing(structure) ? structure.quad : null;
  const ofRing = quad ? ACROSS.map((c) => joints.find((j) => j.id === quad.joints[c]) as StructureJoint) : [];
  const work = (list: readonly StructureJoint[], corner: boolean): JointWork[] =>
    list.map((j) => workOf(structure, j, corner || isCorner(j)));
  if (quad) {
    const rest = joints.filter((j) => !ofRing.includes(j));
    return {
      structure,
      on,
      corners: work(ofRing, true),
      ring: true,
      branches: work(supported(jumping(structure, rest), [...held, ...Object.values(quad.sides)]), false),
    };
  }
  const corners = jumping(
    structure,
    joints.filter((j) => j.kind === "mitre"),
  );
  const others = jumping(
    structure,
    joints.filter((j) => j.kind !== "mitre"),
  );
  const lying = lyingMembers(structure).map((m) => m.id);
  const all = supported([...corners, ...others], [...held, ...lying]);
  return {
    structure,
    on,
    corners: work(
      all.filter((j) => j.kind === "mitre"),
      true,
    ),
    ring: false,
    branches: work(
      all.filter((j) => j.kind !== "mitre"),
      false,
    ),
  };
}

/** The same lying on its other side: what looked up looks down. */
export function turnedOver(work: Workpiece): Workpiece {
  const over = (list: readonly JointWork[]): JointWork[] => list.map((w) => ({ ...w, up: w.down, down: w.up }));
  return { ...work, corners: over(work.corners), branches: over(work.branches) };
}

/** Joints along the layout: from the lower left to the upper right. */
export function alongLayout(w: Workpiece): JointWork[] {
  const byJoint = byJointPlace(w.structure);
  return allJoints(w).sort((a, b) => byJoint(a.joint, b.joint));
}

/** Joints of a workpiece, corners first. */
export const allJoints = (w: Workpiece): JointWork[] => [...w.corners, ...w.branches];
