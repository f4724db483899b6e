import type { JointStiffness, Seam } from "./loadActions";

/** Line of a 6 x 4 matrix. */
export function columnOf(m: Float64Array, line: number): Float64Array {
  const column = new Float64Array(m.length / 4);
  for (let i = 0; i < column.length; i++) column[i] = m[4 * i + line];
  return column;
}

/** What may change in a step at a joint: its lines, which may yield, then its seams, which may touch. */
export interface OwnUnknowns {
  count: number;
  /** Load on the joint per unit, six each: of a mm of closing, of a N that presses. */
  push: Float64Array;
  /** Line of the joint; -1 for a seam. */
  line: Int32Array;
  /** Place among the joint's lines or seams. */
  at: Int32Array;
  /** Force at which a line yields, N; nought for a seam. */
  limit: Float64Array;
  /** How many of them are lines; they come first. */
  lines: number;
  /** What a unit of one brings to another by the joint alone, joint and frame held: of j from j * count on. */
  between: Float64Array;
}

/** Stiffness of a line against itself that is always there, as a share of what its joint alone would hold it with. */
const BREATH = 1e-6;

type Own = { line: number; seam: Seam | null };

/** Force in a line, or overlap at a seam, per mm that another line closes or per N that another seam presses with. */
function between(joint: JointStiffness, i: Own, j: Own): number {
  if (j.seam) return i.seam ? -i.seam.gives[j.seam.at] : -j.seam.closed[i.line];
  if (i.seam) return -i.seam.closed[j.line];
  const held = joint.locked[4 * i.line + j.line];
  // What holds against a line is the small difference of large forces where little does: never less than nothing.
  return i === j ? held + BREATH * Math.abs(held) : held;
}

/** Unknowns of joints seen so far. */
const OF_JOINT = new WeakMap<JointStiffness, OwnUnknowns>();

export function unknownsOf(joint: JointStiffness): OwnUnknowns {
  const known = OF_JOINT.get(joint);
  if (known) return known;
  const own = [
    ...joint.lines.map(({ line, yieldN }) => ({
      line,
      at: line,
      push: columnOf(joint.push, line),
      yieldN,
      seam: null,
    })),
    ...joint.seams.map((seam) => ({ line: -1, at: seam.at, push: seam.push, yieldN: 0, seam })),
  ];
  const made = {
    count: own.length,
    push: Float64Array.from(own.flatMap((u) => [...u.push])),
    line: Int32Array.from(own, (u) => u.line),
    at: Int32Array.from(own, (u) => u.at),
    limit: Float64Array.from(own, (u) => u.yieldN),
    lines: joint.lines.length,
    between: Float64Array.from(own.flatMap((j) => own.map((i) => between(joint, i, j)))),
  };
  OF_JOINT.set(joint, made);
  return made;
}
