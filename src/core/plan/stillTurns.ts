import { type Mate, stoppedBy } from "../fixture";
import type { Structure, StructureJoint, StructureMember } from "../frame";
import { cross3, dot3, Groups, norm3, squareTo, sub3, unit3, type Vec3 } from "../numeric";

/** Members whose ways are this far from one plane, as a sine, do not lie in one. */
const IN_PLANE = 0.1;
/** Members up to which it is worked out whether joints on one tack hold each other. */
const MOST_MEMBERS = 100;

/**
 * Pins that are out of line by no more than this share of the frame leave it its turn: a push of five millimetres strains them by less than a
 * tack gives (own judgement).
 */
const PLAY = 0.01;

/** What was asked of a frame: a search asks the same of it thousands of times. */
const KNOWN = new WeakMap<Structure, Map<string, boolean>>();

/** Lines that lie nearer to each other than this are one, mm. */
const BESIDE_MM = 1;

/** Two ways that span the plane in which all these members lie, or lie beside each other; null where they lie in none. */
function planeOf(members: readonly StructureMember[]): [Vec3, Vec3] | null {
  const [one] = members;
  if (!one) return null;
  const ways = members.map((m) => m.axes[0]);
  const first = one.axes[0];
  const across =
    ways.map((w) => squareTo(w, first)).find((w) => norm3(w) > IN_PLANE) ??
    members.map((m) => squareTo(sub3(m.from, one.from), first)).find((w) => norm3(w) > BESIDE_MM);
  if (!across) return null;
  const [right, up] = [unit3(first), unit3(across)];
  const normal = cross3(right, up);
  return ways.every((w) => Math.abs(dot3(w, normal)) < IN_PLANE) ? [right, up] : null;
}

/**
 * Whether a flat frame still gives way in its plane while joints hold by one tack each, about which they turn: a ring of four does, three
 * members that close a triangle are stiff. What stands up beside others is taken to turn.
 * @param joints that have a tack. @param rigid members that are welded to each other already, set by set: each goes about as one.
 * Source: degrees of freedom of pinned bodies by the rank of what the pins stop (common practice, no source).
 */
export function stillTurns(
  structure: Structure,
  joints: readonly StructureJoint[],
  rigid: readonly (readonly string[])[] = [],
): boolean {
  const known = KNOWN.get(structure) ?? new Map<string, boolean>();
  KNOWN.set(structure, known);
  const key = [...joints.map((j) => j.id).sort(), ...rigid.map((set) => [...set].sort().join("+")).sort()].join("\n");
  const found = known.get(key) ?? turnsOn(structure, joints, rigid);
  known.set(key, found);
  return found;
}

/** Members that joints which turn no more make one of, set by set; those that hang on none are left out. */
export function hangingTogether(
  members: readonly string[],
  joints: readonly Pick<StructureJoint, "a" | "b">[],
): string[][] {
  const welded = new Groups(members);
  for (const { a, b } of joints) if (welded.has(a) && welded.has(b)) welded.join(a, b);
  const sets = new Map<string, string[]>();
  for (const m of members) sets.set(welded.of(m), [...(sets.get(welded.of(m)) ?? []), m]);
  return [...sets.values()].filter((set) => set.length > 1);
}

/** About which place a joint turns on one tack: where the branch's end stands on its chord, or where both lines meet. */
const pinOf = (members: readonly StructureMember[], { kind, b, at, endB }: StructureJoint): Vec3 =>
  kind === "mitre" || kind === "lap" || !endB ? at : (members.find((m) => m.id === b)?.ends[endB].at ?? at);

function turnsOn(
  { members }: Structure,
  all: readonly StructureJoint[],
  rigid: readonly (readonly string[])[],
): boolean {
  const bodyOf = (id: string): string => rigid.find((set) => set.includes(id))?.[0] ?? id;
  const joints = all.flatMap((j) => {
    const [a, b] = [bodyOf(j.a), bodyOf(j.b)];
    return a === b ? [] : [{ id: j.id, a, b, pin: pinOf(members, j) }];
  });
  // What is tacked within one that is welded already has nothing left to turn.
  if (all.length > 0 && joints.length === 0) return false;
  const bodies = members.filter((m) => joints.some((j) => j.a === bodyOf(m.id) || j.b === bodyOf(m.id)));
  const names = [...new Set(bodies.map((m) => bodyOf(m.id)))];
  const held = new Groups(names);
  for (const { a, b } of joints) held.join(a, b);
  // Each piece that hangs together goes about as a whole in three ways.
  const full = 3 * (names.length - new Set(names.map((m) => held.of(m))).size);
  const plane = planeOf(bodies);
  if (!plane || 2 * joints.length < full || names.length > MOST_MEMBERS) return true;
  const mates = joints.flatMap(({ id, a, b, pin }): Mate[] =>
    [
      [1, 0],
      [0, 1],
    ].map((push) => ({ id, a, b, atMm: plane.map((way) => dot3(pin, way)), push })),
  );
  return stoppedBy([], names, mates, PLAY).rank < full;
}
