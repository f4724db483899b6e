import type { FaceLine } from "../frame";
import type { BeamJointKind } from "../mechanics";
import type { JointKind } from "./jointKind";
import { BUTT } from "./joints/butt";
import { LAP } from "./joints/lap";
import { MITRE } from "./joints/mitre";
import { TEE } from "./joints/tee";

/** Every kind of joint, each a module of its own. */
export const JOINT_KINDS: Readonly<Record<BeamJointKind, JointKind>> = {
  mitre: MITRE,
  butt: BUTT,
  tee: TEE,
  lap: LAP,
};

/** @returns the place of a line in its joint, or -1 when the joint has no such line. */
export const lineIndex = (kind: BeamJointKind, line: FaceLine): number => JOINT_KINDS[kind].lines.indexOf(line);
