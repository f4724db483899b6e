import { BoxProblem } from "./boxProblem";
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
/**
 * Seams of other joints than the one worked on are looked at again when they are off by this, mm; what is left is kept in their gaps and
 * not lost. Finer in the nominal frame than in draws of a band, whose scatter is far larger than what this changes.
 */
const TOUCH_MM = { nominal: 2e-3, scattered: 2e-2 } as const;
const EXACT_MM = 1e-10;
/** Stiffness of a line against itself that is always there, as a share of what its joint alone would hold it with. */
const BREATH = 1e-6;

/** An unknown of a joint: a line that may yield, or a seam that may touch. */
interface OwnUnknown {
  joint: JointStiffness;
  /** Load on the joint per unit: of a mm of closing, of a N that presses. */
  push: Float64Array;
  /** Line of the joint; -1 for a seam. */
  line: number;
  seam: Seam | null;
  /** Force at which a line yields, N; nought for a seam. */
  limit: number;
}
/** The same in a frame. */
interface Unknown extends OwnUnknown {
  spring: number;
  /** Its place in the state. */
  at: number;
}

/** Unknowns of joints seen so far. */
const OF_JOINT = new WeakMap<JointStiffness, OwnUnknown[]>();

function unknownsOf(joint: JointStiffness): OwnUnknown[] {
  const known = OF_JOINT.get(joint);
  if (known) return known;
  const made = [
    ...joint.lines.map(({ line, yieldN }) => ({
      joint,
      line,
      seam: null,
      push: columnOf(joint.push, line),
      limit: yieldN,
    })),
    ...joint.seams.map((seam) => ({ joint, line: -1, seam, push: seam.push, limit: 0 })),
  ];
  OF_JOINT.set(joint, made);
  return made;
}

/**
 * All that holds in a frame, in one problem: tacks and finished beads of every joint, each with at most its yield force, loading and
 * unloading, and the seams that are still open, which press where they touch and never pull. With d how far a joint moved, e what
 * its lines closed and p what its seams press with: N = Q e - D' K (d - D e) - W p, and a seam opens by V' d + W' e + G p.
 */
