import { BoxProblem } from "./boxProblem";
import { type HeldState, LINES, SEAMS } from "./heldState";
import type { JointStiffness, Seam } from "./loadActions";
import { unknownsOf } from "./ownUnknowns";

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

/** How the frame answers to what lines and seams push on its joints. */
export interface Answers {
  /** Flexibility between two joints as they stand, 6 x 6: movement of the first per load on the second. */
  between: (spring: number, other: number, into: Float64Array) => void;
  /** How far every spring moves under loads on joints: six of each joint, one after the other. */
  moved: (loads: Float64Array) => Float64Array;
}

const OVER = 1e-12;
/**
 * Seams of other joints than the one worked on are looked at again when they are off by this, mm; what is left is kept in their gaps and
 * not lost. Finer in the nominal frame than in draws of a band, whose scatter is far larger than what this changes.
 */
const TOUCH_MM = { nominal: 4e-3, scattered: 2e-2 } as const;
const EXACT_MM = 1e-10;
/** Stiffness of a line against itself that is always there, as a share of what its joint alone would hold it with. */
const BREATH = 1e-6;

/** An unknown of a step, as whoever works out what it does to the frame needs it. */
interface Unknown {
  spring: number;
  /** Line that yields; -1 for a seam. */
  line: number;
  seam: Seam | null;
  push: Float64Array;
}

/**
 * All that holds in a frame, in one problem: tacks and finished beads of every joint, each with at most its yield force, loading and
 * unloading, and the seams that are still open, which press where they touch and never pull. With d how far a joint moved, e what
 * its lines closed and p what its seams press with: N = Q e - D' K (d - D e) - W p, and a seam opens by V' d + W' e + G p.
 * Room is kept from step to step; what holds at the joints is told by `begin`.
 */
export class Holding {
  /** Unknowns of this step. */
  private n = 0;
  private joints: readonly (JointStiffness | null)[] = [];
  /** First unknown of each joint, and their end. */
  private readonly first: Int32Array;
  private readonly spring: Int32Array;
  private readonly line: Int32Array;
  /** Place in the state. */
  private readonly at: Int32Array;
  private readonly isSeam: Uint8Array;
  private readonly push: Float64Array;
  private readonly limit: Float64Array;
  /** What every unknown comes to: force in a line, overlap at a seam. */
  private readonly r: Float64Array;
  private readonly start: Float64Array;
  private readonly before: Float64Array;
  /** Which unknowns are solved for. */
  private readonly among: Uint8Array;
  /** Which lines stood at their limits in the draw before: a good guess for the next. */
  private readonly stood: Int8Array;
  /** By how much each unknown takes others down per unit, as far as it was asked for; which joints' were. */
  private readonly columns: Float64Array[] = [];
  private readonly hasPart: Uint8Array[] = [];
  private readonly columnOf: Int32Array;
  private made = 0;
  private readonly block = new Float64Array(36);
  private readonly six = new Float64Array(6);
  private readonly loads: Float64Array;
  private readonly box = new BoxProblem();
  private strength = 1;

  /** @param springs how many joints a draw's state has. @param limited whether lines yield; else only seams are looked at. */
  constructor(
    private readonly springs: number,
    private readonly limited = true,
  ) {
    const most = (LINES + SEAMS) * springs;
    this.first = new Int32Array(springs + 1);
    this.spring = new Int32Array(most);
    this.line = new Int32Array(most);
    this.at = new Int32Array(most);
    this.isSeam = new Uint8Array(most);
    this.push = new Float64Array(6 * most);
    this.limit = new Float64Array(most);
    this.r = new Float64Array(most);
    this.start = new Float64Array(most);
    this.before = new Float64Array(most);
    this.among = new Uint8Array(most);
    this.stood = new Int8Array(most);
    this.columnOf = new Int32Array(most);
    this.loads = new Float64Array(6 * springs);
  }

  /** Begins a step. @param joints what holds at each joint after it. */
  begin(joints: readonly (JointStiffness | null)[]): void {
    const { first, spring, line, at, isSeam, push, limit } = this;
    this.joints = joints;
    let n = 0;
    for (let j = 0; j < this.springs; j++) {
      first[j] = n;
      const joint = joints[j];
      if (!joint) continue;
      const own = unknownsOf(joint);
      for (let k = 0; k < own.count; k++) {
        const seam = own.line[k] < 0;
        if (!this.limited && !seam) continue;
        spring[n] = j;
        line[n] = own.line[k];
        at[n] = (seam ? SEAMS : LINES) * j + own.at[k];
        isSeam[n] = seam ? 1 : 0;
        limit[n] = own.limit[k];
        for (let i = 0; i < 6; i++) push[6 * n + i] = own.push[6 * k + i];
        n++;
      }
    }
    first[this.springs] = n;
    this.n = n;
    this.stood.fill(0, 0, n);
    this.columnOf.fill(-1, 0, n);
    this.made = 0;
  }

