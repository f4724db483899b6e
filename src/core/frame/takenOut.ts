import { entry, norm3, sub3 } from "../numeric";
import { statedExactly, type UnitPreference } from "../units";
import type { DrawnFrame, DrawnJoint, DrawnMember, Point } from "./drawnSchema";
import { keptJoints } from "./keptJoints";
import type { EndName } from "./meeting";
import { resolveStructure } from "./resolveStructure";
import type { StructureJoint, StructureMember } from "./structure";
import { TOLERANCES } from "./tolerances";

const AXES = ["x", "y", "z"] as const;
const ENDS = ["from", "to"] as const satisfies readonly EndName[];

/** Whether a member runs past the other at that end of it. */
const runsPastAt = (j: StructureJoint | undefined, member: string, end: EndName): boolean =>
  j !== undefined && j.kind === "butt" && j.a === member && j.endA === end && j.angleDeg <= TOLERANCES.straightDeg;

/** Nearer to where it was than this an end is there, mm. */
const SAME_MM = 1e-3;

/**
 * Members of a frame as a frame of its own, where they stand: joints among them are what they are in the whole, ends that land on a
 * member that is not among them, or run past it, are as long as they are cut there, and run past nothing there any more.
 */
export function takenOut(frame: DrawnFrame, ids: readonly string[], units: UnitPreference): DrawnFrame {
  const resolved = resolveStructure(frame);
  const was = resolved.structure;
  const chosen = new Set(ids);
  const joints = new Map(was.joints.map((j) => [j.id, j]));
  const inside = (id: string): boolean => {
    const j = joints.get(id);
    return j !== undefined && chosen.has(j.a) && chosen.has(j.b);
  };
  const pieces = was.members.filter((m) => chosen.has(m.id));
  const cutOff = new Set<string>();
  const ofBoth: [StructureMember, EndName][] = [];
  for (const m of pieces)
    for (const end of ENDS) {
      const past = m.ends[end].joints.filter((id) => runsPastAt(joints.get(id), m.id, end));
      const cutTo = m.ends[end].joints.filter((id) => !past.includes(id));
      // What it is cut to counts before what it runs past.
      const own = cutTo.length > 0 ? cutTo : past;
      if (own.length === 0) continue;
      if (!own.some(inside)) cutOff.add(`${m.id} ${end}`);
      else if (cutTo.length === 0 && !own.every(inside)) ofBoth.push([m, end]);
    }
  const taken = apart(frame, resolved, chosen, cutOff, units);
  if (ofBoth.length === 0) return taken;
  // Where it runs past one that is among them and one that is not, that one may be what it went on to.
  const is = new Map(resolveStructure(taken).structure.members.map((m) => [m.id, m]));
  const short = ofBoth.filter(([m, end]) => {
    const piece = is.get(m.id);
    return piece !== undefined && norm3(sub3(piece.ends[end].at, m.ends[end].at)) > SAME_MM;
  });
  if (short.length === 0) return taken;
  return apart(frame, resolved, chosen, new Set([...cutOff, ...short.map(([m, end]) => `${m.id} ${end}`)]), units);
}

/** Chosen members of a frame. @param cutOff ends that stay as long as they are cut in the whole, by member and end. */
function apart(
  frame: DrawnFrame,
  { structure: was, placed }: ReturnType<typeof resolveStructure>,
  chosen: ReadonlySet<string>,
  cutOff: ReadonlySet<string>,
  units: UnitPreference,
): DrawnFrame {
  const cut = new Map(was.members.map((m) => [m.id, m]));
  const members = frame.members
    .filter((m) => chosen.has(m.id))
    .map((m): DrawnMember => {
      const [line, whole] = [placed.get(m.id), cut.get(m.id)];
      const mirror = m.mirror && chosen.has(m.mirror.of) ? m.mirror : null;
      if (!line || !whole) return { ...m, mirror, flush: null };
      const end = (which: EndName): Point => {
        const p = cutOff.has(`${m.id} ${which}`) ? whole.ends[which].at : line[which];
        const typed = m[which];
        const isAsTyped = AXES.every((a, i) => Math.abs(typed[a].mm - entry(p, i)) < 1e-6);
        if (isAsTyped) return typed;
        return { x: statedExactly(p[0], units), y: statedExactly(p[1], units), z: statedExactly(p[2], units) };
      };
      return { ...m, from: end("from"), to: end("to"), offset: null, flush: null, mirror };
    });
  const has = (list: readonly string[]): boolean => list.every((id) => chosen.has(id));
  const used = new Set(members.map((m) => m.section));
  const alone: DrawnFrame = {
    ...frame,
    sections: frame.sections.filter((s) => used.has(s.id)),
    members,
    joints: [],
    parts: frame.parts.filter((p) => p.on !== null && chosen.has(p.on) && (!p.like || chosen.has(p.like))),
    obstacles: [],
    floor: null,
    pairs: frame.pairs.filter((p) => has(p.left) && has(p.right)),
    groups: [],
    largest: null,
    survey: "",
  };
  // What an end that is cut off ran past it still carries, and goes no farther.
  const cutShort = was.joints.filter(
    (j) => has([j.a, j.b]) && j.kind === "butt" && j.endA && cutOff.has(`${j.a} ${j.endA}`),
  );
  const kept = keptJoints(frame, was, alone);
  const isOf = ({ between }: DrawnJoint, { a, b }: StructureJoint): boolean =>
    between.includes(a) && between.includes(b);
  return {
    ...alone,
    joints: [
      ...kept.filter((k) => !cutShort.some((j) => isOf(k, j))),
      ...cutShort.map(
        (j): DrawnJoint => ({
          between: [j.a, j.b],
          faces: [],
          ...kept.find((k) => isOf(k, j)),
          kind: "tee",
          through: j.a,
        }),
      ),
    ],
  };
}
