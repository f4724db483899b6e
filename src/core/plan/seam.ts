import type { Structure, StructureFace, StructureJoint } from "../frame";
import type { SeamKind, SeamPosition } from "../weld";
import { alongSeam } from "./laying";
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
  const along = alongSeam(structure, joint, face);
  return along && Math.abs(along[2]) > UPRIGHT ? "vertical" : "horizontal";
}
