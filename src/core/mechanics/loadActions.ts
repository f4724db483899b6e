import type { Sparse } from "../numeric";
import type { MechanicalModel } from "./model";

/** Stiffness of a joint in one state of its welds. 6 x 6, row-major. */
export interface RingStiffness {
  /** Of the weld lines and the contact alone. */
  kr: Float64Array;
  krInverse: Float64Array;
  /** (I + Kr Cs)^-1. */
  x: Float64Array;
  /** X Kr: with the flexibility in series. */
  kj: Float64Array;
}

/** What one new bead or tack does to its joint. */
export interface Birth {
  /** Load of one mm of opening, 6. One mm of closing loads the joint by its negative. */
  g: Float64Array;
  /** Stiffness along the normal that resists its closing, N/mm. */
  k: number;
  /** Force at which it yields, N. */
  yieldN: number;
  lengthMm: number;
}

/** What chance does to each draw: factors that all share, and a scatter of its own for every bead and every unfitted joint. */
export interface Draws {
  count: number;
  /** Product of shared factors, one per draw; draw 0 is nominal. */
  shared: (names: readonly string[]) => Float64Array;
  /** Scatter of one bead or tack, by its id: the same in every order. */
  bead: (id: string) => Float64Array;
  /** Scatter of one joint of a kind that was not fitted. */
  joint: (id: string) => Float64Array;
}

const ONES = Float64Array.of(1);
/** The nominal frame alone. */
export const NO_DRAWS: Draws = { count: 1, shared: () => ONES, bead: () => ONES, joint: () => ONES };

/** A tack that holds while another line of its joint is welded. */
export interface HeldTack {
  line: number;
  birth: Birth;
}

/** A tack or bead, worked out as far as it does not depend on what came before elsewhere. */
export interface RingAction {
  kind: "ring";
  spring: number;
  line: number;
  tack: boolean;
  /** Change of the joint's stiffness, 6 x 6; null when nothing changes. */
  delta: Float64Array | null;
  ring: RingStiffness;
  birth: Birth;
  held: HeldTack[];
  /** Free closing at nominal factors, mm, and the factors that scale it. */
  closingMm: number;
  closingFactors: readonly string[];
  /** Column of the chord's load and its volume at nominal factors; -1 without. */
  chordColumn: number;
  chordMm3: number;
  chordFactors: readonly string[];
  /** Joint whose own scatter it has besides its own, null where its constants were fitted. */
  unfitted: string | null;
}

/** A clamp or strongback goes on. */
export interface Attach {
  kind: "attach";
  spring: number;
  matrix: Float64Array;
  toMm: number | null;
  byMm: number;
}

export type Action =
  | RingAction
  | Attach
  | { kind: "detach"; spring: number }
  | { kind: "scale"; share: number }
  | { kind: "load"; column: number; size: number }
  | { kind: "nothing" };

/** A spring between nodes: rows over the freedoms, one per way it holds. Joints come first, in the model's order. */
export interface Spring {
  id: string;
  rows: Sparse[];
}

/** Load steps with everything that depends on their order and not on the frame's answer. */
export interface CompiledLoads {
  model: MechanicalModel;
  springs: Spring[];
  loads: Sparse[];
  /** Actions of each step, in order: a flip is several. */
  actions: Action[];
  /** Step of each action. */
  stepOf: number[];
  /** Steps in order; their ids tell their scatter. */
  steps: readonly { id: string }[];
}
