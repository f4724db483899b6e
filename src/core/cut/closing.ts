import { type EndName, type Structure, type StructureMember, TOLERANCES } from "../frame";
import { type Problem, plainLength, type UnitPreference } from "../units";

/** A member that goes between two others, square at both ends: it can be cut to the gap as that is measured. */
export interface Closing {
  member: string;
  between: [from: string, to: string];
  /** The gap as drawn, mm: the piece with what is left open at its ends. */
  gapMm: number;
}

/** The gap that was measured for a member. */
export interface ClosingGap {
  id: string;
  gap: { mm: number };
}

/** A gap farther from the drawing than both is asked about: so many mm, and this share of it (own judgement). */
const FAR_MM = 25;
const FAR_SHARE = 0.05;

/** What a member's end stands on square, alone; null for any other end. */
function standsOn({ joints }: Structure, m: StructureMember, end: EndName): string | null {
  const own = joints.filter(
    (j) => (j.b === m.id && j.endB === end) || (j.kind === "mitre" && j.a === m.id && j.endA === end),
  );
  const cut = end === "from" ? m.begins : m.finishes;
  const isSquare = Math.max(...cut) - Math.min(...cut) < TOLERANCES.samePieceMm;
  const [joint] = own;
  return joint && own.length === 1 && joint.kind !== "lap" && joint.kind !== "mitre" && isSquare ? joint.a : null;
}

/** Members that go between two others, face to face. */
export const closingMembers = (structure: Structure): Closing[] =>
  structure.members.flatMap((m): Closing[] => {
    const [from, to] = [standsOn(structure, m, "from"), standsOn(structure, m, "to")];
    return from && to && from !== to
      ? [{ member: m.id, between: [from, to], gapMm: m.longMm + 2 * structure.rootGapMm }]
      : [];
  });

/** Gaps that are cut to: of members that go between two others, and leave a piece at all. Of each by its name, mm. */
export function closingGaps(structure: Structure, measured: readonly ClosingGap[]): Map<string, number> {
  const closing = new Set(closingMembers(structure).map((c) => c.member));
  return new Map(
    measured.flatMap(({ id, gap }) =>
      closing.has(id) && gap.mm > 2 * structure.rootGapMm ? [[id, gap.mm] as const] : [],
    ),
  );
}

/** What is wrong with gaps that were measured, or doubtful, each at its field. */
export function closingProblems(
  structure: Structure | null,
  measured: readonly ClosingGap[],
  units: UnitPreference,
): Problem[] {
  if (!structure) return [];
  const closing = closingMembers(structure);
  return measured.flatMap(({ id, gap }): Problem[] => {
    const path = `closing.${id}.gap`;
    const own = closing.find((c) => c.member === id);
    // Of a member that is gone nothing is asked.
    if (!structure.members.some((m) => m.id === id)) return [];
    if (!own)
      return [
        {
          path,
          message: `${id} goes between no two members square: the gap that was measured for it is left out.`,
          severity: "warning",
        },
      ];
    if (gap.mm <= 2 * structure.rootGapMm)
      return [
        { path, message: `No piece of ${id} goes into a gap of ${plainLength(gap.mm, units)}.`, severity: "error" },
      ];
    const off = Math.abs(gap.mm - own.gapMm);
    return off > Math.max(FAR_MM, FAR_SHARE * own.gapMm)
      ? [
          {
            path,
            message: `Drawn, the gap of ${id} is ${plainLength(own.gapMm, units)}. Is ${plainLength(gap.mm, units)} a slip?`,
            severity: "warning",
          },
        ]
      : [];
  });
}
