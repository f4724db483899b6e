import type { ShapeProperties } from "../frame";
import type { Vec3 } from "../numeric";

/** A section as a beam sees it. `width` lies along the member's local y (in the frame's plane), `height` along local z. */
export type BeamSection = ShapeProperties;

/** What the simulation needs of a material. */
export interface BeamMaterial {
  eMPa: number;
  nu: number;
  yieldMPa: number;
  alphaPerK: number;
  heatJPerMm3K: number;
}

/** A straight member by the named points on its axis, in order. Every joint on it needs a point. */
export interface BeamMember {
  id: string;
  section: BeamSection;
  points: readonly string[];
  /** Direction of the section's height; the frame's `up` when left out (or y for a member that stands upright). */
  up?: Vec3;
}

export type BeamJointKind = "mitre" | "butt" | "tee" | "lap";

/**
 * Where two members meet. Mitre and butt: both end at `point`. Tee: `b` ends on `a`, which runs through or ends there.
 * Lap: `b` crosses over `a`, each at its own point, or lies beside it and is held by a piece of seam on either side.
 */
export interface BeamJoint {
  id: string;
  kind: BeamJointKind;
  a: string;
  b: string;
  point: string;
  /** Point of `b` when it is another one (a branch beside the chord's axis, a lap). */
  pointB?: string;
  /** Of a lap of two that lie along each other: how long the pieces of seam are, mm. */
  seamMm?: number;
  /** Of a tee whose branch shares its end with others: from where to where it stands along `a`, mm from where its line meets the face. */
  landedMm?: readonly [number, number];
  /** How far its seams were found open when it was fitted, mm; without it, what is usual is taken. */
  gapMm?: number;
}

export const FREEDOMS = ["x", "y", "z", "rx", "ry", "rz"] as const;
type Freedom = (typeof FREEDOMS)[number];

/** A point that the bed or a jig holds. */
interface Support {
  member: string;
  point: string;
  fix: readonly Freedom[];
}

/** A frame of straight beams in space: what the mechanics is built from. Lengths in mm. */
export interface MechanicalFrame {
  material: BeamMaterial;
  points: Readonly<Record<string, Vec3>>;
  /** Where the points lie as drawn, by which its pieces are cut; the points themselves when left out. */
  cutBy?: Readonly<Record<string, Vec3>>;
  members: readonly BeamMember[];
  joints: readonly BeamJoint[];
  supports: readonly Support[];
  /** What pushes on it from outside is carried by contacts that are put on, and by nothing else. */
  carried?: true;
  /** Up from the bed; z when left out. */
  up?: Vec3;
}
