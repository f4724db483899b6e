import { BoxProblem } from "./boxProblem";
import { type HeldState, LINES, SEAMS } from "./heldState";
import type { JointStiffness, Seam } from "./loadActions";
import { type OwnUnknowns, unknownsOf } from "./ownUnknowns";

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
  /** How far every joint moves, six each, under six loads on one of them: `push` from `from` on. */
  reach: (spring: number, push: Float64Array, from: number, into: Float64Array) => void;
}

const OVER = 1e-12;
/**
 * Seams of other joints than the one worked on are looked at again when they are off by this, mm; what is left is kept in their gaps and
 * not lost. Finer in the nominal frame than in draws of a band, whose scatter is far larger than what this changes.
 */
const TOUCH_MM = { nominal: 4e-3, scattered: 2e-2 } as const;
const touchOf = (isNominal: boolean): number => (isNominal ? TOUCH_MM.nominal : TOUCH_MM.scattered);
const EXACT_MM = 1e-10;
/** Unknowns of a step that room is made for to begin with. */
const ROOM = 48;

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
  /** What may change at each joint. */
  private readonly own: (OwnUnknowns | null)[];
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
  /** Places of those that are solved for. */
  private readonly places: Int32Array;
  private readonly before: Float64Array;
  /** Which unknowns are solved for. */
  private readonly among: Uint8Array;
  /** Which lines stood at their limits in the draw before: a good guess for the next. */
  private readonly stood: Int8Array;
  /** Unknowns of this step that were asked for so far, in that order, and the place of each; -1 for one that was not. */
  private readonly asked: number[] = [];
  private readonly placeOf: Int32Array;
  /** How far one that was asked for moves every joint, per unit. */
  private readonly reach: Float64Array[] = [];
  /** By how much those that were asked for take each other down per unit: the column of place q from q * room on. */
  private pairs = new Float64Array(ROOM * ROOM);
  private room = ROOM;
  private readonly moved: Float64Array;
  /** What one that was asked for does to every unknown, per unit, where many draws ask for it. */
  private readonly brings: Float64Array[] = [];
  private readonly hasBrought: boolean[] = [];
  private readonly box = new BoxProblem();
  private strength = 1;

  /** @param springs how many joints a draw's state has. @param limited whether lines yield; else only seams are looked at. */
  constructor(
    private readonly springs: number,
    private readonly limited = true,
  ) {
    const most = (LINES + SEAMS) * springs;
    this.own = new Array<OwnUnknowns | null>(springs).fill(null);
    this.first = new Int32Array(springs + 1);
    this.spring = new Int32Array(most);
    this.line = new Int32Array(most);
    this.at = new Int32Array(most);
    this.isSeam = new Uint8Array(most);
    this.push = new Float64Array(6 * most);
    this.limit = new Float64Array(most);
    this.r = new Float64Array(most);
    this.start = new Float64Array(most);
    this.places = new Int32Array(most);
    this.before = new Float64Array(most);
    this.among = new Uint8Array(most);
    this.stood = new Int8Array(most);
    this.placeOf = new Int32Array(most);
    this.moved = new Float64Array(6 * springs);
  }

  /** Begins a step. @param joints what holds at each joint after it. */
  begin(joints: readonly (JointStiffness | null)[]): void {
    const { first, spring, line, at, isSeam, push, limit } = this;
    this.joints = joints;
    let n = 0;
    for (let j = 0; j < this.springs; j++) {
      first[j] = n;
      const joint = joints[j];
      const own = joint ? unknownsOf(joint) : null;
      this.own[j] = own;
      if (!own) continue;
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
    this.placeOf.fill(-1, 0, n);
    this.asked.length = 0;
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

  /** Adds what it pushes on its joint's own columns, `by` of it. @returns the joint. */
  pushOf(i: number, by: number, into: Float64Array, offset: ArrayLike<number>): number {
    const spring = this.spring[i];
    for (let k = 0, at = offset[spring]; k < 6; k++, at++) into[at] = into[at] + by * this.push[6 * i + k];
    return spring;
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

  /** What two of the same joint do to each other by themselves: how far a unit of j brings i. */
  private ownBetween(i: number, j: number): number {
    const spring = this.spring[j];
    const own = this.own[spring] as OwnUnknowns;
    const from = this.limited ? this.first[spring] : this.first[spring] - own.lines;
    return own.between[(j - from) * own.count + i - from];
  }

  /**
   * Place of unknown j among those asked for. What it does to the others is worked out when it is first asked for, once for all draws of a
   * step. What a chord's kink adds is left out, so that the forces between lines stay those of an energy.
   */
  private placed(j: number, answers: Answers): number {
    const known = this.placeOf[j];
    if (known >= 0) return known;
    const { asked, push, spring, isSeam } = this;
    const place = asked.length;
    if (place === this.room) this.makeRoom();
    const { pairs, room } = this;
    asked.push(j);
    this.placeOf[j] = place;
    this.hasBrought[place] = false;
    this.reach[place] ??= new Float64Array(6 * this.springs);
    const reach = this.reach[place];
    answers.reach(spring[j], push, 6 * j, reach);
    // Closing that yields goes; a seam presses more.
    const sign = isSeam[j] === 1 ? -1 : 1;
    for (let q = 0; q <= place; q++) {
      const i = asked[q];
      const p = 6 * i;
      const m = 6 * spring[i];
      const sum =
        push[p] * reach[m] +
        push[p + 1] * reach[m + 1] +
        push[p + 2] * reach[m + 2] +
        push[p + 3] * reach[m + 3] +
        push[p + 4] * reach[m + 4] +
        push[p + 5] * reach[m + 5];
      const same = spring[i] === spring[j];
      pairs[q * room + place] = (isSeam[i] === 1 ? -1 : 1) * ((same ? this.ownBetween(j, i) : 0) - sum);
      pairs[place * room + q] = sign * ((same ? this.ownBetween(i, j) : 0) - sum);
    }
    return place;
  }

  private makeRoom(): void {
    const { pairs, room } = this;
    this.room = 2 * room;
    this.pairs = new Float64Array(this.room * this.room);
    for (let q = 0; q < room; q++) this.pairs.set(pairs.subarray(q * room, (q + 1) * room), q * this.room);
  }

  /** Brings what every unknown comes to up to date with what some of them gained. */
  private bring(gained: readonly [unknown: number, by: number][], isFirst: boolean): void {
    const { n, r, moved, isSeam } = this;
    if (!isFirst) {
      for (const [j, by] of gained) {
        const brings = this.broughtBy(j);
        for (let i = 0; i < n; i++) r[i] = r[i] + by * brings[i];
      }
      return;
    }
    moved.fill(0);
    for (const [j, by] of gained) {
      const amount = isSeam[j] === 1 ? by : -by;
      const reach = this.reach[this.placeOf[j]];
      for (let k = 0; k < moved.length; k++) moved[k] = moved[k] + amount * reach[k];
    }
    this.takeOff(moved, r);
    for (const [j, by] of gained) this.addOwn(j, isSeam[j] === 1 ? by : -by, r);
  }

  /** What a unit of j does to every unknown: worked out once for all draws of a step. */
  private broughtBy(j: number): Float64Array {
    const place = this.placeOf[j];
    this.brings[place] ??= new Float64Array(this.r.length);
    const brings = this.brings[place];
    if (this.hasBrought[place]) return brings;
    this.hasBrought[place] = true;
    const amount = this.isSeam[j] === 1 ? 1 : -1;
    brings.fill(0, 0, this.n);
    this.takeOff(this.reach[place], brings);
    if (amount < 0) for (let i = 0; i < this.n; i++) brings[i] = -brings[i];
    this.addOwn(j, amount, brings);
    return brings;
  }

  /** Takes from every unknown what movements of the joints bring it. */
  private takeOff(moved: Float64Array, from: Float64Array): void {
    const { n, push, spring } = this;
    for (let i = 0, p = 0; i < n; i++, p += 6) {
      const m = 6 * spring[i];
      from[i] =
        from[i] -
        (push[p] * moved[m] +
          push[p + 1] * moved[m + 1] +
          push[p + 2] * moved[m + 2] +
          push[p + 3] * moved[m + 3] +
          push[p + 4] * moved[m + 4] +
          push[p + 5] * moved[m + 5]);
    }
  }

  /** Adds what so much of j does to those of its own joint. */
  private addOwn(j: number, amount: number, to: Float64Array): void {
    const { first, spring } = this;
    for (let i = first[spring[j]]; i < first[spring[j] + 1]; i++) to[i] = to[i] + amount * this.ownBetween(i, j);
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
    const { n, r, before, limit, springs, isSeam, at, spring, among: inside } = this;
    const { tensions, pressed, gaps } = state;
    const line0 = draw * LINES * springs;
    const seam0 = draw * SEAMS * springs;
    const touchMm = touchOf(draw === 0);
    const most = strength * (1 + OVER);
    const among: number[] = [];
    this.bringAll(brought, draw);
    // In most steps and draws the only pass: what is brought, whether anything is wrong with it, and kept.
    for (let i = 0; i < n; i++) {
      const seam = isSeam[i] === 1;
      const place = seam ? seam0 + at[i] : line0 + at[i];
      const here = seam ? r[i] - gaps[place] : r[i] + tensions[place];
      r[i] = here;
      let isAsked: boolean;
      if (seam) {
        const was = pressed[place];
        before[i] = was;
        isAsked =
          here > touchMm || (was > 0 && here < -touchMm) || (spring[i] === worked && (was > 0 || gaps[place] < 0));
        gaps[place] = -here;
      } else {
        before[i] = 0;
        isAsked = Math.abs(here) > limit[i] * most;
        tensions[place] = here;
      }
      inside[i] = isAsked ? 1 : 0;
      if (isAsked) among.push(i);
    }
    if (among.length === 0) return [];
    const gained = this.settled(among, draw === 0, answers);
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

  /** What everything that pushed brings every unknown in one draw. */
  private bringAll(brought: readonly Brought[], draw: number): void {
    const { n, r } = this;
    r.fill(0, 0, n);
    for (const { forces, sizes } of brought) {
      const size = sizes[draw];
      for (let i = 0; i < n; i++) r[i] = r[i] + forces[i] * size;
    }
  }

  /** Solves some unknowns together, and those that are wrong then with them, until none is. @returns what each gained. */
  private settled(among: number[], isFirst: boolean, answers: Answers): [unknown: number, by: number][] {
    const { r, before, stood, isSeam, start, places, box } = this;
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
        places[k] = this.placed(j, answers);
      }
      const { pairs, room } = this;
      for (let k = 0; k < n; k++) {
        const column = places[k] * room;
        for (let i = 0; i < n; i++) a[k * n + i] = pairs[column + places[i]];
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
      this.bring(gained, isFirst);
      if (!this.addWrong(among, touchOf(isFirst))) return gained;
    }
  }
}
