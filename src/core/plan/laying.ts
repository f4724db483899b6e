import type { Structure, StructureFace, StructureJoint } from "../frame";
import { cross3, dot3, norm3, scale3, sub3, type Vec3 } from "../numeric";
import { seamHow, type Weld } from "../weld";
import type { Step, Up } from "./step";

/** A length of a seam that is laid in lengths, about, mm (common practice, no source). */
const SHORT_LENGTH_MM = 25;
/** More lengths of one seam nobody lays. */
const MOST_LENGTHS = 12;
/** From this wall on an upright seam is run upward, mm: thinner ones are run down, before they burn through (common practice, no source). */
const UPWARD_FROM_MM = 3;
/** A way is upright when it is this far from level. */
const UPRIGHT = 0.7;

/** In how many lengths a bead is laid: as it was said of its seam, else short ones where its school lays them so, else whole. */
export function lengthsOf(weld: Pick<Weld, "seams">, step: Step, lengthMm: number): number {
  if (step.id.do !== "bead") return 1;
  const said = seamHow(weld, step.id).lengths;
  if (said) return said;
  return step.why.kind === "short lengths"
    ? Math.min(MOST_LENGTHS, Math.max(2, Math.round(lengthMm / SHORT_LENGTH_MM)))
    : 1;
}

/** Which way a seam is run: from one of its ends to the other, as the frame lies meanwhile. */
export interface SeamRun {
  from: string;
  to: string;
  /** The way, in the frame as it is drawn. */
  way: Vec3;
}

/** Along a seam, of no set sense: square to its face and to the branch, or to the way that one lapped member lies on the other; null where it cannot be told. */
export function alongSeam(structure: Structure, joint: StructureJoint, face: StructureFace): Vec3 | null {
  const branch = structure.members.find((m) => m.id === joint.b);
  const square: Vec3 = joint.kind === "lap" ? sub3(joint.atB, joint.at) : (branch?.axes[0] ?? [0, 0, 0]);
  const along = cross3(face.toward, square);
  const size = norm3(along);
  return size > 0 ? scale3(along, 1 / size) : null;
}

/** From a joint along a member, the way that it runs. */
function runsTo(structure: Structure, joint: StructureJoint, id: string): Vec3 {
  const member = structure.members.find((m) => m.id === id);
  if (!member) return [0, 0, 0];
  const [p, q] = [sub3(member.from, joint.at), sub3(member.to, joint.at)];
  const far = norm3(p) > norm3(q) ? p : q;
  const size = norm3(far);
  return size > 0 ? scale3(far, 1 / size) : [0, 0, 0];
}

/**
 * Which way a bead is run, from end to end. An upright seam upward, on a thin wall downward; on the flat face of a corner from the outside
 * in, so that it does not end, hottest, at the open edge; elsewhere from left to right or from near to far as drawn (common practice, no
 * source). The mechanics knows no way of running: for whoever welds alone.
 * @param up which face lies up meanwhile. @returns null where it cannot be told.
 */
export function seamRun(
  structure: Structure,
  weld: Pick<Weld, "seams">,
  joint: StructureJoint,
  face: StructureFace,
  up: Up,
): SeamRun | null {
  const along = alongSeam(structure, joint, face);
  if (!along) return null;
  const upward = (up === "top" ? 1 : -1) * along[2];
  const members = structure.members.filter((m) => m.id === joint.a || m.id === joint.b);
  let sense: number;
  let names: [string, string];
  if (Math.abs(upward) > UPRIGHT) {
    const thin = Math.min(...members.map((m) => m.properties.wallMm)) < UPWARD_FROM_MM;
    sense = Math.sign(upward) * (thin ? -1 : 1);
    names = thin ? ["top", "bottom"] : ["bottom", "top"];
  } else if (joint.kind === "mitre") {
    const [a, b] = [runsTo(structure, joint, joint.a), runsTo(structure, joint, joint.b)];
    const inward: Vec3 = [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
    sense = dot3(along, inward) < 0 ? -1 : 1;
    names = ["outside", "inside"];
  } else {
    const level = Math.abs(along[0]) >= Math.abs(along[1]) ? 0 : 1;
    sense = along[level] < 0 ? -1 : 1;
    names = level === 0 ? ["left", "right"] : ["near end", "far end"];
  }
  const turned = seamHow(weld, { joint: joint.id, line: face.line }).turned === true;
  const [from, to] = turned ? [names[1], names[0]] : names;
  return { from, to, way: scale3(along, turned ? -sense : sense) };
}
