import type { Axes, FaceLine } from "../frame";
import type { BeamJoint, BeamJointKind, BeamMember, BeamSection, JointInput, MechanicalFrame } from "../mechanics";
import type { Vec3 } from "../numeric";
import type { Problem } from "../units";

/** What holds on one line: nothing, a tack of so many mm, or the bead. */
export type LineState = 0 | number | "welded";
export type RingState = readonly [LineState, LineState, LineState, LineState];
export const OPEN: RingState = [0, 0, 0, 0];

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
  /** The tube that gives way like a lozenge beside the joint. */
  lozenge: { section: BeamSection; axes: Axes; slenderness: number };
  /** The member that runs through: how heat reaches it. Null for corners. */
  chord: { member: string; wallMm: number; branchWallMm: number; depthMm: number; alongMm: number } | null;
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
  /** Share of shear to normal stiffness of a weld line, times E/G. */
  shear: number;
  /** Stiffness of a bead at one of its two Gauss points (-1 to 1 along e1 or e2), in E t / b per mm. */
  beadDensity: (line: number, along: number) => number;
  /** Stiffness of a tack, in E t / b per mm. */
  tackDensity: (line: number) => number;
  /** Stiffness of a tube corner, in E t. Corners 0 and 1 lie at + of e1. */
  cornerConstant: (corner: number) => number;
  /** Lozenging of the tube beside it about e1 and e2, in b / E I at the slenderness of the fit. */
  lozenge: { about1: number; about2: number };
  /** Share of its own closing that a bead still does, by what is welded already. */
  closingShare: (line: number, before: RingState) => number;
  /** Whether a bead is a fillet, which closes less than a butt. */
  fillet: boolean;
  /** Why its constants are the nearest ones rather than fitted ones, in words; empty when they were fitted. */
  unfitted: (a: BeamSection, b: BeamSection, place: JointPlace) => string[];
}
