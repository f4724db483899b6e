import type { Condensed } from "./condensed";

/**
 * What every action of an order did to the springs, kept so that outputs can be gathered backwards: its rows W, the loads
 * that it pushed with in each draw, what a load on a member adds. See LowRankRun for the algebra.
 */
export class ActionRecord {
  private readonly n: number;
  private readonly z: Float64Array;
  private readonly q = new Float64Array(6);
  /** Per action: its six rows W, the loads it pushed with, what loads add. Room grows with the longest order. */
  w = new Float64Array(0);
  pushes = new Float64Array(0);
  injected = new Float64Array(0);
  volumes = new Float64Array(0);
  loadOf = new Int32Array(0);
  first = new Int32Array(0);
  size = new Int32Array(0);
  share = new Float64Array(0);
  private room = 0;

  /** @param draws how many. */
  constructor(
    private readonly condensed: Condensed,
    private readonly draws: number,
  ) {
    this.n = condensed.springColumns;
    this.z = new Float64Array(this.n);
  }

  makeRoom(actions: number): void {
    if (actions <= this.room) return;
    const { n, draws } = this;
    const grow = (old: Float64Array, size: number): Float64Array<ArrayBuffer> => {
      const made = new Float64Array(size);
      made.set(old);
      return made;
    };
    this.w = grow(this.w, actions * 6 * n);
    this.pushes = grow(this.pushes, actions * draws * 6);
    this.injected = grow(this.injected, actions * n);
    this.volumes = grow(this.volumes, actions * draws);
    this.share = grow(this.share, actions);
    for (const name of ["loadOf", "first", "size"] as const) {
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
    this.loadOf[a] = -1;
    this.share[a] = share;
  }

  /** Outputs of one draw after `count` actions, into its place in `out`. */
  gather(count: number, d: number, out: Float64Array): void {
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
      this.addPush(a, d, factor, z, out, at);
      this.turnBack(a, z);
    }
    this.addOutputs(z, out, at);
  }

  /** z += what action a pushed; out += what it pushed past the springs. */
  private addPush(a: number, d: number, factor: number, z: Float64Array, out: Float64Array, at: number): void {
    const { n, condensed, draws } = this;
    const { outputs, columns, springColumns, start } = condensed;
    const load = this.loadOf[a];
    if (load >= 0) {
      const v = factor * this.volumes[a * draws + d];
      for (let i = 0; i < n; i++) z[i] = z[i] + v * this.injected[a * n + i];
      for (let o = 0; o < outputs; o++)
        out[at + o] = out[at + o] + v * start[(springColumns + o) * columns + springColumns + load];
    }
    const r = this.size[a];
    const c = this.first[a];
    for (let i = 0; i < r; i++) z[c + i] = z[c + i] + factor * this.pushes[(a * draws + d) * 6 + i];
  }

  /** z -= E_c (W_a z). */
  turnBack(a: number, z: Float64Array): void {
    const { n, w, q } = this;
    const r = this.size[a];
    const c = this.first[a];
    for (let i = 0; i < r; i++) {
      const row = (a * 6 + i) * n;
      let sum = 0;
      for (let j = 0; j < n; j++) sum += w[row + j] * z[j];
      q[i] = sum;
    }
    for (let i = 0; i < r; i++) z[c + i] = z[c + i] - q[i];
  }

  /** out += S_out(0) z. */
  addOutputs(z: Float64Array, out: Float64Array, at: number): void {
    const { n } = this;
    const { outputs, columns, springColumns, start } = this.condensed;
    for (let o = 0; o < outputs; o++) {
      const row = (springColumns + o) * columns;
      let sum = out[at + o];
      for (let j = 0; j < n; j++) sum += start[row + j] * z[j];
      out[at + o] = sum;
    }
  }

  /**
   * Outputs of the nominal draw after every action that was recorded, with chances to stop.
   * @param each is given the action and its outputs; the array is used again.
   */
  *history(count: number, each: (action: number, out: Float64Array) => void): Generator<number, void> {
    const out = new Float64Array(this.condensed.outputs);
    for (let a = 0; a < count; a++) {
      const share = this.share[a];
      if (share !== 1) for (let o = 0; o < out.length; o++) out[o] = out[o] * share;
      else if (this.size[a] > 0 || this.loadOf[a] >= 0) {
        this.z.fill(0);
        this.addPush(a, 0, 1, this.z, out, 0);
        for (let k = a; k >= 0; k--) this.turnBack(k, this.z);
        this.addOutputs(this.z, out, 0);
      }
      each(a, out);
      yield a / count;
    }
  }
}
