import type { Condensed } from "./condensed";
import type { ProductRoom } from "./kernel/kernelRoom";
import { giveBack, productsFor } from "./products";

/** Places of what is gathered in its room: outputs of every draw; what sources do and their sizes; from springs to outputs. */
const OUT = 0;
const UNITS = 1;
const SIZES = 2;
const FLEXIBILITY = 3;
/** Rows of it that a step takes down, the step's own rows W, and what sources push on every spring, a column each. */
const TAKEN = 4;
const ROWS = 5;
const PUSHES = 6;

/** Something that pushed in a step, by a size of its own in each draw. */
export interface Source {
  /** Load on the springs' own columns per unit: `q` from column `first` on. */
  first: number;
  q: Float64Array;
  /** What a load on members pushes back through the springs gained by then, over all spring columns; null without one. */
  injected: Float64Array | null;
  /** What it moves the outputs by past the springs; null without one. */
  direct: Float64Array | null;
  /** One per draw. */
  sizes: Float64Array;
  /** How far a load on members would move every spring of the fitted frame; null without one, and only until the next action. */
  fitted: Float64Array | null;
}

/**
 * What every action of an order did to the springs, kept so that outputs can be gathered backwards: its rows W and what
 * pushed. See LowRankRun for the algebra.
 */
export class ActionRecord {
  private readonly n: number;
  private readonly z: Float64Array;
  private readonly g = new Float64Array(6);
  /** Per action: its six rows W. Room grows with the longest order. */
  w = new Float64Array(0);
  /** Columns that the action's spring changed, and how many; what is left of everything before it. */
  first = new Int32Array(0);
  size = new Int32Array(0);
  share = new Float64Array(0);
  private readonly sources: Source[][] = [];
  private room = 0;

  constructor(private readonly condensed: Condensed) {
    this.n = condensed.springColumns;
    this.z = new Float64Array(this.n);
  }

  makeRoom(actions: number): void {
    if (actions <= this.room) return;
    const grown = new Float64Array(actions * 6 * this.n);
    grown.set(this.w);
    this.w = grown;
    const share = new Float64Array(actions);
    share.set(this.share);
    this.share = share;
    for (const name of ["first", "size"] as const) {
      const made = new Int32Array(actions);
      made.set(this[name]);
      this[name] = made;
    }
    this.room = actions;
  }

  /** Begins the record of action a: nothing pushed yet. @param share what is left of everything before it. */
  begin(a: number, share = 1): void {
    this.first[a] = 0;
    this.size[a] = 0;
    this.share[a] = share;
    this.sources[a] = [];
  }

  pushed(a: number, source: Source): void {
    this.sources[a].push(source);
  }

  /** Outputs of one draw after `count` actions, into its place in `out`. @param from only what this action and later ones did. */
  gather(count: number, d: number, out: Float64Array, from = 0): void {
    const { z } = this;
    const { outputs } = this.condensed;
    const at = d * outputs;
    z.fill(0);
    out.fill(0, at, at + outputs);
    let factor = 1;
    for (let a = count - 1; a >= 0; a--) {
      const share = this.share[a];
      if (share !== 1) {
        factor *= share;
        continue;
      }
      if (a >= from) this.addPushes(a, d, factor, z, out, at);
      this.turnBack(a, z);
    }
    this.addOutputs(z, out, at);
  }

  /**
   * Outputs of all draws after `count` actions, with chances to stop. The flexibility from springs to outputs is carried along
   * from the first action to the last, so that each source is worked out once: many draws cost little more than a few.
   * @param each is given every action and the outputs of draw 0 after it; the array is used again.
   */
  *gatherAll(
    count: number,
    draws: number,
    out: Float64Array,
    each?: (action: number, out: Float64Array) => void,
  ): Generator<number, void> {
    const { n } = this;
    const { outputs, rows, springColumns, start } = this.condensed;
    let most = 1;
    for (let a = 0; a < count; a++) most = Math.max(most, this.sources[a].length);
    const lengths: number[] = [];
    lengths[OUT] = draws * outputs;
    lengths[UNITS] = most * outputs;
    lengths[SIZES] = most * draws;
    lengths[FLEXIBILITY] = n * outputs;
    lengths[TAKEN] = 6 * outputs;
    lengths[ROWS] = 6 * n;
    lengths[PUSHES] = n * most;
    const room = productsFor(lengths);
    try {
      const flexibility = room.arrays[FLEXIBILITY];
      for (let j = 0; j < n; j++) {
        const from = j * rows + springColumns;
        flexibility.set(start.subarray(from, from + outputs), j * outputs);
      }
      const sums = room.arrays[OUT].subarray(0, draws * outputs);
      sums.fill(0);
      for (let a = 0; a < count; a++) {
        const share = this.share[a];
        if (share !== 1) for (let i = 0; i < sums.length; i++) sums[i] = sums[i] * share;
        else {
          this.stiffen(a, room);
          const pushing = this.sources[a].filter(({ sizes }) => sizes.some((v) => v !== 0));
          this.unitsOf(pushing, room);
          pushing.forEach(({ sizes }, k) => {
            room.arrays[SIZES].set(sizes, k * draws);
          });
          room.add(OUT, draws, outputs, UNITS, SIZES, pushing.length);
        }
        each?.(a, sums);
        yield a / count;
      }
      out.set(sums);
    } finally {
      giveBack(room);
    }
  }

