import type { Structure, StructureJoint } from "../frame";
import { Groups } from "../numeric";
import type { StepId } from "./stepSchema";
import { stillTurns } from "./stillTurns";

/** What hangs together by some moment of an order. */
interface Piece {
  members: string[];
  /** Joints that have a tack, and those of them that have more than one. */
  tacked: StructureJoint[];
  twice: boolean;
  beaded: boolean;
}

/** @param ids what was done by then, in any order. */
function piecesBy({ members, joints }: Structure, ids: readonly StepId[]): Piece[] {
  const tacks = new Map<string, Set<string>>();
  const beads = new Set<string>();
  for (const id of ids) {
    if (id.do === "bead") beads.add(id.joint);
    if (id.do === "tack") tacks.set(id.joint, (tacks.get(id.joint) ?? new Set()).add(id.line));
  }
  const held = joints.filter((j) => tacks.has(j.id) || beads.has(j.id));
  const groups = new Groups(members.map((m) => m.id));
  for (const { a, b } of held) groups.join(a, b);
  const pieces = new Map<string, Piece>();
  const pieceAt = (member: string): Piece => {
    const piece = pieces.get(groups.of(member)) ?? { members: [], tacked: [], twice: false, beaded: false };
    pieces.set(groups.of(member), piece);
    return piece;
  };
  for (const { id } of members) pieceAt(id).members.push(id);
  for (const j of held) {
    const piece = pieceAt(j.a);
    if (beads.has(j.id)) piece.beaded = true;
    const lines = tacks.get(j.id)?.size ?? 0;
    if (lines > 0) piece.tacked.push(j);
    if (lines > 1) piece.twice = true;
  }
  return [...pieces.values()];
}

/** Whether some piece that has no bead, and no second tack at any joint, still gives way about its tacks. */
export const somethingTurns = (structure: Structure, ids: readonly StepId[]): boolean =>
  piecesBy(structure, ids).some((p) => p.tacked.length > 0 && !p.beaded && !p.twice && stillTurns(structure, p.tacked));

/**
 * Members that are put back into shape where an error is closed: not those of pieces that are stiff by then.
 * @param ids what was done before. @param cut whether tacks are cut for it. @returns null where all are.
 */
export function putBackAt(structure: Structure, ids: readonly StepId[], cut: boolean): string[] | null {
  const pieces = piecesBy(structure, ids);
  const loose = pieces.filter((p) => !p.beaded && (cut || !p.twice));
  return loose.length === pieces.length ? null : loose.flatMap((p) => p.members);
}
