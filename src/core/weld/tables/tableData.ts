import mitreData from "./mitre.json" with { type: "json" };
import seamData from "./seam.json" with { type: "json" };
import teeData from "./tee.json" with { type: "json" };

/** Whole numbers of each state that is kept, thousandths, by its code: a digit a face, 0 open, 1 tacked, 2 welded. */
type States = Readonly<Record<string, readonly number[]>>;

export interface MitreGeometry {
  /** Smallest width over wall. */
  bt: number;
  /** Height over width in the plane of the mitre. */
  hw: number;
  /** Between the legs, degrees; 180 is a straight butt. */
  angle: number;
  /** Length of a tack over width. */
  tk: number;
  states: States;
}
interface MitreStrip {
  bt: number;
  /** Width of the strip that contracts over the tube's. */
  sb: number;
  states: States;
}
export interface TeeGeometry {
  bt: number;
  /** Branch over chord, across. */
  beta: number;
  /** Depth of the chord over its width. */
  wh: number;
  /** Branch along the chord over the branch across it. */
  bx: number;
  tk: number;
  /** Movement and kink per mm of contraction of the chord's own wall at a face across and along. */
  cx: Readonly<{ plus: readonly number[]; top: readonly number[] }>;
  states: States;
}

/** How open faces of a mitre touch. */
export interface SeamGeometry {
  bt: number;
  hw: number;
  angle: number;
  states: States;
}

export const SEAM_TABLE: readonly SeamGeometry[] = seamData.geoms;
export const MITRES: readonly MitreGeometry[] = mitreData.geoms;
export const MITRE_STRIPS: readonly MitreStrip[] = mitreData.strip;
export const TEES: readonly TeeGeometry[] = teeData.geoms;
