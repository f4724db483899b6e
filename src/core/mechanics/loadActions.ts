import type { Sparse } from "../numeric";
import type { MechanicalModel } from "./model";

/** A line of a joint that holds. */
interface HoldingLine {
  line: number;
  /** A tack; else a bead. */
  tack: boolean;
  /** Force at which it yields, N. */
  yieldN: number;
}

/** A place where a face that is still open touches: its parts press on each other there, and never pull. */
export interface Seam {
  /** Which of the joint's eight. */
  at: number;
  /** Load on the joint per N that presses; by how much it opens as the joint moves. */
  push: Float64Array;
  /** By how much it opens per mm that each line closes, with both members held. */
  closed: Float64Array;
  /** By how much it opens per N at each of the joint's seams, with both members held, mm/N. */
  gives: Float64Array;
}

/** A joint in one state of its welds, in the frame's axes; matrices row-major, four columns by line. */
export interface JointStiffness {
  /** Of the welds and of the contact on open faces, 6 x 6. */
  k: Float64Array;
  /** Of the welds alone. */
  welds: Float64Array;
  /** Load per mm of closing of each line, 6 x 4: K D. */
  push: Float64Array;
  /**
   * Forces in the lines per mm of closing with both members held, N/mm, 4 x 4: Q + D' K D, without what beads lock in within
   * the joint's own walls.
   */
  locked: Float64Array;
  /** How the joint moves per mm of closing of each line if nothing holds it, 6 x 4: D. */
  free: Float64Array;
  /** Kink of each chord per mm of closing, six ways after each other: 6 x 4 of a branch, 12 x 4 of a lap, whose members both run on. */
  kink: Float64Array;
  /** Lines that hold. */
  lines: readonly HoldingLine[];
  /** Where open faces may touch. */
  seams: readonly Seam[];
}

/** What chance does to each draw: factors that all share, and a scatter of its own for every bead and every joint beyond the tables. */
export interface Draws {
  count: number;
  /** Product of shared factors, one per draw; draw 0 is nominal. */
  shared: (names: readonly string[]) => Float64Array;
  /** Scatter of one bead or tack, by its id: the same in every order. @param besides more scatter of its line, as a share. */
  bead: (id: string, besides: number) => Float64Array;
  /** Scatter of one joint beyond the tables. */
  joint: (id: string) => Float64Array;
  /** Scatter of how far the seams of a joint are open when they are fitted. */
  gap: (joint: string) => Float64Array;
}

const ONES = Float64Array.of(1);
/** The nominal frame alone. */
export const NO_DRAWS: Draws = { count: 1, shared: () => ONES, bead: () => ONES, joint: () => ONES, gap: () => ONES };

/** What heats the chord of a branch, or both members of a lap, per mm of contraction of the first. */
export interface ChordHeat {
  /** How far the joint would move if nothing held it, and with what that pushes on it. */
  free: Float64Array;
  push: Float64Array;
  /** Kink of the chord; of a lap's second member after it. */
  kink: Float64Array;
  /** Contraction at nominal factors, mm, and the factors that scale it. */
  mm: number;
  factors: readonly string[];
}

/** A tack or bead, worked out as far as it does not depend on what came before elsewhere. */
export interface WeldAction {
  kind: "weld";
  /** Spring of its joint. */
  spring: number;
  line: number;
  tack: boolean;
  /** Change of the joint's stiffness, 6 x 6; null when nothing changes. */
  delta: Float64Array | null;
  joint: JointStiffness;
  /** Free closing at nominal factors, mm, and the factors that scale it. */
  closingMm: number;
  closingFactors: readonly string[];
  /** First of the load columns of its chords' kinks, six each; -1 without a chord. */
  kinkColumn: number;
  heat: ChordHeat | null;
  /** Scatter of what this line does, besides that of every bead: coefficient of variation. */
  lineCv: number;
  /** Joint whose own scatter it has besides its own, null where it lies within the tables. */
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
  | WeldAction
  | Attach
  | { kind: "detach"; spring: number }
  /** Something is put where it may touch: it pushes and never pulls. A gap below nought drives it in. */
  | { kind: "touch"; spring: number; at: number; gapMm: number; givesMmPerN: number }
  | { kind: "part"; spring: number; at: number }
  /** From here on contacts carry the frame: the hold at a post slips. */
  | { kind: "float"; spring: number }
  /**
   * What is left of the shape; whether the joints stay as they stand, their lines held and their seams touching.
   * @param of nodes that are put back, of a part that hangs on nothing else yet; left out where all of the frame is.
   */
  | { kind: "scale"; share: number; holds: boolean; of?: ReadonlySet<number> }
  | { kind: "load"; column: number; size: number }
  | { kind: "nothing" };

/** A spring between nodes: rows over the freedoms, one per way it holds. Joints come first, in the model's order, then posts of contacts. */
export interface Spring {
  id: string;
  rows: Sparse[];
}

/** What springs gained when some actions are done, by how their joints stand then: whatever the order, to the last digit. */
export function gainedBy(
  actions: readonly Action[],
  { model, springs }: Pick<CompiledLoads, "model" | "springs">,
): Float64Array[] {
  const gained = springs.map((spring) => new Float64Array(spring.rows.length ** 2));
  for (const action of actions)
    if (action.kind === "weld") {
      const { contact } = model.joints[action.spring];
      gained[action.spring] = action.joint.k.map((v, i) => v - contact[i]);
    }
  return gained;
}

/** Load steps with everything that depends on their order and not on the frame's answer. */
export interface CompiledLoads {
  model: MechanicalModel;
  springs: Spring[];
  /** How many of them are posts of contacts. */
  posts: number;
  loads: Sparse[];
  /** Actions of each step, in order: a flip is several. */
  actions: Action[];
  /** Step of each action. */
  stepOf: number[];
  /** Steps in order; their ids tell their scatter. */
  steps: readonly { id: string }[];
}
