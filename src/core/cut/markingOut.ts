import {
  type Direction,
  directionWord,
  type Structure,
  type StructureJoint,
  type StructureMember,
  tubeBeginsMm,
} from "../frame";
import { add3, cross3, dot3, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { drillAlongMm } from "./drill";
import type { Drill } from "./drillSchema";

/** One mark on a piece, in running distances from its first end, mm. */
export type Mark =
  | {
      kind: "lands";
      /** What lands there. */
      member: string;
      /** Middle on the face that it lands on, and both edges of its foot. */
      centreMm: number;
      edgesMm: [number, number];
      face: Direction;
    }
  | {
      kind: "seam";
      /** What lies along it there, and which piece of their seam of how many. */
      member: string;
      nth: number;
      pieces: number;
      /** Middle of the piece, and where it begins and ends. */
      centreMm: number;
      edgesMm: [number, number];
      face: Direction;
    }
  | { kind: "hole"; drill: string; centreMm: number; diameterMm: number; face: Drill["face"] };

/** The end of a piece that is measured from. */
export interface FirstEnd {
  /** Joint at it; null for a free end. */
  from: string | null;
  /** Which way it looks where both ends are free; null where that is no question. */
  looks: Direction | null;
  /** Whether it is slanted: the tape is hooked on its long point. */
  isSlanted: boolean;
}

/** A piece with everything that is marked on it. */
export interface MarkedPiece extends FirstEnd {
  member: string;
  longMm: number;
  marks: Mark[];
}

/** How far a place along a member is moved along it, as it is set up, mm. */
export type AlongOff = (member: string, alongMm: number) => number;

const SLANT_MM = 0.05;

/** Points of a section's outline as places across. */
const across = (m: StructureMember): Vec3[] =>
  m.outline.map((p) => add3(scale3(m.axes[1], p.x), scale3(m.axes[2], p.y)));

const reachOf = (m: StructureMember, way: Vec3): number => Math.max(...across(m).map((o) => dot3(o, way)));

/** The foot of a branch on the face of what it lands on, along that, from where the middle lines meet, mm. */
function footOf(
  m: StructureMember,
  branch: StructureMember,
  into: Vec3,
): { low: number; high: number; face: Vec3 } | null {
  const u = m.axes[0];
  const square = sub3(into, scale3(u, dot3(into, u)));
  if (norm3(square) < 0.05) return null;
  const face = unit3(square);
  const slope = dot3(into, u) / dot3(into, face);
  const h = reachOf(m, face);
  const s = across(branch).map((o) => dot3(o, u) + (h - dot3(o, face)) * slope);
  return { low: Math.min(...s), high: Math.max(...s), face };
}

/** The foot of a member that lies across another. */
function lapFoot(m: StructureMember, other: StructureMember, between: Vec3): { low: number; high: number; face: Vec3 } {
  const u = m.axes[0];
  const n = norm3(between) > 1e-6 ? unit3(between) : m.axes[2];
  const t = cross3(n, other.axes[0]);
  const half = reachOf(other, unit3(t)) / Math.max(0.1, Math.abs(dot3(unit3(t), u)));
  return { low: -half, high: half, face: n };
}

/** The end that a member begins at, as it is measured from. */
export function firstEndOf({ joints }: Structure, m: StructureMember): FirstEnd {
  const at = (end: "from" | "to") =>
    joints.find((j) => (j.a === m.id && j.endA === end) || (j.b === m.id && j.endB === end))?.id ?? null;
  const from = at("from");
  return {
    from,
    looks: from === null && at("to") === null ? directionWord(scale3(m.axes[0], -1)) : null,
    isSlanted: Math.max(...m.begins) - tubeBeginsMm(m) > SLANT_MM,
  };
}

function landing(structure: Structure, m: StructureMember, j: StructureJoint): Mark | null {
  const isA = j.a === m.id;
  const other = structure.members.find((x) => x.id === (isA ? j.b : j.a));
  // What ends here needs no mark; nor has a corner one.
  if (!other || (isA ? j.endA : j.endB) !== null) return null;
  const at = isA ? j.at : j.atB;
  const end = isA ? j.endB : j.endA;
  const place = dot3(sub3(at, m.from), m.axes[0]);
  if (j.along) {
    const { seamMm, nth, pieces } = j.along;
    return {
      ...{ kind: "seam", member: other.id, nth, pieces, centreMm: place },
      edgesMm: [place - seamMm / 2, place + seamMm / 2],
      face: directionWord(lapFoot(m, other, isA ? sub3(j.atB, j.at) : sub3(j.at, j.atB)).face),
    };
  }
  const foot =
    end === null
      ? lapFoot(m, other, isA ? sub3(j.atB, j.at) : sub3(j.at, j.atB))
      : footOf(m, other, scale3(other.axes[0], end === "from" ? 1 : -1));
  if (!foot) return null;
  return {
    kind: "lands",
    member: other.id,
    centreMm: place + (foot.low + foot.high) / 2,
    edgesMm: [place + foot.low, place + foot.high],
    face: directionWord(foot.face),
  };
}

/** A foot as far as it stands beside another one that it ends at, too: a brace in the corner of two. */
function besideWhatItEndsAt({ joints }: Structure, mark: Mark, all: readonly Mark[]): Mark {
  if (mark.kind !== "lands") return mark;
  let [low, high] = mark.edgesMm;
  for (const other of all) {
    if (other.kind !== "lands" || other.face !== mark.face) continue;
    if (!joints.some((j) => j.a === other.member && j.b === mark.member && j.endB !== null)) continue;
    if (other.centreMm > mark.centreMm) high = Math.max(low, Math.min(high, other.edgesMm[0]));
    else low = Math.min(high, Math.max(low, other.edgesMm[1]));
  }
  return { ...mark, edgesMm: [low, high] };
}

/**
 * What is marked on each piece before it is laid down: where others land, by their middle and both edges, pieces of seam along others, and holes, in running
 * distances from the long point of its first end.
 * @param off how a place along a member is moved as it is set up; nought for the sizes of the drawing.
 */
export function markingOut(structure: Structure, drills: readonly Drill[], off: AlongOff = () => 0): MarkedPiece[] {
  return structure.members.flatMap((m): MarkedPiece[] => {
    const begin = tubeBeginsMm(m);
    const running = (alongMm: number): number => alongMm + off(m.id, alongMm) - begin - off(m.id, begin);
    const end = Math.max(...m.finishes);
    const landings = structure.joints
      .filter((j) => j.a === m.id || j.b === m.id)
      .flatMap((j) => landing(structure, m, j) ?? [])
      // What lies across it past its end is marked on what it ends on.
      .filter(({ centreMm }) => centreMm >= begin && centreMm <= end)
      .map((mark, _, all) => besideWhatItEndsAt(structure, mark, all));
    const marks = [
      ...landings.map((mark): Mark => {
        if (mark.kind === "hole") return mark;
        // A foot, or a piece of seam, keeps its size: it moves as a whole.
        const by = running(mark.centreMm) - mark.centreMm;
        const onPiece = (mm: number): number => Math.min(running(end), Math.max(0, mm + by));
        return {
          ...mark,
          centreMm: mark.centreMm + by,
          // What reaches beyond an end is marked as far as there is tube.
          edgesMm: [onPiece(mark.edgesMm[0]), onPiece(mark.edgesMm[1])],
        };
      }),
      ...drills
        .filter((d) => d.member === m.id)
        .map(
          (d): Mark => ({
            kind: "hole",
            drill: d.id,
            centreMm: running(drillAlongMm(m, d)),
            diameterMm: d.diameter.mm,
            face: d.face,
          }),
        ),
    ].sort((a, b) => a.centreMm - b.centreMm);
    if (marks.length === 0) return [];
    return [
      {
        member: m.id,
        ...firstEndOf(structure, m),
        longMm: running(end),
        marks,
      },
    ];
  });
}
