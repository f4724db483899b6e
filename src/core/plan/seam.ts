import type { Structure, StructureFace, StructureJoint } from "../frame";
import { cross3, norm3, type Vec3 } from "../numeric";
import type { SeamKind, SeamPosition } from "../weld";
import type { Up } from "./step";

/** A way is up, down or upright when it is this far from level. */
const UPRIGHT = 0.7;

/** What a seam is by the joint and the face that it runs on. */
export function seamKind(joint: StructureJoint, face: StructureFace): SeamKind {
  if (joint.kind === "lap") return "fillet";
  if (joint.kind === "mitre")
    return face.line === "outside" ? "outside corner" : face.line === "inside" ? "fillet" : "groove";
  return face.line === "inside" || face.line === "plus" || face.line === "minus" ? "fillet" : "groove";
}

/** How a seam lies while the frame lies so: by the way its face looks, and the way it runs. */
export function seamPosition(structure: Structure, joint: StructureJoint, face: StructureFace, up: Up): SeamPosition {
  const z = (up === "top" ? 1 : -1) * face.toward[2];
  if (z > UPRIGHT) return "flat";
  if (z < -UPRIGHT) return "overhead";
  const branch = structure.members.find((m) => m.id === joint.b);
  const along: Vec3 = branch ? cross3(face.toward, branch.axes[0]) : [0, 0, 0];
  const size = norm3(along);
  return size > 0 && Math.abs(along[2]) / size > UPRIGHT ? "vertical" : "horizontal";
}
