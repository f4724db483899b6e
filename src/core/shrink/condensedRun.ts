import { luSolve, matVec } from "../numeric";
import type { Action, Programme, RingAction } from "./actions";
import type { Condensed } from "./condensed";
import { type Draws, NO_DRAWS } from "./draws";
import { LocalYield } from "./localYield";
import type { ModelJoint } from "./mechanicalModel";

/** Actions between two chances to stop. */
const ACTIONS_AT_ONCE = 2;

/** A clamp or strongback that is on, with the place that it holds in each draw. */
interface Attached {
  matrix: Float64Array;
  reference: Float64Array;
}

/** The state after some actions of an order. */
export interface Snapshot {
  done: number;
  s: Float64Array;
  total: Float64Array[];
  place: Float64Array;
  tacks: Float64Array;
  attached: Map<number, Attached>;
}

/**
 * Works through steps on a condensed frame. Every tack and bead is an update of rank 6 of the springs' own flexibility S,
 * of which only the lower half is kept; nothing is allocated per step. What steps pushed is gathered backwards: with
 * S_out(k) = S_out(k-1) (I - E_c W_k) the outputs are S_out(0) z, z = (I - E_c W_k)(E_c q_k + h_k + z) taken from the last
 * step to the first. A load l of size V on a member enters as h = -D S_l(0) V, with D what all springs gained by then, and
 * directly as S_out,l(0) V. Equal to the plain path to rounding (Woodbury's identity).
 */
export class CondensedRun {
  /** Outputs of each draw, one after the other. */
  readonly out: Float64Array;
  /** Tension in the tack of each line of each joint, of each draw, N. */
  readonly tacks: Float64Array;
  /** Lines that yielded in the last action, nominal draw, as bits. */
  yielded = 0;
  private readonly n: number;
  private s: Float64Array;
  private readonly s0: Float64Array;
  private total: Float64Array[];
  private place: Float64Array;
  private attached = new Map<number, Attached>();
  private readonly held: number;
  private readonly local = new LocalYield();
  private readonly f = new Float64Array(36);
  private readonly m = new Float64Array(36);
  private readonly g = new Float64Array(36);
  private readonly u: Float64Array;
  private readonly q = new Float64Array(6);
  private readonly pull = new Float64Array(6);
  private readonly z: Float64Array;
  /** Per action: its six rows W, the loads it pushed with, what loads add. Room grows with the longest order. */
  private w = new Float64Array(0);
  private pushes = new Float64Array(0);
  private injected = new Float64Array(0);
  private volumes = new Float64Array(0);
  private loadOf = new Int32Array(0);
  private first = new Int32Array(0);
  private size = new Int32Array(0);
  private share = new Float64Array(0);
  private room = 0;

  constructor(
    readonly condensed: Condensed,
    readonly draws: Draws = NO_DRAWS,
    /** Whether beads and tacks yield. */
    private readonly limited = true,
  ) {
    const { springColumns: n, columns, model, start, springs } = condensed;
    this.n = n;
    this.s0 = new Float64Array(n * n);
    for (let i = 0; i < n; i++) for (let j = 0; j <= i; j++) this.s0[i * n + j] = start[i * columns + j] as number;
    this.s = this.s0.slice();
    this.total = springs.map((spring) => new Float64Array(spring.rows.length ** 2));
    this.held = n - 6 * model.joints.length;
    this.place = new Float64Array(draws.count * this.held);
    this.tacks = new Float64Array(draws.count * 4 * model.joints.length);
    this.out = new Float64Array(draws.count * condensed.outputs);
    this.u = new Float64Array(6 * n);
    this.z = new Float64Array(n);
  }

  /** Back to the fitted frame. */
  reset(): void {
    this.s.set(this.s0);
    for (const t of this.total) t.fill(0);
    this.place.fill(0);
    this.tacks.fill(0);
    this.attached = new Map();
  }

  snapshot(done: number): Snapshot {
    return {
      done,
      s: this.s.slice(),
      total: this.total.map((t) => t.slice()),
      place: this.place.slice(),
      tacks: this.tacks.slice(),
      attached: copied(this.attached),
    };
  }

  restore(kept: Snapshot): void {
    this.s.set(kept.s);
    kept.total.forEach((t, i) => {
      this.total[i]?.set(t);
    });
    this.place.set(kept.place);
    this.tacks.set(kept.tacks);
    this.attached = copied(kept.attached);
  }

