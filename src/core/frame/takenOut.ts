import { entry } from "../numeric";
import { statedExactly, type UnitPreference } from "../units";
import type { DrawnFrame, DrawnJoint, DrawnMember, Point } from "./drawnSchema";
import { keptJoints } from "./keptJoints";
import type { EndName } from "./meeting";
import { resolveStructure } from "./resolveStructure";
import type { StructureJoint } from "./structure";
import { TOLERANCES } from "./tolerances";

const AXES = ["x", "y", "z"] as const;

/** Whether a member runs past the other at that end of it. */
const runsPastAt = (j: StructureJoint | undefined, member: string, end: EndName): boolean =>
  j !== undefined && j.kind === "butt" && j.a === member && j.endA === end && j.angleDeg <= TOLERANCES.straightDeg;

/**
 * Members of a frame as a frame of its own, where they stand: joints among them are what they are in the whole, ends that land on a
 * member that is not among them are as long as they are cut there, and run past nothing there any more.
 */
export function takenOut(frame: DrawnFrame, ids: readonly string[], units: UnitPreference): DrawnFrame {
  const { structure: was, placed } = resolveStructure(frame);
  const chosen = new Set(ids);
  const joints = new Map(was.joints.map((j) => [j.id, j]));
  const inside = (id: string): boolean => {
    const j = joints.get(id);
    return j !== undefined && chosen.has(j.a) && chosen.has(j.b);
  };
  const cut = new Map(was.members.map((m) => [m.id, m]));
  /** Whether an end is cut to members that are not among these, and to none that is: to what it runs past it is not cut. */
  const isCutOff = (m: string, which: EndName): boolean => {
    const own = (cut.get(m)?.ends[which].joints ?? []).filter((id) => !runsPastAt(joints.get(id), m, which));
    return own.length > 0 && !own.some(inside);
  };
  const members = frame.members
    .filter((m) => chosen.has(m.id))
    .map((m): DrawnMember => {
      const [line, whole] = [placed.get(m.id), cut.get(m.id)];
      const mirror = m.mirror && chosen.has(m.mirror.of) ? m.mirror : null;
      if (!line || !whole) return { ...m, mirror, flush: null };
      const end = (which: "from" | "to"): Point => {
        const p = isCutOff(m.id, which) ? whole.ends[which].at : line[which];
        const typed = m[which];
        const isAsTyped = AXES.every((a, i) => Math.abs(typed[a].mm - entry(p, i)) < 1e-6);
        if (isAsTyped) return typed;
        return { x: statedExactly(p[0], units), y: statedExactly(p[1], units), z: statedExactly(p[2], units) };
      };
      return { ...m, from: end("from"), to: end("to"), offset: null, flush: null, mirror };
    });
  const has = (list: readonly string[]): boolean => list.every((id) => chosen.has(id));
  const used = new Set(members.map((m) => m.section));
  const apart: DrawnFrame = {
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
  const cutShort = was.joints.filter((j) => inside(j.id) && j.kind === "butt" && j.endA && isCutOff(j.a, j.endA));
  const kept = keptJoints(frame, was, apart);
  const isOf = ({ between }: DrawnJoint, { a, b }: StructureJoint): boolean =>
    between.includes(a) && between.includes(b);
  return {
    ...apart,
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
