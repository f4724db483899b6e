import type { Condensed } from "./condensed";
import { sizedRoomFor } from "./sized";

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
    const m = new Float64Array(outputs * n);
    for (let o = 0; o < outputs; o++) for (let j = 0; j < n; j++) m[o * n + j] = start[j * rows + springColumns + o];
    let units = new Float64Array(0);
    out.fill(0, 0, draws * outputs);
    for (let a = 0; a < count; a++) {
      const share = this.share[a];
      if (share !== 1) for (let i = 0; i < draws * outputs; i++) out[i] = out[i] * share;
      else {
        this.stiffen(a, m);
        const sources = this.sources[a];
        if (units.length < sources.length * outputs) units = new Float64Array(2 * sources.length * outputs);
        this.unitsOf(sources, m, units);
        addTimes(sources, units, outputs, draws, out);
      }
      each?.(a, out);
      yield a / count;
    }
  }

  /** What each source moves the outputs by per unit, one row each. @param m flexibility from springs to outputs as it stands. */
  private unitsOf(sources: readonly Source[], m: Float64Array, units: Float64Array): void {
    const { n } = this;
    const { outputs } = this.condensed;
    const injected: { h: Float64Array; at: number }[] = [];
    sources.forEach(({ first, q, injected: h, direct }, k) => {
      const at = k * outputs;
      for (let o = 0; o < outputs; o++) {
        let sum = direct ? direct[o] : 0;
        for (let i = 0, c = o * n + first; i < q.length; i++, c++) sum += m[c] * q[i];
        units[at + o] = sum;
      }
      if (h) injected.push({ h, at });
    });
    // Up to four at a time: each entry of M is read once for all four.
    let k = 0;
    for (; k + 3 < injected.length; k += 4) {
      const [a, b, c, d] = [injected[k], injected[k + 1], injected[k + 2], injected[k + 3]];
      const [ha, hb, hc, hd] = [a.h, b.h, c.h, d.h];
      for (let o = 0; o < outputs; o++) {
        let sa = 0;
        let sb = 0;
        let sc = 0;
        let sd = 0;
        for (let j = 0, at = o * n; j < n; j++, at++) {
          const v = m[at];
          sa += v * ha[j];
          sb += v * hb[j];
          sc += v * hc[j];
          sd += v * hd[j];
        }
        units[a.at + o] = units[a.at + o] + sa;
        units[b.at + o] = units[b.at + o] + sb;
        units[c.at + o] = units[c.at + o] + sc;
        units[d.at + o] = units[d.at + o] + sd;
      }
    }
    for (; k < injected.length; k++) {
      const { h, at: to } = injected[k];
      for (let o = 0; o < outputs; o++) {
        let sum = 0;
        for (let j = 0, at = o * n; j < n; j++, at++) sum += m[at] * h[j];
        units[to + o] = units[to + o] + sum;
      }
    }
  }

  /** M -= M_c W_a. */
  private stiffen(a: number, m: Float64Array): void {
    const { n, w } = this;
    const r = this.size[a];
    const c = this.first[a];
    const { outputs } = this.condensed;
    const w0 = a * 6 * n;
    const [w1, w2, w3, w4, w5] = [w0 + n, w0 + 2 * n, w0 + 3 * n, w0 + 4 * n, w0 + 5 * n];
    for (let o = 0; o < outputs; o++) {
      const row = o * n;
      if (r < 6) {
        for (let i = 0; i < r; i++) this.g[i] = m[row + c + i];
        for (let i = 0; i < r; i++) {
          const from = w0 + i * n;
          const v = this.g[i];
          for (let j = 0; j < n; j++) m[row + j] = m[row + j] - v * w[from + j];
        }
        continue;
      }
      const at = row + c;
      const [v0, v1, v2, v3, v4, v5] = [m[at], m[at + 1], m[at + 2], m[at + 3], m[at + 4], m[at + 5]];
      for (let j = 0; j < n; j++)
        m[row + j] =
          m[row + j] -
          (v0 * w[w0 + j] + v1 * w[w1 + j] + v2 * w[w2 + j] + v3 * w[w3 + j] + v4 * w[w4 + j] + v5 * w[w5 + j]);
    }
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

/** out (draws x outputs) += sizes' units. */
function addTimes(
  sources: readonly Source[],
  units: Float64Array,
  outputs: number,
  draws: number,
  out: Float64Array,
): void {
  const room = sizedRoomFor({
    out: draws * outputs,
    units: sources.length * outputs,
    sizes: sources.length * draws,
  });
  let k = 0;
  sources.forEach(({ sizes }, source) => {
    let any = false;
    for (let d = 0; d < draws && !any; d++) any = sizes[d] !== 0;
    if (!any) return;
    room.units.set(units.subarray(source * outputs, (source + 1) * outputs), k * outputs);
    room.sizes.set(sizes, k * draws);
    k++;
  });
  const used = room.out.subarray(0, draws * outputs);
  used.set(out.length === used.length ? out : out.subarray(0, used.length));
  room.add(draws, outputs, k);
  out.set(used);
}
