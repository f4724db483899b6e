import type { FaceLine } from "../frame";
import type { BeamJoint, BeamJointKind, BeamMember, BeamSection, JointInput, MechanicalFrame } from "../mechanics";
import type { Vec3 } from "../numeric";
import type { Problem } from "../units";
import type { MitreForm, TeeForm } from "./tables";

/** What holds on one line: nothing, a tack of so many mm, or the bead. */
export type LineState = 0 | number | "welded";
export type WeldState = readonly [LineState, LineState, LineState, LineState];
export const OPEN: WeldState = [0, 0, 0, 0];

/** A joint as its table asks for it, besides its tacks. */
export type JointForm =
  | ({ table: "mitre" } & Omit<MitreForm, "tk" | "strip">)
  | ({ table: "tee" } & Omit<TeeForm, "tk">);

/** A member that runs through a joint, as heat reaches its wall. Lengths in mm. */
export interface ChordPlace {
  member: string;
  /** Which of the joint's two it is. */
  of: "a" | "b";
  wallMm: number;
  branchWallMm: number;
  branchAcrossMm: number;
  /** Share of a seam's heat that goes into it. */
  takes: number;
  /** Its own axes and table: along it, off its face, across it. */
  normal: Vec3;
  e1: Vec3;
  e2: Vec3;
  form: Extract<JointForm, { table: "tee" }>;
  /** Which of its own lines lies at each of the joint's. */
  lines: readonly [number, number, number, number];
}

/** Where a joint lies, which way its lines run, and what its constants are per. Lengths in mm. */
export interface JointPlace {
  at: Vec3;
  /** Place of the second member's node, when the joint moves it. */
  nodeBAt?: Vec3;
  /** From the first member to the second: closing is movement against it. */
  normal: Vec3;
  /** Lines 0 and 1 lie at + and - of it, lines 2 and 3 at + and - of e2. */
  e1: Vec3;
  e2: Vec3;
  /** Half sizes of the ring of lines along e1 and e2, mid-wall. */
  half1Mm: number;
  half2Mm: number;
  /** Width that the line constants are per. */
  widthMm: number;
  wallMm: number;
  /** Branch width over chord width; 1 for corners. */
  beta: number;
  /** Between the two members' axes, degrees. */
  angleDeg: number;
  /** What its table asks for besides its tacks. */
  form: JointForm;
  /** Of a piece of seam along two members: the area of both, and how it kinks each per mm that it shortens them, 12 x 4 by line. */
  along: { areaMm2: number; kinks: Float64Array } | null;
  /** The members that run through: none at a corner, one at a tee, both at a lap. */
  chords: readonly ChordPlace[];
}

/** Two members and their points at a joint, to be looked at for what cannot be. */
export interface JointCase {
  frame: MechanicalFrame;
  spec: BeamJoint;
  a: BeamMember;
  b: BeamMember;
  point: string;
  pointB: string;
}

/** A kind of joint: its geometry, stiffness and loads in one place. */
export interface JointKind {
  name: BeamJointKind;
  /** Weld lines. 0 and 1 face each other, 2 and 3 face each other. */
  lines: readonly [FaceLine, FaceLine, FaceLine, FaceLine];
  /** Whether the first member, too, must end there. */
  endsBoth: boolean;
  /** Whether the second member may run past it. */
  runsPast: boolean;
  /** What keeps two members from being joined like that. */
  problems: (c: JointCase) => Problem[];
  place: (input: JointInput) => JointPlace;
  /** Whether a bead is a fillet, which closes less than a butt. */
  fillet: boolean;
  /** Why the nearest entry of the tables is taken, in words; empty when it lies within them. */
  unfitted: (a: BeamSection, b: BeamSection, place: JointPlace) => string[];
}
