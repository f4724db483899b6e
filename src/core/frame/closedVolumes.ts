import { Groups } from "../numeric";
import { isHollow } from "./sectionOutline";
import type { Structure, StructureMember } from "./structure";

/** Tubes that make one closed space once everything is beaded. */
export interface ClosedVolume {
  members: string[];
  /** Length of tube in it, mm. */
  lengthMm: number;
  why: string;
}

/**
 * Closed volumes of a welded frame: hollow members that open into each other at mitres make one; one whose ends both land
 * on walls, or carry caps, is closed by itself. A volume with an open end is none.
 */
export function closedVolumes(structure: Structure): ClosedVolume[] {
  const hollow = structure.members.filter((m) => isHollow(m.shape));
  const groups = new Groups(hollow.map((m) => m.id));
  const open = new Set<string>();
  for (const m of hollow)
    for (const end of ["from", "to"] as const) {
      const h = m.ends[end].hollow;
      if (h === "open") open.add(m.id);
      else if (typeof h === "object" && groups.has(h.into)) groups.join(m.id, h.into);
    }
  const sets = new Map<string, StructureMember[]>();
  for (const m of hollow) sets.set(groups.of(m.id), [...(sets.get(groups.of(m.id)) ?? []), m]);
  return [...sets.values()]
    .filter((set) => !set.some((m) => open.has(m.id)))
    .map((set) => ({
      members: set.map((m) => m.id),
      lengthMm: set.reduce((s, m) => s + m.centreMm, 0),
      why: set.length > 1 ? "the mitres open into each other: one space" : "closed at both ends by what it lands on",
    }));
}