  private seamOf(i: number): Seam | null {
    if (this.isSeam[i] === 0) return null;
    const place = this.at[i] - SEAMS * this.spring[i];
    return this.joints[this.spring[i]]?.seams.find((s) => s.at === place) ?? null;
  }

  /** The unknown itself. */
  unknown(i: number): Unknown {
    return {
      spring: this.spring[i],
      line: this.line[i],
      seam: this.seamOf(i),
      push: this.push.slice(6 * i, 6 * i + 6),
    };
  }

  /** Four times its joint's place and its line's, for a line. */
  lineAt(i: number): number | null {
    return this.isSeam[i] === 1 ? null : this.at[i];
  }

  /**
   * What something brings if nothing yields or touches: forces in lines, overlap at seams.
   * @param moved how far every spring moves. @param wish what a joint does by itself; null for what comes from outside.
   */
  forces(moved: Float64Array, wish: OwnWish | null, into: Float64Array = new Float64Array(this.n)): Float64Array {
    const { n, spring, push } = this;
    for (let i = 0, p = 0; i < n; i++, p += 6) {
      const m = 6 * spring[i];
      into[i] = -(
        push[p] * moved[m] +
        push[p + 1] * moved[m + 1] +
        push[p + 2] * moved[m + 2] +
        push[p + 3] * moved[m + 3] +
        push[p + 4] * moved[m + 4] +
        push[p + 5] * moved[m + 5]
      );
    }
    if (wish)
      for (let i = this.first[wish.spring]; i < this.first[wish.spring + 1]; i++)
        into[i] = into[i] + this.ownOf(i, wish);
    return into;
  }

  private ownOf(i: number, { spring, closing, free, pressed }: OwnWish): number {
    const seam = this.seamOf(i);
    const joint = this.joints[spring] as JointStiffness;
    let own = 0;
    if (closing)
      own += (seam ? -seam.closed[closing.line] : joint.locked[LINES * this.line[i] + closing.line]) * closing.mm;
    if (free) for (let k = 0; k < 6; k++) own += this.push[6 * i + k] * free[k];
    if (pressed) own -= seam ? seam.gives[pressed.at] : pressed.closed[this.line[i]];
    return own;
  }

  /**
   * Column of unknown j: by how much it takes others down per unit, the same for all draws of a step. Parts are filled in as they are asked
   * for, joint by joint (see `fill`).
   */
  private columnAt(j: number): number {
    if (this.columnOf[j] >= 0) return this.columnOf[j];
    const at = this.made++;
    this.columnOf[j] = at;
    this.columns[at] ??= new Float64Array(this.r.length);
    this.hasPart[at] ??= new Uint8Array(this.springs);
    this.hasPart[at].fill(0);
    return at;
  }

  /**
   * Fills in what unknown j does to those of a joint. What a chord's kink adds is left out, so that the forces between lines stay those of
   * an energy.
   */
  private fill(made: Float64Array, j: number, joint: number, answers: Answers): void {
    const { block, push, first, six } = this;
    const spring = this.spring[j];
    // Closing that yields goes; a seam presses more.
    const sign = this.isSeam[j] === 1 ? -1 : 1;
    answers.between(joint, spring, block);
    for (let k = 0, at = 0, p = 6 * j; k < 6; k++, at += 6)
      six[k] =
        block[at] * push[p] +
        block[at + 1] * push[p + 1] +
        block[at + 2] * push[p + 2] +
        block[at + 3] * push[p + 3] +
        block[at + 4] * push[p + 4] +
        block[at + 5] * push[p + 5];
    const wish = joint === spring ? this.wishOf(j) : null;
    for (let i = first[joint], p = 6 * i; i < first[joint + 1]; i++, p += 6) {
      const sum =
        push[p] * six[0] +
        push[p + 1] * six[1] +
        push[p + 2] * six[2] +
        push[p + 3] * six[3] +
        push[p + 4] * six[4] +
        push[p + 5] * six[5];
      made[i] = sign * (wish ? this.ownOf(i, wish) - sum : -sum);
    }
    if (joint === spring) made[j] = made[j] + this.breathOf(j);
  }

  /** What an unknown does at its joint by itself, per unit: of closing, or of pressure. */
  private wishOf(j: number): OwnWish {
    const spring = this.spring[j];
    const seam = this.seamOf(j);
    return seam ? { spring, pressed: seam } : { spring, closing: { line: this.line[j], mm: 1 } };
  }

  /** What holds against a line is the small difference of large forces where little does: never less than nothing. */
  private breathOf(j: number): number {
    if (this.isSeam[j] === 1) return 0;
    const { locked } = this.joints[this.spring[j]] as JointStiffness;
    return BREATH * Math.abs(locked[(LINES + 1) * this.line[j]]);
  }