  /** Works through a whole order, with chances to stop. @returns the outputs. */
  *whole(plan: Programme, after?: (action: number) => void): Generator<number, Float64Array> {
    const n = plan.actions.length;
    for (let from = 0; from < n; from += ACTIONS_AT_ONCE) {
      this.forward(plan, from, Math.min(n, from + ACTIONS_AT_ONCE), after);
      yield from / n;
    }
    for (let d = 0; d < this.draws.count; d++) {
      this.gatherDraw(n, d);
      yield 1;
    }
    return this.out;
  }

  /** Works through actions `from` to `to`; what was recorded of those before `from` must be of the same order. */
  forward(plan: Programme, from: number, to: number, after?: (action: number) => void): void {
    this.makeRoom(plan.actions.length);
    for (let a = from; a < to; a++) {
      this.first[a] = 0;
      this.size[a] = 0;
      this.loadOf[a] = -1;
      this.share[a] = 1;
      this.yielded = 0;
      const action = plan.actions[a] as Action;
      switch (action.kind) {
        case "ring":
          this.weld(a, action, plan.steps[plan.stepOf[a] as number]?.id ?? "");
          break;
        case "load":
          for (let d = 0; d < this.draws.count; d++) this.volumes[a * this.draws.count + d] = action.size;
          this.inject(a, action.column);
          break;
        case "attach":
          this.attach(a, action);
          break;
        case "detach":
          this.detach(a, action.spring);
          break;
        case "scale":
          this.share[a] = action.share;
          for (let i = 0; i < this.place.length; i++) this.place[i] = (this.place[i] as number) * action.share;
          this.tacks.fill(0);
          for (const [spring, on] of this.attached) this.readPlaces(spring, on.reference);
          break;
        case "nothing":
          break;
      }
      after?.(a);
    }
  }

  /** Gathers the outputs of `count` actions that forward has done. */
  gather(count: number): Float64Array {
    for (let d = 0; d < this.draws.count; d++) this.gatherDraw(count, d);
    return this.out;
  }

  private gatherDraw(count: number, d: number): void {
    const { n, z, out, condensed } = this;
    const { outputs } = condensed;
    const at = d * outputs;
    z.fill(0);
    out.fill(0, at, at + outputs);
    let factor = 1;
    for (let a = count - 1; a >= 0; a--) {
      const share = this.share[a] as number;
      if (share !== 1) {
        factor *= share;
        continue;
      }
      this.addPush(a, d, factor, z, out, at);
      this.turnBack(a, z);
    }
    this.addOutputs(z, out, at, n);
  }

  /** z += what action a pushed; out += what it pushed past the springs. */
  private addPush(a: number, d: number, factor: number, z: Float64Array, out: Float64Array, at: number): void {
    const { n, condensed, draws } = this;
    const { outputs, columns, springColumns, start } = condensed;
    const load = this.loadOf[a] as number;
    if (load >= 0) {
      const v = factor * (this.volumes[a * draws.count + d] as number);
      for (let i = 0; i < n; i++) z[i] = (z[i] as number) + v * (this.injected[a * n + i] as number);
      for (let o = 0; o < outputs; o++)
        out[at + o] =
          (out[at + o] as number) + v * (start[(springColumns + o) * columns + springColumns + load] as number);
    }
    const r = this.size[a] as number;
    const c = this.first[a] as number;
    for (let i = 0; i < r; i++)
      z[c + i] = (z[c + i] as number) + factor * (this.pushes[(a * draws.count + d) * 6 + i] as number);
  }

  /** z -= E_c (W_a z). */
  private turnBack(a: number, z: Float64Array): void {
    const { n, w, q } = this;
    const r = this.size[a] as number;
    const c = this.first[a] as number;
    for (let i = 0; i < r; i++) {
      const row = (a * 6 + i) * n;
      let sum = 0;
      for (let j = 0; j < n; j++) sum += (w[row + j] as number) * (z[j] as number);
      q[i] = sum;
    }
    for (let i = 0; i < r; i++) z[c + i] = (z[c + i] as number) - (q[i] as number);
  }

  /** out += S_out(0) z. */
  private addOutputs(z: Float64Array, out: Float64Array, at: number, n: number): void {
    const { outputs, columns, springColumns, start } = this.condensed;
    for (let o = 0; o < outputs; o++) {
      const row = (springColumns + o) * columns;
      let sum = out[at + o] as number;
      for (let j = 0; j < n; j++) sum += (start[row + j] as number) * (z[j] as number);
      out[at + o] = sum;
    }
  }

