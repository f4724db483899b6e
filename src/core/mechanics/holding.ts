import { boxYield } from "./boxYield";
import type { JointStiffness, Seam } from "./loadActions";

/** Line of a 6 x 4 matrix. */
export const columnOf = (m: Float64Array, line: number): Float64Array =>
  Float64Array.from({ length: 6 }, (_, i) => m[4 * i + line]);

/** What a joint does by itself: close along a line by so much, move as heat in its chord would, press at a seam with a N. */
export interface OwnWish {
  spring: number;
  closing?: { line: number; mm: number };
  free?: Float64Array;
  pressed?: Seam;
}

/** What a push brings to every unknown, per unit of it, and the unit's size in each draw. */
interface Brought {
  forces: Float64Array;
  sizes: Float64Array;
}

/** Lines and seams of a joint. */
export const LINES = 4;
export const SEAMS = 8;

/** What lines hold and how seams stand, of all draws one after the other. */
export interface HeldState {
  /** Tension in each line of each joint, N. */
  tensions: Float64Array;
  /** What each seam of each joint presses with, N. */
  pressed: Float64Array;
  /** How far it is open, mm. */
  gaps: Float64Array;
}

/** Nothing held, every seam as far open as it was fitted. @param gapsMm of each joint in each draw, joint by joint. */
export const fittedState = (gapsMm: Float64Array): HeldState => ({
  tensions: new Float64Array(LINES * gapsMm.length),
  pressed: new Float64Array(SEAMS * gapsMm.length),
  gaps: Float64Array.from({ length: SEAMS * gapsMm.length }, (_, i) => gapsMm[Math.floor(i / SEAMS)]),
});
export const copiedState = ({ tensions, pressed, gaps }: HeldState): HeldState => ({
  tensions: tensions.slice(),
  pressed: pressed.slice(),
  gaps: gaps.slice(),
});
export function setState(to: HeldState, from: HeldState): void {
  to.tensions.set(from.tensions);
  to.pressed.set(from.pressed);
  to.gaps.set(from.gaps);
}

const OVER = 1e-12;
/** Parts that overlap by no more than this touch, mm. */
const TOUCH_MM = 1e-10;
/** Stiffness of a line against itself that is always there, as a share of what its joint alone would hold it with. */
const BREATH = 1e-6;

/** An unknown of a step: a line that may yield, or a seam that may touch. */
interface Unknown {
  spring: number;
  joint: JointStiffness;
  /** Load on the joint per unit: of a mm of closing, of a N that presses. */
  push: Float64Array;
  /** Line of the joint; -1 for a seam. */
  line: number;
  seam: Seam | null;
  /** Its place in the state. */
  at: number;
}

/**
 * All that holds in a frame, in one problem: tacks and finished beads of every joint, each with at most its yield force, loading and
 * unloading, and the seams that are still open, which press where they touch and never pull. With d how far a joint moved, e what
 * its lines closed and p what its seams press with: N = Q e - D' K (d - D e) - W p, and a seam opens by V' d + W' e + G p.
 */
export class Holding {
  private readonly unknowns: Unknown[] = [];
  private readonly lower: Float64Array;
  private readonly upper: Float64Array;
  private readonly slack: Float64Array;
  private readonly free: Float64Array;
  private readonly result: Float64Array;
  /** Which lines stood at their limits in the draw before: a good guess for the next. */
  private readonly standing: Int8Array;
  private readonly columns = new Map<number, Float64Array>();

  /**
   * @param joints what holds at each joint. @param springs how many joints a draw's state has.
   * @param limited whether lines yield; else only seams are looked at.
   */
  constructor(
    joints: readonly (JointStiffness | null)[],
    private readonly springs: number,
    limited = true,
  ) {
    const limits: number[] = [];
    for (let spring = 0; spring < joints.length; spring++) {
      const joint = joints[spring];
      if (!joint) continue;
      for (const { line, yieldN } of limited ? joint.lines : []) {
        this.unknowns.push({
          spring,
          joint,
          line,
          seam: null,
          push: columnOf(joint.push, line),
          at: LINES * spring + line,
        });
        limits.push(yieldN);
      }
      for (const seam of joint.seams) {
        this.unknowns.push({ spring, joint, line: -1, seam, push: seam.push, at: SEAMS * spring + seam.at });
        limits.push(0);
      }
    }
    this.upper = Float64Array.from(limits);
    this.lower = this.upper.map((v, i) => (this.unknowns[i].seam ? Number.NEGATIVE_INFINITY : -v));
    this.slack = this.upper.map((v, i) => (this.unknowns[i].seam ? TOUCH_MM : OVER * v));
    this.free = new Float64Array(limits.length);
    this.result = new Float64Array(limits.length);
    this.standing = new Int8Array(limits.length);
  }

