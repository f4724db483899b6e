import type { Sparse } from "../numeric";
import type { SimulationStep } from "../shrink";
import type { Birth, FactorName, RingStiffness } from "../weld";
import type { MechanicalModel } from "./model";

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
  closingFactors: readonly FactorName[];
  /** Column of the chord's load and its volume at nominal factors; -1 without. */
  chordColumn: number;
  chordMm3: number;
  chordFactors: readonly FactorName[];
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

/** Steps with everything that depends on their order and not on the frame's answer. */
export interface Programme {
  model: MechanicalModel;
  springs: Spring[];
  loads: Sparse[];
  /** Actions of each step, in order: a flip is several. */
  actions: Action[];
  /** Step of each action. */
  stepOf: number[];
  steps: readonly SimulationStep[];
  notes: string[];
}
