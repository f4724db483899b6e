import type { JointStiffness, Seam } from "./loadActions";

/** Line of a 6 x 4 matrix. */
export const columnOf = (m: Float64Array, line: number): Float64Array =>
  Float64Array.from({ length: 6 }, (_, i) => m[4 * i + line]);

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
  seams: readonly (Seam | null)[];
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
    seams: own.map((u) => u.seam),
  };
  OF_JOINT.set(joint, made);
  return made;
}
