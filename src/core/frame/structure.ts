import type { Corner, Side } from "../geometry";
import type { Vec2, Vec3 } from "../numeric";
import type { Cutter } from "./cutter";
import type { Care, Crown, FaceLine, Seam, StructureJointKind } from "./frameWords";
import type { MaterialName } from "./materials";
import type { EndName } from "./meeting";
import type { Axes } from "./memberAxes";
import type { Shape, ShapeProperties } from "./shapes";
import type { ViewAxes } from "./viewAxes";

/** One end of a member as it is cut. */
export interface MemberEnd {
  /** Joints that end the member here. */
  joints: string[];
  /** What the end is cut to; several when it fits into a corner of others. */
  cutters: Cutter[];
  /** Where the cut passes the centre line. */
  at: Vec3;
  /** Whether the hollow is closed there by what it lands on, opens into another hollow, or stays open. */
  hollow: "closed" | "open" | { into: string };
}

/** One member in its true place. Lengths in mm. */
export interface StructureMember {
  id: string;
  section: string;
  shape: Shape;
  properties: ShapeProperties;
  material: MaterialName;
  seam: Seam;
  crown: Crown;
  axes: Axes;
  /** Ends of the line that joints were found on. */
  from: Vec3;
  to: Vec3;
  /** Outer outline across, in the axes y and z. */
  outline: Vec2[];
  /** Along the axis from `from`, at each corner of the outline: where the member begins and ends. */
  begins: Float64Array;
  finishes: Float64Array;
  ends: Record<EndName, MemberEnd>;
  longMm: number;
  shortMm: number;
  centreMm: number;
  massKg: number;
  centreOfMass: Vec3;
  /** Outside, to be painted, mm2. */
  surfaceMm2: number;
}

/** Where a tube begins along its line, mm: at the long point of that end, on which a tape hooks. As a rule before its line does. */
export const tubeBeginsMm = ({ begins }: Pick<StructureMember, "begins">): number => Math.min(...begins);

/** One face of a joint. */
export interface StructureFace {
  line: FaceLine;
  /** The way it looks. */
  toward: Vec3;
  words: string;
  lengthMm: number;
  /** Its bead, of as far as the branch stands along the other there: above 0 to 1, all of it unless a corner runs through that. */
  share: number;
  bead: boolean;
  /** Null: as the wall. */
  legMm: number | null;
  care: Care;
  /** Member that stands on it, or fits into it: no torch comes there once that is on. */
  under?: string;
}

/** A piece of seam on either side of two members that lie along each other. */
export interface PieceAlong {
  seamMm: number;
  /** How far the two lie along each other, how many pieces hold them, and which of these it is, 1 the first. */
  overlapMm: number;
  pieces: number;
  nth: number;
}

/** Where two members meet. */
export interface StructureJoint {
  id: string;
  kind: StructureJointKind;
  /** Runs through, or the first of a mitre. */
  a: string;
  /** The branch, or the second of a mitre. */
  b: string;
  /** On the line of `a`. */
  at: Vec3;
  /** On the line of `b`. */
  atB: Vec3;
  endA: EndName | null;
  endB: EndName | null;
  /** Between the two, 0 to 180. */
  angleDeg: number;
  faces: StructureFace[];
  /** Of two ends that are mitred: where both are taken to meet; none where they pass each other. */
  corner?: Vec3;
  /** Of two that lie along each other, which have a joint for each piece of seam. */
  along?: PieceAlong;
  /**
   * Of a branch with a pointed end, which shares it among the members of a corner: from where to where it stands along `a`, mm from where its
   * middle line meets the face.
   */
  landedMm?: readonly [number, number];
  /** Whether a person said what it is. */
  said: boolean;
  /** How it was found when it was fitted, where that is not as planned. */
  found?: FoundGap;
}

/** A gap that was found at a joint and is filled, mm: the same all round, or face by face; a face that is not named is shut. */
export type FoundGap = { round: number } | { faces: Partial<Record<FaceLine, number>> };

/** A part that is no member, in its place. */
export interface StructurePart {
  id: string;
  /** Corners of its body: one side of it, then the other. */
  corners: Vec3[];
  low: Vec3;
  high: Vec3;
  massKg: number;
  centreOfMass: Vec3;
  surfaceMm2: number;
}

/**
 * Corners A to D of a frame that has four sides joined end to end, or to posts, in one plane: what is squared, taped across and held against
 * size limits. A view of the structure; it says nothing that the structure does not hold. Lengths in mm.
 */
export interface Quadrilateral {
  /** Member on each side. */
  sides: Record<Side, string>;
  /** Joint at each corner; where a post runs through, that of the side that begins there. */
  joints: Record<Corner, string>;
  /** Posts that run through at corners, on which both sides land. */
  posts: Partial<Record<Corner, string>>;
  view: ViewAxes;
  /** Place on the view's plane of the box round the corners: lower left. */
  origin: Vec2;
  /** Outside corners as they are seen, from the origin. */
  corners: Record<Corner, Vec2>;
  /** Outside corners in the frame's own place, at the height of the sides' centre lines. */
  at: Record<Corner, Vec3>;
  /** From A to B and from B to C, outside. */
  lengthMm: number;
  widthMm: number;
  /** AC² less BD² as drawn, mm²: nought where the mid-lines cross square. */
  squareDifferenceMm2: number;
}

/** A frame in space with everything that follows from its geometry: what every later stage reads. */
export interface Structure {
  members: StructureMember[];
  joints: StructureJoint[];
  /** Its corners A to D, when it has four sides joined end to end. */
  quad: Quadrilateral | null;
  /** Gap that is left at every joint before it is welded, mm; nought where they are pushed together. */
  rootGapMm: number;
  parts: StructurePart[];
  /** Sub-assemblies, in the order in which they are joined, by their members. */
  groups: readonly { id: string; name: string; members: readonly string[] }[];
  massKg: number;
  centreOfMass: Vec3;
  surfaceMm2: number;
  /** Outermost points of members and parts. */
  low: Vec3;
  high: Vec3;
}