  /**
   * Outputs of the nominal draw after every action that forward has done, with chances to stop.
   * @param each is given the action and its outputs; the array is used again.
   */
  *history(count: number, each: (action: number, out: Float64Array) => void): Generator<number, void> {
    const out = new Float64Array(this.condensed.outputs);
    for (let a = 0; a < count; a++) {
      const share = this.share[a] as number;
      if (share !== 1) for (let o = 0; o < out.length; o++) out[o] = (out[o] as number) * share;
      else if ((this.size[a] as number) > 0 || (this.loadOf[a] as number) >= 0) {
        this.z.fill(0);
        this.addPush(a, 0, 1, this.z, out, 0);
        for (let k = a; k >= 0; k--) this.turnBack(k, this.z);
        this.addOutputs(this.z, out, 0, this.n);
      }
      each(a, out);
      yield a / count;
    }
  }

  /**
   * Flexibility as it stands after `count` actions: of the joints' own blocks, from joints to outputs, from loads to outputs.
   * @param joint which joint. @returns its 6 x 6 block, then six values per output.
   */
  frozenJoint(joint: number, count: number): Float64Array {
    const { condensed, f, z, n } = this;
    const { outputs, offset } = condensed;
    const c = offset[joint] as number;
    const block = new Float64Array(36 + 6 * outputs);
    this.block(c, 6, f);
    block.set(f);
    const column = new Float64Array(outputs);
    for (let i = 0; i < 6; i++) {
      z.fill(0);
      z[c + i] = 1;
      for (let k = count - 1; k >= 0; k--) this.turnBack(k, z);
      column.fill(0);
      this.addOutputs(z, column, 0, n);
      for (let o = 0; o < outputs; o++) block[36 + 6 * o + i] = column[o] as number;
    }
    return block;
  }

  /** From one load to the outputs, as frozenJoint. */
  frozenLoad(load: number, count: number): Float64Array {
    const { condensed, z, n } = this;
    const { outputs, columns, springColumns, start } = condensed;
    const out = new Float64Array(outputs);
    for (let o = 0; o < outputs; o++) out[o] = start[(springColumns + o) * columns + springColumns + load] as number;
    this.gainedBy(load, z, 0);
    for (let k = count - 1; k >= 0; k--) this.turnBack(k, z);
    this.addOutputs(z, out, 0, n);
    return out;
  }

  /** Pull of each clamp that is on, nominal draw, N: by the spring's id. */
  clampForces(): { id: string; forceN: number }[] {
    const { offset, springs } = this.condensed;
    return [...this.attached].flatMap(([spring, on]) => {
      if (on.matrix.length !== 1) return [];
      const here = this.place[(offset[spring] as number) - (this.n - this.held)] as number;
      return [
        { id: springs[spring]?.id ?? "", forceN: (on.matrix[0] as number) * (here - (on.reference[0] as number)) },
      ];
    });
  }

  private makeRoom(actions: number): void {
    if (actions <= this.room) return;
    const { n, draws } = this;
    const grow = (old: Float64Array, size: number): Float64Array<ArrayBuffer> => {
      const made = new Float64Array(size);
      made.set(old);
      return made;
    };
    this.w = grow(this.w, actions * 6 * n);
    this.pushes = grow(this.pushes, actions * draws.count * 6);
    this.injected = grow(this.injected, actions * n);
    this.volumes = grow(this.volumes, actions * draws.count);
    this.share = grow(this.share, actions);
    for (const name of ["loadOf", "first", "size"] as const) {
      const made = new Int32Array(actions);
      made.set(this[name]);
      this[name] = made;
    }
    this.room = actions;
  }

  private weld(a: number, action: RingAction, id: string): void {
    const { condensed, draws, local, f, q } = this;
    const { offset, model } = condensed;
    const c = offset[action.spring] as number;
    this.mark(a, c, 6);
    if (action.delta) {
      this.gain(action.spring, action.delta);
      this.update(a, c, 6, action.delta);
    } else this.w.fill(0, a * 6 * this.n, (a + 1) * 6 * this.n);
    this.block(c, 6, f);
    local.prepare(action, f);
    const joint = model.joints[action.spring] as ModelJoint;
    const own = draws.bead(id);
    const unfitted = joint.unfitted.length > 0 ? draws.joint(joint.id) : null;
    const closing = draws.shared(action.closingFactors);
    const volume = draws.shared(action.chordFactors);
    const stride = 4 * model.joints.length;
    for (let d = 0; d < draws.count; d++) {
      const scatter = (own[d] as number) * (unfitted ? (unfitted[d] as number) : 1);
      const mm = action.closingMm * (closing[d] as number) * scatter;
      if (this.limited) local.solve(action, mm, this.tacks, d * stride + 4 * action.spring);
      else local.free(action, mm);
      if (d === 0) this.yielded = this.limited ? local.yielded : 0;
      matVec(action.ring.x, local.load, 6, 6, q);
      this.pushed(a, d, c, 6);
      this.volumes[a * draws.count + d] = action.chordMm3 * (volume[d] as number) * scatter;
    }
    if (action.chordColumn >= 0) this.inject(a, action.chordColumn);
  }

