import { rowsTimes, type SparseRows } from "../numeric";
import type { Condensed } from "./condensed";
import type { ProductRoom } from "./kernel/kernelRoom";
import { giveBack, productsFor } from "./products";

/** Something that pushed in a step, by a size of its own in each draw. */
export interface Source {
  /** Load on the springs' own columns per unit: `q` from column `first` on. */
  first: number;
  q: Float64Array;
  /** The same over all of them; null where those are all. */
  push: Float64Array | null;
  /** Loads on members per unit: column and how much of it. */
  loads: readonly (readonly [column: number, by: number])[];
  /** One per draw. */
  sizes: Float64Array;
}

/** Places in the room: how far springs moved in every draw; how far sources move them per unit; the sources' sizes. */
const MOVED = 0;
const UNITS = 1;
const SIZES = 2;
/** Share of the draws in which a source must push for the kernel, which adds to all of them, to be sooner. */
const KERNEL_FROM = 0.2;
/** Sources that are added at once. */
const AT_ONCE = 8;

/**
 * What the welded frame would have to carry to stand as a draw stands: everything that pushed, and what its springs would hold more of
 * how far they moved than they held by then. (The fitted frame would do as well, but it is so loose that rounding shows.) Forces on
 * springs and loads on members, one draw after the other.
 */
export class Carried {
  private readonly forces: Float64Array;
  private readonly loads: Float64Array;
  /** How far springs moved since they were changed last. */
  private readonly moved: Float64Array;
  private readonly room: ProductRoom;
  private waiting = 0;
  /** What each spring gained by now, and what the welded frame has more. */
  readonly gained: readonly Float64Array[];
  private readonly toCome: readonly Float64Array[];
  private readonly sum: Float64Array;
  /** What has to be added to what a spring gained holds of `moved`, less `forces`, to make the force that the frame puts through it. */
  private readonly base: Float64Array;

  constructor(
    private readonly condensed: Condensed,
    private readonly draws: number,
  ) {
    const { springColumns: n, loadColumns, welded } = condensed;
    this.room = productsFor([draws * n, AT_ONCE * n, AT_ONCE * draws]);
    this.moved = this.room.arrays[MOVED].subarray(0, draws * n);
    this.forces = new Float64Array(draws * n);
    this.loads = new Float64Array(draws * loadColumns);
    this.gained = welded.map((d) => new Float64Array(d.length));
    this.toCome = welded.map((d) => d.slice());
    this.sum = new Float64Array(n);
    this.base = new Float64Array(draws * n);
    this.clear();
  }

  /** Gives its room to whoever works next; not to be used after. */
  done(): void {
    giveBack(this.room);
  }

  /** Back to the fitted frame. */
  reset(): void {
    this.gained.forEach((d, spring) => {
      d.fill(0);
      this.bringToCome(spring);
    });
    this.base.fill(0);
    this.clear();
  }

  /** Nothing pushed so far; springs stay as they are, and with what goes through them. */
  forget(): void {
    this.base.set(this.throughOf([...this.gained.keys()]));
    this.clear();
  }

  private clear(): void {
    for (const held of [this.forces, this.moved, this.loads]) held.fill(0);
  }

  snapshot(): Float64Array[] {
    return [this.forces, this.moved, this.loads, this.base, ...this.gained].map((held) => held.slice());
  }

  restore(kept: readonly Float64Array[]): void {
    [this.forces, this.moved, this.loads, this.base, ...this.gained].forEach((held, i) => {
      held.set(kept[i]);
    });
    for (const spring of this.gained.keys()) this.bringToCome(spring);
  }

  /** What is left of everything so far. @param holds whether springs keep what goes through them; else they let go of it. */
  scale(share: number, holds: boolean): void {
    const { forces, moved, loads } = this;
    const springs = [...this.gained.keys()];
    const kept = this.throughOf(holds ? springs : []);
    for (const held of [forces, moved, loads]) for (let i = 0; i < held.length; i++) held[i] = held[i] * share;
    this.setThrough(springs, kept);
  }

  /**
   * What pushes on the frame as it stands, one draw: what the welded frame would have to carry, less what springs that are still to come would
   * hold of how far they moved.
   * @param rowsOfSprings over the freedoms. @param into one for every column of the springs. @returns by how much of each load.
   */
  pushing(draw: number, rowsOfSprings: SparseRows, into: Float64Array): Float64Array {
    const { springColumns: n, loadColumns, offset, springs } = this.condensed;
    const here = new Float64Array(n);
    rowsTimes(rowsOfSprings, this.stands(draw), here);
    into.set(this.sum);
    for (let k = 0; k < springs.length; k++) {
      const [c, r, toCome] = [offset[k], offset[k + 1] - offset[k], this.toCome[k]];
      for (let i = 0; i < r; i++)
        for (let j = 0; j < r; j++) into[c + i] = into[c + i] - toCome[i * r + j] * here[c + j];
    }
    return this.loads.slice(draw * loadColumns, (draw + 1) * loadColumns);
  }

  /** Force that the frame puts through some springs, all draws; nought for the others. */
  throughOf(springs: readonly number[]): Float64Array {
    const into = new Float64Array(this.base.length);
    this.eachWay(springs, (k, at, i) => {
      into[at + i] = this.throughAt(k, at, i);
    });
    return into;
  }