export class Holding {
  private readonly unknowns: Unknown[] = [];
  private readonly upper: Float64Array;
  private readonly slack: Float64Array;
  /** What every unknown comes to: force in a line, overlap at a seam. */
  private readonly r: Float64Array;
  private readonly start: Float64Array;
  private readonly before: Float64Array;
  /** Which unknowns are solved for. */
  private readonly among: Uint8Array;
  private readonly isSeam: Uint8Array;
  private readonly spring: Int32Array;
  private readonly at: Int32Array;
  /** Which lines stood at their limits in the draw before: a good guess for the next. */
  private readonly stood: Int8Array;
  private readonly columns: (Float64Array | undefined)[] = [];
  private readonly box = new BoxProblem();
  private strength = 1;

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
      for (const own of unknownsOf(joint)) {
        if (!limited && !own.seam) continue;
        this.unknowns.push({
          ...own,
          spring,
          at: own.seam ? SEAMS * spring + own.seam.at : LINES * spring + own.line,
        });
        limits.push(own.limit);
      }
    }
    this.upper = Float64Array.from(limits);
    this.slack = this.upper.map((v, i) => (this.unknowns[i].seam ? EXACT_MM : OVER * v));
    this.r = new Float64Array(limits.length);
    this.start = new Float64Array(limits.length);
    this.before = new Float64Array(limits.length);
    this.among = new Uint8Array(limits.length);
    this.isSeam = Uint8Array.from(this.unknowns, (u) => Number(u.seam !== null));
    this.spring = Int32Array.from(this.unknowns, (u) => u.spring);
    this.at = Int32Array.from(this.unknowns, (u) => u.at);
    this.stood = new Int8Array(limits.length);
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
    const known = this.columns[j];
    if (known) return known;
    const { spring, line, seam, joint } = this.unknowns[j];
    const wish: OwnWish = seam ? { spring, pressed: seam } : { spring, closing: { line, mm: 1 } };
    const made = this.forces(pushes(j), wish);
    // Closing that yields goes; a seam presses more.
    if (seam) for (let i = 0; i < made.length; i++) made[i] = -made[i];
    // What holds against a line is the small difference of large forces where little does: never less than nothing.
    else made[j] = made[j] + BREATH * Math.abs(joint.locked[5 * line]);
    this.columns[j] = made;
    return made;
  }

  /** The unknown itself. */
  unknown(i: number): Readonly<Unknown> {
    return this.unknowns[i];
  }

  /** Adds unknowns that must be looked at: lines over their limits, seams that overlap, or press and came off. */
  private addWrong(among: number[], touchMm: number): boolean {
    const { r, before, isSeam, upper, slack, strength, among: inside } = this;
    let added = false;
    for (let i = 0; i < r.length; i++) {
      if (inside[i] === 1) continue;
      const wrong = isSeam[i]
        ? r[i] > touchMm || (before[i] > 0 && r[i] < -touchMm)
        : Math.abs(r[i]) > upper[i] * strength + slack[i];
      if (!wrong) continue;
      among.push(i);
      inside[i] = 1;
      added = true;
    }
    return added;
  }

  /**
   * Brings what is held in one draw up to date after a step.
   * @param state of all draws; that of this one is changed. @param brought by everything that pushed in the step.
   * @param worked joint that is worked on: its seams are looked at whatever they do; -1 for none.
   * @param strength share of its yield force that every line has in this draw.
   * @param pushes how far every spring moves per unit of an unknown, by its push alone.
   * @returns unknowns that changed, with the closing (mm) or pressure (N) that they gained.
   */
  after(
    state: HeldState,
    draw: number,
    brought: readonly Brought[],
    worked: number,
    strength: number,
    pushes: (unknown: number) => Float64Array,
  ): [unknown: number, gained: number][] {
    this.strength = strength;
    const { r, before, springs, isSeam, at, spring, among: inside } = this;
    const { tensions, pressed, gaps } = state;
    const line0 = draw * LINES * springs;
    const seam0 = draw * SEAMS * springs;
    inside.fill(0);
    const among: number[] = [];
    for (let i = 0; i < r.length; i++)
      if (isSeam[i]) {
        r[i] = -gaps[seam0 + at[i]];
        before[i] = pressed[seam0 + at[i]];
        if (spring[i] === worked && (before[i] > 0 || gaps[seam0 + at[i]] < 0)) {
          among.push(i);
          inside[i] = 1;
        }
      } else r[i] = tensions[line0 + at[i]];
    for (const { forces, sizes } of brought) {
      const size = sizes[draw];
      for (let i = 0; i < r.length; i++) r[i] = r[i] + forces[i] * size;
    }
    const touchMm = draw === 0 ? TOUCH_MM.nominal : TOUCH_MM.scattered;
    this.addWrong(among, touchMm);
    const gained = among.length > 0 ? this.settled(among, touchMm, pushes) : [];
    for (let i = 0; i < r.length; i++)
      if (isSeam[i]) gaps[seam0 + at[i]] = -r[i];
      else tensions[line0 + at[i]] = r[i];
    for (const change of gained) {
      const [j, by] = change;
      if (isSeam[j]) pressed[seam0 + at[j]] = before[j] + by;
      else change[1] = -by;
    }
    return gained;
  }

  /** Solves some unknowns together, and those that are wrong then with them, until none is. @returns what each gained. */
  private settled(
    among: number[],
    touchMm: number,
    pushes: (unknown: number) => Float64Array,
  ): [unknown: number, by: number][] {
    const { r, before, stood, isSeam, start, box } = this;
    start.set(r);
    for (;;) {
      const n = among.length;
      box.begin(n);
      const { a, free, at, p } = box;
      for (let k = 0; k < n; k++) {
        const j = among[k];
        free[k] = start[j];
        box.upper[k] = this.upper[j] * this.strength;
        box.lower[k] = isSeam[j] ? Number.NEGATIVE_INFINITY : -box.upper[k];
        box.slack[k] = this.slack[j];
        at[k] = isSeam[j] ? Number(before[j] > 0) : stood[j];
        const whole = this.column(j, pushes);
        for (let i = 0; i < n; i++) a[k * n + i] = whole[among[i]];
      }
      // What presses is asked for in total: without it, this is how things would be.
      for (let k = 0; k < n; k++) {
        const by = before[among[k]];
        if (by !== 0) for (let i = 0; i < n; i++) free[i] = free[i] + a[k * n + i] * by;
      }
      box.solve();
      r.set(start);
      const gained: [number, number][] = [];
      for (let k = 0; k < n; k++) {
        const j = among[k];
        stood[j] = at[k];
        const by = p[k] - before[j];
        if (by === 0) continue;
        gained.push([j, by]);
        const whole = this.column(j, pushes);
        for (let i = 0; i < r.length; i++) r[i] = r[i] - whole[i] * by;
      }
      if (!this.addWrong(among, touchMm)) return gained;
    }
  }
}