  private attach(a: number, action: Extract<Action, { kind: "attach" }>): void {
    const { condensed, draws, pull, q } = this;
    const c = condensed.offset[action.spring] as number;
    const r = (condensed.offset[action.spring + 1] as number) - c;
    this.mark(a, c, r);
    this.gain(action.spring, action.matrix);
    this.update(a, c, r, action.matrix);
    const reference = new Float64Array(draws.count * r);
    this.readPlaces(action.spring, reference);
    this.attached.set(action.spring, { matrix: action.matrix, reference });
    for (let d = 0; d < draws.count; d++) {
      for (let i = 0; i < r; i++) {
        const here = reference[d * r + i] as number;
        const there = (action.toMm ?? here) + action.byMm;
        pull[i] = there - here;
        reference[d * r + i] = there;
      }
      matVec(action.matrix, pull, r, r, q);
      this.pushed(a, d, c, r);
    }
  }

  private detach(a: number, spring: number): void {
    const { condensed, draws, pull, q } = this;
    const on = this.attached.get(spring);
    if (!on) return;
    this.attached.delete(spring);
    const c = condensed.offset[spring] as number;
    const r = (condensed.offset[spring + 1] as number) - c;
    const here = new Float64Array(draws.count * r);
    this.readPlaces(spring, here);
    this.mark(a, c, r);
    const off = on.matrix.map((v) => -v);
    this.gain(spring, off);
    this.update(a, c, r, off);
    for (let d = 0; d < draws.count; d++) {
      for (let i = 0; i < r; i++) pull[i] = (here[d * r + i] as number) - (on.reference[d * r + i] as number);
      matVec(on.matrix, pull, r, r, q);
      this.pushed(a, d, c, r);
    }
  }

  private mark(a: number, c: number, r: number): void {
    this.first[a] = c;
    this.size[a] = r;
  }

  private gain(spring: number, d: Float64Array): void {
    const total = this.total[spring] as Float64Array;
    for (let i = 0; i < total.length; i++) total[i] = (total[i] as number) + (d[i] as number);
  }

  /** Records the load in `q` and moves what is tracked by it. */
  private pushed(a: number, d: number, c: number, r: number): void {
    const { q, held, n, s, place } = this;
    const at = (a * this.draws.count + d) * 6;
    for (let i = 0; i < r; i++) this.pushes[at + i] = q[i] as number;
    for (let h = 0; h < held; h++) {
      const row = n - held + h;
      let sum = place[d * held + h] as number;
      for (let i = 0; i < r; i++)
        sum += (q[i] as number) * (s[row >= c + i ? row * n + c + i : (c + i) * n + row] as number);
      place[d * held + h] = sum;
    }
  }

  /** -D S_l(0): what a load of size one pushes back through the springs that were gained by now. */
  private gainedBy(load: number, into: Float64Array, at: number): void {
    const { offset, columns, start, springColumns, springs } = this.condensed;
    const column = springColumns + load;
    for (let k = 0; k < springs.length; k++) {
      const c = offset[k] as number;
      const r = (offset[k + 1] as number) - c;
      const d = this.total[k] as Float64Array;
      for (let i = 0; i < r; i++) {
        let sum = 0;
        for (let j = 0; j < r; j++) sum += (d[i * r + j] as number) * (start[(c + j) * columns + column] as number);
        into[at + c + i] = -sum;
      }
    }
  }

  /** A load on the members; what is tracked moves by S_vl(0) + S_v h, with S as it is now. */
  private inject(a: number, load: number): void {
    const { condensed, injected, n, held, s, place, volumes, draws } = this;
    const { columns, start, springColumns } = condensed;
    this.loadOf[a] = load;
    this.gainedBy(load, injected, a * n);
    for (let h = 0; h < held; h++) {
      const v = n - held + h;
      let sum = start[v * columns + springColumns + load] as number;
      for (let j = 0; j < n; j++)
        sum += (s[j <= v ? v * n + j : j * n + v] as number) * (injected[a * n + j] as number);
      for (let d = 0; d < draws.count; d++)
        place[d * held + h] = (place[d * held + h] as number) + (volumes[a * draws.count + d] as number) * sum;
    }
  }

  private readPlaces(spring: number, into: Float64Array): void {
    const { offset } = this.condensed;
    const c = offset[spring] as number;
    const r = (offset[spring + 1] as number) - c;
    const from = c - (this.n - this.held);
    for (let d = 0; d < this.draws.count; d++)
      for (let i = 0; i < r; i++) into[d * r + i] = this.place[d * this.held + from + i] as number;
  }