  /** From here on the frame puts so much through some springs. @param to as `throughOf` gives it. */
  setThrough(springs: readonly number[], to: Float64Array): void {
    this.eachWay(springs, (k, at, i) => {
      this.base[at + i] = this.base[at + i] + to[at + i] - this.throughAt(k, at, i);
    });
  }

  /** @param each is told the spring, the place of its first column in a draw, and the way. */
  private eachWay(springs: readonly number[], each: (spring: number, at: number, way: number) => void): void {
    const { springColumns: n, offset } = this.condensed;
    for (let d = 0; d < this.draws; d++)
      for (const k of springs) for (let i = 0; i < offset[k + 1] - offset[k]; i++) each(k, d * n + offset[k], i);
  }

  /** Force that the frame puts through a spring in every draw: what the spring gained holds of how far it moved, less what pushes on it itself. */
  through(spring: number, into: Float64Array): void {
    const { springColumns: n, offset } = this.condensed;
    const r = offset[spring + 1] - offset[spring];
    for (let d = 0, at = offset[spring]; d < this.draws; d++, at += n)
      for (let i = 0; i < r; i++) into[d * r + i] = this.throughAt(spring, at, i);
  }

  /** @param at place of the spring's first column in a draw. @param i way of the spring. */
  private throughAt(spring: number, at: number, i: number): number {
    const gained = this.gained[spring];
    const r = this.condensed.offset[spring + 1] - this.condensed.offset[spring];
    let sum = this.base[at + i] - this.forces[at + i];
    for (let j = 0; j < r; j++) sum += gained[i * r + j] * this.moved[at + j];
    return sum;
  }

  /** A spring gains so much. */
  change(spring: number, delta: Float64Array): void {
    const { springColumns: n, offset } = this.condensed;
    const c = offset[spring];
    const r = offset[spring + 1] - c;
    for (let d = 0, at = c; d < this.draws; d++, at += n) {
      this.addHeld(this.condensed.welded[spring], r, this.moved, at, this.base, at);
      this.addHeld(this.toCome[spring], r, this.moved, at, this.forces, at);
      this.moved.fill(0, at, at + r);
    }
    const gained = this.gained[spring];
    for (let i = 0; i < gained.length; i++) gained[i] = gained[i] + delta[i];
    this.bringToCome(spring);
  }

  /** into += what a stiffness of r ways holds of a movement, which stands in `moved` from `from` on. */
  private addHeld(d: Float64Array, r: number, moved: Float64Array, from: number, into: Float64Array, at: number): void {
    for (let i = 0; i < r; i++) {
      let sum = 0;
      for (let j = 0; j < r; j++) sum += d[i * r + j] * moved[from + j];
      into[at + i] = into[at + i] + sum;
    }
  }

  private bringToCome(spring: number): void {
    const [welded, gained, toCome] = [this.condensed.welded[spring], this.gained[spring], this.toCome[spring]];
    for (let i = 0; i < toCome.length; i++) toCome[i] = welded[i] - gained[i];
  }

  /** Adds what a source pushes. @param moves how far it moves every spring per unit. */
  add({ first, q, push, loads, sizes }: Source, moves: Float64Array): void {
    const { draws, room, forces, moved, condensed } = this;
    const { springColumns: n, loadColumns } = condensed;
    let some = 0;
    for (let d = 0, at = 0; d < draws; d++, at += n) {
      const size = sizes[d];
      if (size === 0) continue;
      some++;
      for (let i = 0; i < q.length; i++) forces[at + first + i] = forces[at + first + i] + size * q[i];
      if (push) for (let i = 0; i < n; i++) forces[at + i] = forces[at + i] + size * push[i];
      for (const [column, by] of loads)
        this.loads[d * loadColumns + column] = this.loads[d * loadColumns + column] + size * by;
    }
    if (some > KERNEL_FROM * draws) {
      room.arrays[UNITS].set(moves, this.waiting * n);
      room.arrays[SIZES].set(sizes, this.waiting * draws);
      this.waiting++;
      if (this.waiting === AT_ONCE) this.settle();
      return;
    }
    for (let d = 0, at = 0; d < draws; d++, at += n) {
      const size = sizes[d];
      if (size !== 0) for (let i = 0; i < n; i++) moved[at + i] = moved[at + i] + size * moves[i];
    }
  }

  /** Takes in what was added. */
  settle(): void {
    if (this.waiting > 0) this.room.add(MOVED, this.draws, this.condensed.springColumns, UNITS, SIZES, this.waiting);
    this.waiting = 0;
  }

  /** What one draw moved the outputs by. */
  outputs(draw: number, into: Float64Array): void {
    rowsTimes(this.condensed.outputs, this.stands(draw), into);
  }

  /** Movement of every freedom in one draw; what carries it so stands in `sum`. */
  private stands(draw: number): Float64Array {
    const { sum, forces, moved, loads } = this;
    const { springColumns: n, loadColumns, offset, springs, under } = this.condensed;
    const at = draw * n;
    sum.set(forces.subarray(at, at + n));
    for (let k = 0; k < springs.length; k++)
      this.addHeld(this.toCome[k], offset[k + 1] - offset[k], moved, at + offset[k], sum, offset[k]);
    return under(sum, loads.subarray(draw * loadColumns, (draw + 1) * loadColumns));
  }
}
