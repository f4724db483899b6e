import { Groups } from "../numeric";
import type { Structure, StructureMember } from "./structure";
import { TOLERANCES } from "./tolerances";

/** A flat part of a frame that stands: what lies in one upright plane and is joined there. */
export interface FlatPart {
  name: string;
  members: string[];
}

/** Upright planes are square to x or to y; those square to x are sides, seen from the front. */
const ACROSS = [0, 1] as const;
type Across = (typeof ACROSS)[number];
const NAMES: Record<Across, { first: string; last: string; between: string }> = {
  0: { first: "left side", last: "right side", between: "side" },
  1: { first: "front", last: "back", between: "upright frame" },
};

const stands = (m: StructureMember): boolean => Math.abs(m.axes[0][2]) > 1 - TOLERANCES.squareSine;
/** Half of how far a member reaches across a plane, mm. */
const halfMm = (m: StructureMember, across: Across): number =>
  Math.max(...m.outline.map((p) => Math.abs(p.x * m.axes[1][across] + p.y * m.axes[2][across])));

/** Members whose lines lie within half a tube of a plane. */
const inPlane = (members: readonly StructureMember[], across: Across, atMm: number): StructureMember[] =>
  members.filter((m) => [m.from, m.to].every((p) => Math.abs(p[across] - atMm) <= halfMm(m, across)));

/** Whether all of a frame lies in one upright plane: laid down, the bed carries all of it. */
export function isFlatUpright({ members }: Pick<Structure, "members">): boolean {
  const [first] = members;
  return (
    first !== undefined &&
    members.some(stands) &&
    ACROSS.some((across) => inPlane(members, across, first.from[across]).length === members.length)
  );
}

/** Flat parts square to one axis, from the left or from the front. */
function partsAcross({ members, joints }: Structure, across: Across): FlatPart[] {
  const taken = new Set<string>();
  const found: StructureMember[][] = [];
  const places = [...new Set(members.filter(stands).map((m) => m.from[across]))].sort((a, b) => a - b);
  for (const at of places) {
    const here = inPlane(members, across, at).filter((m) => !taken.has(m.id));
    const joined = new Groups(here.map((m) => m.id));
    for (const { a, b } of joints) if ([a, b].every((id) => here.some((m) => m.id === id))) joined.join(a, b);
    const legs = here.filter(stands);
    // All that hangs together with the first leg: two that stand, and something between them, or it is no frame.
    const part = here.filter((m) => legs[0] && joined.of(m.id) === joined.of(legs[0].id));
    if (part.filter(stands).length < 2 || part.every(stands)) continue;
    for (const m of part) taken.add(m.id);
    found.push(part);
  }
  const { first, last, between } = NAMES[across];
  return found.map((part, i) => ({
    name: i === 0 ? first : i === found.length - 1 ? last : `${between} ${i + 1}`,
    members: part.map((m) => m.id),
  }));
}

/**
 * Flat frames that a frame which stands can be built from, each on the bed, before they are stood up and joined: two or more upright ones that
 * hold all of its legs, the way that leaves less tube to be put between them. In the order in which they are joined.
 * @returns none for what lies flat, or has legs that no such frame holds.
 */
export function flatParts(structure: Structure): FlatPart[] {
  const legs = structure.members.filter(stands);
  const length = new Map(structure.members.map((m) => [m.id, m.longMm]));
  const ways = ACROSS.map((across) => partsAcross(structure, across)).filter(
    (parts) => parts.length >= 2 && legs.every((leg) => parts.some((p) => p.members.includes(leg.id))),
  );
  const held = (parts: readonly FlatPart[]): number =>
    parts.flatMap((p) => p.members).reduce((sum, id) => sum + (length.get(id) ?? 0), 0);
  // As much tube either way: by its sides.
  return ways.reduce<FlatPart[]>((best, parts) => (held(parts) > held(best) + TOLERANCES.onBedMm ? parts : best), []);
}
