import type { ResolvedFrame } from "@/core/frame";
import { add, scale, sub, unit, type Vec2 } from "@/core/numeric";
import type { Step } from "@/core/plan";

/** Where a step is done: the joint and the direction of its face in plan (top and bottom stay at the joint itself). */
export function jointMark(frame: ResolvedFrame, step: Step): { at: Vec2; toward: Vec2 } | null {
  const joint = frame.joints.find((j) => j.name === step.joint);
  if (!joint) return null;
  const half = frame.section.faceMm / 2;
  const centre = { x: frame.lengthMm / 2, y: frame.widthMm / 2 };
  const none = { x: 0, y: 0 };
  if (joint.kind === "mitre") {
    const inward = { x: joint.at.x < centre.x ? half : -half, y: joint.at.y < centre.y ? half : -half };
    const dir = unit(inward);
    const toward = step.face === "inside" ? dir : step.face === "outside" ? scale(dir, -1) : none;
    return { at: add(joint.at, inward), toward };
  }
  const member = frame.members.find((m) => m.name === joint.members[0]);
  if (!member) return null;
  const along = unit(sub(member.axis[1], member.axis[0]));
  const side = along.x === 0 ? { x: 1, y: 0 } : { x: 0, y: 1 };
  return { at: joint.at, toward: step.face === "near" ? scale(side, -1) : step.face === "far" ? side : none };
}
