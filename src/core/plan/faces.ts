import type { MitreFace, ResolvedFrame, ResolvedJoint, TeeFace } from "../frame";

const MITRE_WORDS: Record<MitreFace, string> = {
  inside: "inside corner",
  outside: "outside corner",
  top: "top face",
  bottom: "bottom face",
};

/**
 * A face in words that need no key: "inside corner of A", "M1 on AB, side toward DA".
 * @param frame for which way a cross member runs. @param joint the joint. @param face one of its faces.
 */
export function faceWords(frame: ResolvedFrame, joint: ResolvedJoint, face: MitreFace | TeeFace): string {
  if (joint.kind === "mitre") return `${joint.name}, ${MITRE_WORDS[face as MitreFace]}`;
  const [branch, through] = joint.members;
  const member = frame.members.find((m) => m.name === branch);
  const across = member ? member.axis[0].x === member.axis[1].x : true;
  const toward = across ? { near: "DA", far: "BC" } : { near: "AB", far: "CD" };
  const words = face === "near" || face === "far" ? `side toward ${toward[face]}` : `${face} face`;
  return `${branch} on ${through}, ${words}`;
}
