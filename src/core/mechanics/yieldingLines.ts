import { boxYield } from "./boxYield";
import type { JointStiffness } from "./loadActions";

/** Line of a 6 x 4 matrix. */
export const columnOf = (m: Float64Array, line: number): Float64Array =>
  Float64Array.from({ length: 6 }, (_, i) => m[4 * i + line]);

/** What a joint wants to do by itself: close along a line by so much, move as heat in its chord would. */
export interface OwnWish {
  spring: number;
  closing?: { line: number; mm: number };
  free?: Float64Array;
}

/** Forces in all lines that a push brings, per unit of it, and the unit's size in each draw. */
interface Brought {
  forces: Float64Array;
  sizes: Float64Array;
}

const OVER = 1e-12;
/** Stiffness of a line against itself that is always there, as a share of what its joint alone would hold it with. */
const BREATH = 1e-6;

/**
 * All lines of a frame that hold, tacks and finished beads of every joint, in one problem: each holds at most its yield
 * force, loading and unloading. N = Q e - D' K (d - D e), with d how far its joint moved and e what the lines of it closed.
 */
export class YieldingLines {
  /** Of each line: four times its joint's place and its own, its joint, its own place there. */
  private readonly at: number[] = [];
  private readonly joint: JointStiffness[] = [];
  private readonly line: number[] = [];
  private readonly limit: Float64Array;
  private readonly free: Float64Array;
  private readonly plastic: Float64Array;
  /** Which lines stood at their limits in the draw before: a good guess for the next. */
  private readonly standing: Int8Array;
  private readonly columns = new Map<number, Float64Array>();

  /** @param joints what holds at each joint. @param stride tensions of one draw. */
  constructor(
    joints: readonly (JointStiffness | null)[],
    private readonly stride: number,
  ) {
    const limits: number[] = [];
    for (let j = 0; j < joints.length; j++) {
      const joint = joints[j];
      if (joint)
        for (const { line, yieldN } of joint.lines) {
          this.at.push(4 * j + line);
          this.joint.push(joint);
          this.line.push(line);
          limits.push(yieldN);
        }
    }
    this.limit = Float64Array.from(limits);
    this.free = new Float64Array(limits.length);
    this.plastic = new Float64Array(limits.length);
    this.standing = new Int8Array(limits.length);
  }

  /** Force that six values push line i with: its own column of K D. */
  private pushed(i: number, by: Float64Array, from: number): number {
    const { push } = this.joint[i];
    const l = this.line[i];
    return (
      push[l] * by[from] +
      push[4 + l] * by[from + 1] +
      push[8 + l] * by[from + 2] +
      push[12 + l] * by[from + 3] +
      push[16 + l] * by[from + 4] +
      push[20 + l] * by[from + 5]
    );
  }

  /**
   * Forces in all lines that something brings if none yields.
   * @param moved how far every spring moves. @param wish what a joint wants by itself; null for what comes from outside.
   */
  forces(moved: Float64Array, wish: OwnWish | null): Float64Array {
    const n = this.at.length;
    const out = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      const spring = this.at[i] >> 2;
      let force = -this.pushed(i, moved, 6 * spring);
      if (wish && wish.spring === spring) {
        if (wish.closing) force += this.joint[i].locked[4 * this.line[i] + wish.closing.line] * wish.closing.mm;
        if (wish.free) force += this.pushed(i, wish.free, 0);
      }
      out[i] = force;
    }
    return out;
  }

  /**
   * Force taken from every line per mm that line j yields: the same for all draws of a step. What a chord's kink adds is left
   * out, so that the forces between lines stay those of an energy.
   */
  private column(j: number, pushes: (at: number) => Float64Array): Float64Array {
    const known = this.columns.get(j);
    if (known) return known;
    const at = this.at[j];
    const made = this.forces(pushes(at), { spring: at >> 2, closing: { line: this.line[j], mm: 1 } });
    // What holds against a line is the small difference of large forces where little does: never less than nothing.
    made[j] = made[j] + BREATH * Math.abs(this.joint[j].locked[5 * this.line[j]]);
    this.columns.set(j, made);
    return made;
  }

  /**
   * Brings the tensions of one draw up to date after a step.
   * @param tensions of all draws; those of this one are changed. @param brought by everything that pushed in the step.
   * @param pushes how far every spring moves per mm that a line closes, by its push alone.
   * @returns lines that yield and how far, mm.
   */
  after(
    tensions: Float64Array,
    draw: number,
    brought: readonly Brought[],
    pushes: (at: number) => Float64Array,
  ): [at: number, mm: number][] {
    const { at, free, limit, plastic, stride } = this;
    const n = at.length;
    const base = draw * stride;
    let over = false;
    for (let i = 0; i < n; i++) {
      let force = tensions[base + at[i]];
      for (const { forces, sizes } of brought) force += forces[i] * sizes[draw];
      free[i] = force;
      tensions[base + at[i]] = force;
      if (Math.abs(force) > limit[i] * (1 + OVER)) over = true;
    }
    if (!over) return [];
    boxYield(n, (i, j) => this.column(j, pushes)[i], free, limit, plastic, this.standing);
    const flow: [number, number][] = [];
    for (let j = 0; j < n; j++) {
      if (plastic[j] === 0) continue;
      flow.push([at[j], plastic[j]]);
      const taken = this.column(j, pushes);
      for (let i = 0; i < n; i++) tensions[base + at[i]] = tensions[base + at[i]] - taken[i] * plastic[j];
    }
    return flow;
  }
}