  /** Brings what every unknown comes to up to date with what some of them gained. */
  private bring(gained: readonly [unknown: number, by: number][], answers: Answers): void {
    const { r, loads, push, isSeam, spring, first } = this;
    loads.fill(0);
    for (const [j, by] of gained) {
      const amount = isSeam[j] === 1 ? by : -by;
      const at = 6 * spring[j];
      for (let k = 0; k < 6; k++) loads[at + k] = loads[at + k] + amount * push[6 * j + k];
    }
    const moved = answers.moved(loads);
    for (let i = 0, p = 0; i < this.n; i++, p += 6) {
      const m = 6 * spring[i];
      r[i] =
        r[i] -
        (push[p] * moved[m] +
          push[p + 1] * moved[m + 1] +
          push[p + 2] * moved[m + 2] +
          push[p + 3] * moved[m + 3] +
          push[p + 4] * moved[m + 4] +
          push[p + 5] * moved[m + 5]);
    }
    for (const [j, by] of gained) {
      const amount = isSeam[j] === 1 ? by : -by;
      const wish = this.wishOf(j);
      for (let i = first[spring[j]]; i < first[spring[j] + 1]; i++) r[i] = r[i] + amount * this.ownOf(i, wish);
      r[j] = r[j] - this.breathOf(j) * by;
    }
  }

  /** Adds unknowns that must be looked at: lines over their limits, seams that overlap, or press and came off. */
  private addWrong(among: number[], touchMm: number): boolean {
    const { n, r, before, isSeam, limit, strength, among: inside } = this;
    let added = false;
    for (let i = 0; i < n; i++) {
      if (inside[i] === 1) continue;
      const wrong = isSeam[i]
        ? r[i] > touchMm || (before[i] > 0 && r[i] < -touchMm)
        : Math.abs(r[i]) > limit[i] * strength * (1 + OVER);
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
   * @param answers of the frame to what lines and seams push, by their pushes alone.
   * @returns unknowns that changed, with the closing (mm) or pressure (N) that they gained.
   */
  after(
    state: HeldState,
    draw: number,
    brought: readonly Brought[],
    worked: number,
    strength: number,
    answers: Answers,
  ): [unknown: number, gained: number][] {
    this.strength = strength;
    const { n, r, before, springs, isSeam, at, spring, among: inside } = this;
    const { tensions, pressed, gaps } = state;
    const line0 = draw * LINES * springs;
    const seam0 = draw * SEAMS * springs;
    const among: number[] = [];
    for (let i = 0; i < n; i++) {
      inside[i] = 0;
      if (isSeam[i]) {
        const gap = gaps[seam0 + at[i]];
        r[i] = -gap;
        before[i] = pressed[seam0 + at[i]];
        if (spring[i] === worked && (before[i] > 0 || gap < 0)) {
          among.push(i);
          inside[i] = 1;
        }
      } else {
        r[i] = tensions[line0 + at[i]];
        before[i] = 0;
      }
    }
    for (const { forces, sizes } of brought) {
      const size = sizes[draw];
      for (let i = 0; i < n; i++) r[i] = r[i] + forces[i] * size;
    }
    const touchMm = draw === 0 ? TOUCH_MM.nominal : TOUCH_MM.scattered;
    this.addWrong(among, touchMm);
    const gained = among.length > 0 ? this.settled(among, touchMm, answers) : [];
    for (let i = 0; i < n; i++)
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
  private settled(among: number[], touchMm: number, answers: Answers): [unknown: number, by: number][] {
    const { r, before, stood, isSeam, spring, start, box } = this;
    start.set(r);
    for (;;) {
      const n = among.length;
      box.begin(n);
      const { a, free, at, p } = box;
      for (let k = 0; k < n; k++) {
        const j = among[k];
        free[k] = start[j];
        box.upper[k] = this.limit[j] * this.strength;
        box.lower[k] = isSeam[j] ? Number.NEGATIVE_INFINITY : -box.upper[k];
        box.isSeam[k] = isSeam[j];
        box.slack[k] = isSeam[j] ? EXACT_MM : OVER * box.upper[k];
        at[k] = isSeam[j] ? Number(before[j] > 0) : stood[j];
        const column = this.columnAt(j);
        const whole = this.columns[column];
        const has = this.hasPart[column];
        for (let i = 0; i < n; i++) {
          const joint = spring[among[i]];
          if (has[joint] === 0) {
            has[joint] = 1;
            this.fill(whole, j, joint, answers);
          }
          a[k * n + i] = whole[among[i]];
        }
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
      }
      this.bring(gained, answers);
      if (!this.addWrong(among, touchMm)) return gained;
    }
  }
}
