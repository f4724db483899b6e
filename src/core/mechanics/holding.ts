import { BoxProblem } from "./boxProblem";
import { giveRowsBack, rowsFor } from "./heldRows";
import { type HeldState, LINES, seamsFrom, widthOf } from "./heldState";
import { type HeldRows, MOST_UNITS, SOURCES_AT_ONCE } from "./kernel/heldKernel";
import type { JointStiffness, Seam } from "./loadActions";
import { type OwnUnknowns, unknownsOf } from "./ownUnknowns";

/** What a joint does by itself: close along a line by so much, move as heat in its chord would. */
export interface OwnWish {
  spring: number;
  closing?: { line: number; mm: number };
  free?: Float64Array;
}

/** What a push brings to a draw's row, per unit of it, and the unit's size in each draw. */
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
const EXACT_MM = 1e-10;
/** Unknowns of a step that room is made for to begin with. */
const ROOM = 48;

/** Unknowns that changed in a draw: the first `count` of each. */
export interface Gained {
  count: number;
  unknown: Int32Array;
  /** Closing of a line, mm; pressure at a seam, N. */
  by: Float64Array;
}

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
  /** Place in a draw's row, and the unknown at each place; -1 for none. */
  private readonly at: Int32Array;
  private readonly unknownAt: Int32Array;
  private readonly isSeam: Uint8Array;
  private readonly push: Float64Array;
  /** What is held in every draw. */
  private readonly rows: HeldRows;
  /** The draw that is worked on: where its row begins, and where what its seams press with does. */
  private draw = 0;
  private row = 0;
  private seams = 0;
  /** Seams of the joint that is worked on which press or overlap before a step, a bit each, in every draw. */
  private readonly touching: Uint8Array;
  /** What those that are solved for pressed with before. */
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
  private readonly gained: Gained;
  private readonly width: number;
  /** What one that was asked for does to a draw's row, per unit: those that the rows have no room for. */
  private readonly brings: Float64Array[] = [];
  private readonly hasBrought: boolean[] = [];
  private readonly box = new BoxProblem();

  /** @param springs how many joints a draw's state has. @param draws how many. @param limited whether lines yield; else only seams do. */
  constructor(
    private readonly springs: number,
    private readonly draws: number,
    private readonly limited = true,
  ) {
    const most = widthOf(springs);
    this.width = most;
    this.own = new Array<OwnUnknowns | null>(springs).fill(null);
    this.first = new Int32Array(springs + 1);
    this.spring = new Int32Array(most);
    this.line = new Int32Array(most);
    this.at = new Int32Array(most);
    this.isSeam = new Uint8Array(most);
    this.push = new Float64Array(6 * most);
    this.unknownAt = new Int32Array(most);
    this.rows = rowsFor(springs, draws);
    this.touching = new Uint8Array(draws);
    this.before = new Float64Array(most);
    this.among = new Uint8Array(most);
    this.stood = new Int8Array(most);
    this.placeOf = new Int32Array(most);
    this.moved = new Float64Array(6 * springs);
    this.gained = { count: 0, unknown: new Int32Array(most), by: new Float64Array(most) };
  }

  /** What is held in every draw: to be filled in. */
  get state(): HeldState {
    return this.rows;
  }

  /** Gives room to whoever works next; not to be used after. */
  done(): void {
    giveRowsBack(this.rows);
  }

  /** Begins a step. @param joints what holds at each joint after it. */
  begin(joints: readonly (JointStiffness | null)[]): void {
    const { first, spring, line, at, unknownAt, isSeam, push } = this;
    const { limit } = this.rows;
    this.joints = joints;
    limit.fill(Number.POSITIVE_INFINITY);
    unknownAt.fill(-1);
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
        at[n] = (seam ? seamsFrom(this.springs, j) : LINES * j) + own.at[k];
        unknownAt[at[n]] = n;
        isSeam[n] = seam ? 1 : 0;
        if (!seam) limit[at[n]] = own.limit[k];
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
    const place = this.at[i] - seamsFrom(this.springs, this.spring[i]);
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
   * What something brings to a draw's row if nothing yields or touches.
   * @param moved how far every spring moves. @param wish what a joint does by itself; null for what comes from outside.
   */
  forces(moved: Float64Array, wish: OwnWish | null): Float64Array {
    const into = new Float64Array(this.width);
    this.takeOff(moved, into, 0);
    if (wish)
      for (let i = this.first[wish.spring]; i < this.first[wish.spring + 1]; i++)
        into[this.at[i]] = into[this.at[i]] + this.ownOf(i, wish);
    return into;
  }

  private ownOf(i: number, { spring, closing, free }: OwnWish): number {
    const seam = this.seamOf(i);
    const joint = this.joints[spring] as JointStiffness;
    let own = 0;
    if (closing)
      own += (seam ? -seam.closed[closing.line] : joint.locked[LINES * this.line[i] + closing.line]) * closing.mm;
    if (free) for (let k = 0; k < 6; k++) own += this.push[6 * i + k] * free[k];
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

  /** Brings a draw's row from where it began to what it is with all that some unknowns gained. @returns whether something is wrong then. */
  private bring({ count, unknown, by }: Gained): boolean {
    const { rows, row, moved, isSeam } = this;
    if (this.draws > 1) {
      let packed = 0;
      const others: number[] = [];
      for (let q = 0; q < count; q++) {
        const place = this.broughtBy(unknown[q]);
        if (place >= MOST_UNITS) others.push(q);
        else {
          rows.which[packed] = place;
          rows.by[packed++] = by[q];
        }
      }
      const wrong = rows.give(this.draw, packed);
      for (const q of others) {
        const brings = this.brings[this.placeOf[unknown[q]]];
        for (let k = 0; k < brings.length; k++) rows.held[row + k] = rows.held[row + k] + by[q] * brings[k];
      }
      return wrong || others.length > 0;
    }
    rows.give(0, 0);
    moved.fill(0);
    for (let q = 0; q < count; q++) {
      const j = unknown[q];
      const amount = isSeam[j] === 1 ? by[q] : -by[q];
      const reach = this.reach[this.placeOf[j]];
      for (let k = 0; k < moved.length; k++) moved[k] = moved[k] + amount * reach[k];
    }
    this.takeOff(moved, rows.held, row);
    for (let q = 0; q < count; q++) this.addOwn(unknown[q], isSeam[unknown[q]] === 1 ? by[q] : -by[q], rows.held, row);
    return true;
  }

  /** Works out what a unit of j does to a draw's row, once for all draws of a step. @returns the place of j. */
  private broughtBy(j: number): number {
    const place = this.placeOf[j];
    if (this.hasBrought[place]) return place;
    this.hasBrought[place] = true;
    const { width, rows } = this;
    if (place >= MOST_UNITS) this.brings[place] ??= new Float64Array(width);
    const brings = place < MOST_UNITS ? rows.units : this.brings[place];
    const from = place < MOST_UNITS ? place * width : 0;
    const amount = this.isSeam[j] === 1 ? 1 : -1;
    brings.fill(0, from, from + width);
    this.takeOff(this.reach[place], brings, from);
    if (amount < 0) for (let k = from; k < from + width; k++) brings[k] = -brings[k];
    this.addOwn(j, amount, brings, from);
    return place;
  }

  /** Takes from every unknown of a row, from its place `row` on, what movements of the joints bring it. */
  private takeOff(moved: Float64Array, from: Float64Array, row: number): void {
    const { n, push, spring, at } = this;
    for (let i = 0, p = 0; i < n; i++, p += 6) {
      const m = 6 * spring[i];
      from[row + at[i]] =
        from[row + at[i]] -
        (push[p] * moved[m] +
          push[p + 1] * moved[m + 1] +
          push[p + 2] * moved[m + 2] +
          push[p + 3] * moved[m + 3] +
          push[p + 4] * moved[m + 4] +
          push[p + 5] * moved[m + 5]);
    }
  }

  /** Adds what so much of j does to those of its own joint. */
  private addOwn(j: number, amount: number, to: Float64Array, row: number): void {
    const { first, spring, at } = this;
    for (let i = first[spring[j]]; i < first[spring[j] + 1]; i++)
      to[row + at[i]] = to[row + at[i]] + amount * this.ownBetween(i, j);
  }

  /** Adds unknowns that must be looked at: lines over their limits, seams that overlap, or press and came off. */
  private addWrong(among: number[]): void {
    const { rows, row, seams, draw } = this;
    const { held, pressed, limit } = rows;
    const most = rows.most[draw];
    const touchMm = rows.touchMm[draw];
    for (let k = 0; k < limit.length; k++)
      if (Math.abs(held[row + k]) > limit[k] * most) this.add(this.unknownAt[k], among);
    for (let k = limit.length; k < this.width; k++) {
      const here = held[row + k];
      if (here > touchMm || (here < -touchMm && pressed[seams + k] > 0)) this.add(this.unknownAt[k], among);
    }
  }

  private add(i: number, among: number[]): void {
    if (i < 0 || this.among[i] === 1) return;
    this.among[i] = 1;
    this.before[i] = this.isSeam[i] === 1 ? this.rows.pressed[this.seams + this.at[i]] : 0;
    among.push(i);
  }

  /** Which seams of the joint that is worked on press or overlap, in every draw. */
  private lookAt(worked: number): void {
    const { rows, touching, isSeam, at, width } = this;
    const { held, pressed, limit } = rows;
    touching.fill(0);
    if (worked < 0) return;
    const from = seamsFrom(this.springs, worked);
    for (let i = this.first[worked]; i < this.first[worked + 1]; i++) {
      if (isSeam[i] === 0) continue;
      const bit = 1 << (at[i] - from);
      for (let d = 0, row = at[i], seam = at[i] - limit.length; d < touching.length; d++) {
        if (pressed[seam] > 0 || held[row] > 0) touching[d] |= bit;
        row += width;
        seam += width - limit.length;
      }
    }
  }

  /**
   * Brings what is held up to date after a step.
   * @param brought by everything that pushed in the step.
   * @param worked joint that is worked on: its seams that press or overlap are looked at whatever they do; -1 for none.
   * @param strength share of its yield force that every line has in each draw.
   * @param answers of the frame to what lines and seams push, by their pushes alone.
   * @param changed is told of every draw in which unknowns changed; what it is given is good until it returns.
   */
  settle(
    brought: readonly Brought[],
    worked: number,
    strength: Float64Array,
    answers: Answers,
    changed: (gained: Gained, draw: number) => void,
  ): void {
    const { rows, draws, width, touching } = this;
    this.lookAt(worked);
    for (let d = 0; d < draws; d++) {
      rows.most[d] = strength[d] * (1 + OVER);
      rows.touchMm[d] = d === 0 ? TOUCH_MM.nominal : TOUCH_MM.scattered;
    }
    for (let from = 0; from === 0 || from < brought.length; from += SOURCES_AT_ONCE) {
      const some = brought.slice(from, from + SOURCES_AT_ONCE);
      some.forEach(({ forces, sizes }, s) => {
        rows.forces.set(forces, s * width);
        rows.sizes.set(sizes, s * draws);
      });
      rows.bring(some.length);
    }
    // In most steps and draws nothing is wrong with what is brought.
    for (let d = 0; d < draws; d++)
      if (rows.wrong[d] !== 0 || touching[d] !== 0) this.settleDraw(d, worked, answers, changed);
  }

  private settleDraw(
    draw: number,
    worked: number,
    answers: Answers,
    changed: (gained: Gained, draw: number) => void,
  ): void {
    const { rows, gained, isSeam, at, width } = this;
    const { limit, pressed } = rows;
    const among: number[] = [];
    this.draw = draw;
    this.row = draw * width;
    // So that a place in a draw's row is one in what its seams press with.
    this.seams = draw * (width - limit.length) - limit.length;
    const touching = this.touching[draw];
    for (let k = 0; touching >> k !== 0; k++)
      if (((touching >> k) & 1) === 1) this.add(this.unknownAt[seamsFrom(this.springs, worked) + k], among);
    if (rows.wrong[draw] !== 0) this.addWrong(among);
    if (among.length === 0) return;
    this.solve(among, answers);
    for (const i of among) this.among[i] = 0;
    const { count, unknown, by } = gained;
    for (let q = 0; q < count; q++) {
      const i = unknown[q];
      if (isSeam[i] === 1) pressed[this.seams + at[i]] = this.before[i] + by[q];
      else by[q] = -by[q];
    }
    if (count > 0) changed(gained, draw);
  }

  /** Solves some unknowns together, and those that are wrong then with them, until none is. */
  private solve(among: number[], answers: Answers): void {
    const { rows, row, draw, before, stood, isSeam, box, at: rowAt, gained } = this;
    const { start, limit } = rows;
    const strength = rows.most[draw] / (1 + OVER);
    start.set(rows.held.subarray(row, row + this.width));
    for (;;) {
      const n = among.length;
      box.begin(n);
      const { free, at, p, upper, lower, slack, place, isSeam: isSeamOf } = box;
      for (let k = 0; k < n; k++) {
        const j = among[k];
        free[k] = start[rowAt[j]];
        const seam = isSeam[j];
        const most = seam === 1 ? 0 : limit[rowAt[j]] * strength;
        upper[k] = most;
        lower[k] = seam === 1 ? Number.NEGATIVE_INFINITY : -most;
        isSeamOf[k] = seam;
        slack[k] = seam === 1 ? EXACT_MM : OVER * most;
        at[k] = seam === 0 ? stood[j] : before[j] > 0 ? 1 : 0;
        place[k] = this.placed(j, answers);
      }
      const { pairs, room } = this;
      // What presses is asked for in total: without it, this is how things would be.
      for (let k = 0; k < n; k++) {
        const by = before[among[k]];
        if (by === 0) continue;
        const column = place[k] * room;
        for (let i = 0; i < n; i++) free[i] = free[i] + pairs[column + place[i]] * by;
      }
      box.solve(pairs, room);
      gained.count = 0;
      for (let k = 0; k < n; k++) {
        const j = among[k];
        stood[j] = at[k];
        const by = p[k] - before[j];
        if (by === 0) continue;
        gained.unknown[gained.count] = j;
        gained.by[gained.count++] = by;
      }
      if (!this.bring(gained)) return;
      this.addWrong(among);
      if (among.length === n) return;
    }
  }
}