  /** The r x r block at c of the symmetric matrix. */
  private block(c: number, r: number, into: Float64Array): void {
    const { s, n } = this;
    for (let i = 0; i < r; i++)
      for (let j = 0; j <= i; j++) {
        const v = s[(c + i) * n + c + j] as number;
        into[i * r + j] = v;
        into[j * r + i] = v;
      }
  }

  /** S -= U W with U = S_c, W = (I + D S_cc)^-1 D U^T, on the lower half, two rows at a time. */
  private update(a: number, c: number, r: number, d: Float64Array): void {
    const { s, n, m, g, u, w, f } = this;
    this.block(c, r, f);
    for (let i = 0; i < r; i++)
      for (let j = 0; j < r; j++) {
        let sum = i === j ? 1 : 0;
        for (let k = 0; k < r; k++) sum += (d[i * r + k] as number) * (f[k * r + j] as number);
        m[i * r + j] = sum;
      }
    for (let i = 0; i < r * r; i++) g[i] = d[i] as number;
    luSolve(m, g, r, r);
    for (let k = 0; k < 6; k++) {
      if (k >= r) {
        u.fill(0, k * n, (k + 1) * n);
        continue;
      }
      const row = (c + k) * n;
      for (let j = 0; j <= c + k; j++) u[k * n + j] = s[row + j] as number;
      for (let j = c + k + 1; j < n; j++) u[k * n + j] = s[j * n + c + k] as number;
    }
    const base = a * 6 * n;
    for (let i = 0; i < 6; i++) {
      const row = base + i * n;
      if (i >= r) {
        w.fill(0, row, row + n);
        continue;
      }
      for (let j = 0; j < n; j++) {
        let sum = 0;
        for (let k = 0; k < r; k++) sum += (g[i * r + k] as number) * (u[k * n + j] as number);
        w[row + j] = sum;
      }
    }
    if (r === 1) this.lowerOne(base);
    else this.lowerSix(base);
  }

  private lowerOne(base: number): void {
    const { s, n, u, w } = this;
    for (let i = 0; i < n; i++) {
      const ui = u[i] as number;
      for (let j = 0; j <= i; j++) s[i * n + j] = (s[i * n + j] as number) - ui * (w[base + j] as number);
    }
  }

  private lowerSix(base: number): void {
    const { s, n, u, w } = this;
    const [n1, n2, n3, n4, n5] = [n, 2 * n, 3 * n, 4 * n, 5 * n] as [number, number, number, number, number];
    const [b1, b2, b3, b4, b5] = [base + n, base + n2, base + n3, base + n4, base + n5];
    let i = 0;
    for (; i + 1 < n; i += 2) {
      const p = i * n;
      const q = p + n;
      const u0 = u[i] as number;
      const u1 = u[n1 + i] as number;
      const u2 = u[n2 + i] as number;
      const u3 = u[n3 + i] as number;
      const u4 = u[n4 + i] as number;
      const u5 = u[n5 + i] as number;
      const v0 = u[i + 1] as number;
      const v1 = u[n1 + i + 1] as number;
      const v2 = u[n2 + i + 1] as number;
      const v3 = u[n3 + i + 1] as number;
      const v4 = u[n4 + i + 1] as number;
      const v5 = u[n5 + i + 1] as number;
      // The entry above the diagonal of the first row is written too; nothing reads it.
      for (let j = 0; j <= i + 1; j++) {
        const w0 = w[base + j] as number;
        const w1 = w[b1 + j] as number;
        const w2 = w[b2 + j] as number;
        const w3 = w[b3 + j] as number;
        const w4 = w[b4 + j] as number;
        const w5 = w[b5 + j] as number;
        s[p + j] = (s[p + j] as number) - (u0 * w0 + u1 * w1 + u2 * w2 + u3 * w3 + u4 * w4 + u5 * w5);
        s[q + j] = (s[q + j] as number) - (v0 * w0 + v1 * w1 + v2 * w2 + v3 * w3 + v4 * w4 + v5 * w5);
      }
    }
    for (; i < n; i++)
      for (let j = 0; j <= i; j++) {
        let sum = 0;
        for (let k = 0; k < 6; k++) sum += (u[k * n + i] as number) * (w[base + k * n + j] as number);
        s[i * n + j] = (s[i * n + j] as number) - sum;
      }
  }
}

const copied = (attached: Map<number, Attached>): Map<number, Attached> =>
  new Map([...attached].map(([k, v]) => [k, { ...v, reference: v.reference.slice() }]));