  /** What each source moves the outputs by per unit, one row each. */
  private unitsOf(sources: readonly Source[], room: ProductRoom): void {
    const { n } = this;
    const { outputs } = this.condensed;
    const { [FLEXIBILITY]: m, [UNITS]: units, [PUSHES]: pushes } = room.arrays;
    const count = sources.length;
    pushes.fill(0, 0, n * count);
    sources.forEach(({ first, q, injected, direct }, k) => {
      if (direct) units.set(direct, k * outputs);
      else units.fill(0, k * outputs, (k + 1) * outputs);
      if (injected) for (let j = 0, at = k; j < n; j++, at += count) pushes[at] = injected[j];
      for (let i = 0, at = first * count + k; i < q.length; i++, at += count) pushes[at] = pushes[at] + q[i];
    });
    const isWhole = sources.some(({ injected }) => injected !== null);
    if (isWhole) {
      room.add(UNITS, count, outputs, FLEXIBILITY, PUSHES, n);
      return;
    }
    // A push on one spring: six rows do.
    sources.forEach(({ first, q }, k) => {
      for (let i = 0; i < q.length; i++)
        for (let o = 0, at = k * outputs, c = (first + i) * outputs; o < outputs; o++, at++, c++)
          units[at] = units[at] + q[i] * m[c];
    });
  }

  /** What springs do to outputs -= W_a' M_c, with M from springs to outputs. */
  private stiffen(a: number, room: ProductRoom): void {
    const { n } = this;
    const r = this.size[a];
    const { outputs } = this.condensed;
    const { [FLEXIBILITY]: m, [TAKEN]: taken, [ROWS]: w } = room.arrays;
    const c = this.first[a] * outputs;
    for (let i = 0; i < r * outputs; i++) taken[i] = -m[c + i];
    w.set(this.w.subarray(a * 6 * n, (a * 6 + r) * n));
    room.add(FLEXIBILITY, n, outputs, TAKEN, ROWS, r);
  }

  /** z += what action a pushed; out += what it pushed past the springs. */
  private addPushes(a: number, d: number, factor: number, z: Float64Array, out: Float64Array, at: number): void {
    const { n } = this;
    const { outputs } = this.condensed;
    for (const { first, q, injected, direct, sizes } of this.sources[a]) {
      const v = factor * sizes[d];
      if (v === 0) continue;
      for (let i = 0; i < q.length; i++) z[first + i] = z[first + i] + v * q[i];
      if (injected) for (let i = 0; i < n; i++) z[i] = z[i] + v * injected[i];
      if (direct) for (let o = 0; o < outputs; o++) out[at + o] = out[at + o] + v * direct[o];
    }
  }

  /** z -= E_c (W_a z). */
  turnBack(a: number, z: Float64Array): void {
    const { n, w, g } = this;
    const r = this.size[a];
    const c = this.first[a];
    for (let i = 0; i < r; i++) {
      const row = (a * 6 + i) * n;
      let sum = 0;
      for (let j = 0; j < n; j++) sum += w[row + j] * z[j];
      g[i] = sum;
    }
    for (let i = 0; i < r; i++) z[c + i] = z[c + i] - g[i];
  }

  /** out += S_out(0) z. */
  addOutputs(z: Float64Array, out: Float64Array, at: number): void {
    const { n } = this;
    const { outputs, rows, springColumns, start } = this.condensed;
    for (let j = 0, c = springColumns; j < n; j++, c += rows) {
      const by = z[j];
      for (let o = 0; o < outputs; o++) out[at + o] = out[at + o] + by * start[c + o];
    }
  }
}