  /**
   * What something brings if nothing yields or touches: forces in lines, overlap at seams.
   * @param moved how far every spring moves. @param wish what a joint does by itself; null for what comes from outside.
   */
  forces(moved: Float64Array, wish: OwnWish | null): Float64Array {
    const out = new Float64Array(this.unknowns.length);
    for (let i = 0; i < out.length; i++) {
      const { spring, push } = this.unknowns[i];
      const at = 6 * spring;
      let sum =
        push[0] * moved[at] +
        push[1] * moved[at + 1] +
        push[2] * moved[at + 2] +
        push[3] * moved[at + 3] +
        push[4] * moved[at + 4] +
        push[5] * moved[at + 5];
      if (wish && wish.spring === spring) sum -= this.ownOf(this.unknowns[i], wish);
      out[i] = -sum;
    }
    return out;
  }

  private ownOf({ joint, line, seam, push }: Unknown, { closing, free, pressed }: OwnWish): number {
    let own = 0;
    if (closing) own += (seam ? -seam.closed[closing.line] : joint.locked[4 * line + closing.line]) * closing.mm;
    if (free) for (let k = 0; k < 6; k++) own += push[k] * free[k];
    if (pressed) own -= seam ? seam.gives[pressed.at] : pressed.closed[line];
    return own;
  }

  /**
   * By how much unknown j takes all others down per unit: the same for all draws of a step. What a chord's kink adds is left out,
   * so that the forces between lines stay those of an energy.
   */
  private column(j: number, pushes: (unknown: number) => Float64Array): Float64Array {
    const known = this.columns.get(j);
    if (known) return known;
    const { spring, line, seam, joint } = this.unknowns[j];
    const wish: OwnWish = seam ? { spring, pressed: seam } : { spring, closing: { line, mm: 1 } };
    const made = this.forces(pushes(j), wish);
    // Closing that yields goes; a seam presses more.
    if (seam) for (let i = 0; i < made.length; i++) made[i] = -made[i];
    // What holds against a line is the small difference of large forces where little does: never less than nothing.
    else made[j] = made[j] + BREATH * Math.abs(joint.locked[5 * line]);
    this.columns.set(j, made);
    return made;
  }

  /** The unknown itself. */
  unknown(i: number): Readonly<Unknown> {
    return this.unknowns[i];
  }

  /**
   * Brings what is held in one draw up to date after a step.
   * @param state of all draws; that of this one is changed. @param brought by everything that pushed in the step.
   * @param pushes how far every spring moves per unit of an unknown, by its push alone.
   * @returns unknowns that changed, with the closing (mm) or pressure (N) that they gained.
   */
  after(
    state: HeldState,
    draw: number,
    brought: readonly Brought[],
    pushes: (unknown: number) => Float64Array,
  ): [unknown: number, gained: number][] {
    const { unknowns, free, upper, lower, slack, result, standing, springs } = this;
    const { tensions, pressed, gaps } = state;
    const n = unknowns.length;
    const line0 = draw * LINES * springs;
    const seam0 = draw * SEAMS * springs;
    let over = false;
    for (let i = 0; i < n; i++) {
      const { at, seam } = unknowns[i];
      let r = seam ? -gaps[seam0 + at] : tensions[line0 + at];
      for (const { forces, sizes } of brought) r += forces[i] * sizes[draw];
      free[i] = r;
      if (r > upper[i] + slack[i] || r < lower[i] - slack[i]) over = true;
      if (seam) {
        const isPressed = pressed[seam0 + at] > 0;
        standing[i] = isPressed ? 1 : 0;
        if (isPressed) over = true;
      }
    }
    const gained: [number, number][] = [];
    if (over) {
      // What presses is asked for in total: without it, this is how things would be.
      for (let j = 0; j < n; j++) {
        const { at, seam } = unknowns[j];
        const before = seam ? pressed[seam0 + at] : 0;
        if (before === 0) continue;
        const taken = this.column(j, pushes);
        for (let i = 0; i < n; i++) free[i] = free[i] + taken[i] * before;
      }
      boxYield({ n, a: (i, j) => this.column(j, pushes)[i], free, lower, upper, slack }, result, standing);
      for (let j = 0; j < n; j++) {
        const { at, seam } = unknowns[j];
        const total = result[j];
        if (total !== 0) {
          const taken = this.column(j, pushes);
          for (let i = 0; i < n; i++) free[i] = free[i] - taken[i] * total;
        }
        const change = seam ? total - pressed[seam0 + at] : -total;
        if (seam) pressed[seam0 + at] = total;
        if (change !== 0) gained.push([j, change]);
      }
    }
    for (let i = 0; i < n; i++) {
      const { at, seam } = unknowns[i];
      if (seam) gaps[seam0 + at] = -free[i];
      else tensions[line0 + at] = free[i];
    }
    return gained;
  }
}
