import { matVec } from "../numeric";
import { ActionRecord } from "./actionRecord";
import type { Condensed } from "./condensed";
import { type Action, type CompiledLoads, type Draws, NO_DRAWS, type RingAction } from "./loadActions";
import { LocalYield } from "./localYield";
import { PackedSymmetric } from "./packedSymmetric";

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
export class LowRankRun {
  /** Outputs of each draw, one after the other. */
  readonly out: Float64Array;
  /** Tension in the tack of each line of each joint, of each draw, N. */
  readonly tacks: Float64Array;
  /** Lines that yielded in the last action, nominal draw, as bits. */
  yielded = 0;
  private readonly n: number;
  /** Flexibility of the springs as it stands. */
  private readonly half: PackedSymmetric;
  private readonly fitted: Float64Array;
  private readonly record: ActionRecord;
  private readonly total: Float64Array[];
  private readonly place: Float64Array;
  private attached = new Map<number, Attached>();
  private readonly held: number;
  private readonly local = new LocalYield();
  private readonly f = new Float64Array(36);
  private readonly q = new Float64Array(6);
  private readonly pull = new Float64Array(6);
  private readonly z: Float64Array;

  constructor(
    readonly condensed: Condensed,
    readonly draws: Draws = NO_DRAWS,
    /** Whether beads and tacks yield. */
    private readonly limited = true,
  ) {
    const { springColumns: n, columns, model, start, springs } = condensed;
    this.n = n;
    this.fitted = new Float64Array(n * n);
    for (let i = 0; i < n; i++) for (let j = 0; j <= i; j++) this.fitted[i * n + j] = start[i * columns + j];
    this.half = new PackedSymmetric(n, this.fitted);
    this.record = new ActionRecord(condensed, draws.count);
    this.total = springs.map((spring) => new Float64Array(spring.rows.length ** 2));
    this.held = n - 6 * model.joints.length;
    this.place = new Float64Array(draws.count * this.held);
    this.tacks = new Float64Array(draws.count * 4 * model.joints.length);
    this.out = new Float64Array(draws.count * condensed.outputs);
    this.z = new Float64Array(n);
  }

  /** Back to the fitted frame. */
  reset(): void {
    this.half.s.set(this.fitted);
    for (const t of this.total) t.fill(0);
    this.place.fill(0);
    this.tacks.fill(0);
    this.attached = new Map();
  }

  snapshot(done: number): Snapshot {
    return {
      done,
      s: this.half.s.slice(),
      total: this.total.map((t) => t.slice()),
      place: this.place.slice(),
      tacks: this.tacks.slice(),
      attached: copied(this.attached),
    };
  }

  restore(kept: Snapshot): void {
    this.half.s.set(kept.s);
    kept.total.forEach((t, i) => {
      this.total[i]?.set(t);
    });
    this.place.set(kept.place);
    this.tacks.set(kept.tacks);
    this.attached = copied(kept.attached);
  }

  /** Works through a whole order, with chances to stop. @returns the outputs. */
  *whole(plan: CompiledLoads, after?: (action: number) => void): Generator<number, Float64Array> {
    const n = plan.actions.length;
    for (let from = 0; from < n; from += ACTIONS_AT_ONCE) {
      this.forward(plan, from, Math.min(n, from + ACTIONS_AT_ONCE), after);
      yield from / n;
    }
    for (let d = 0; d < this.draws.count; d++) {
      this.record.gather(n, d, this.out);
      yield 1;
    }
    return this.out;
  }

  /** Works through actions `from` to `to`; what was recorded of those before `from` must be of the same order. */
  forward(plan: CompiledLoads, from: number, to: number, after?: (action: number) => void): void {
    this.record.makeRoom(plan.actions.length);
    for (let a = from; a < to; a++) {
      this.record.begin(a);
      this.yielded = 0;
      const action = plan.actions[a];
      switch (action.kind) {
        case "ring":
          this.weld(a, action, plan.steps[plan.stepOf[a]]?.id ?? "");
          break;
        case "load":
          for (let d = 0; d < this.draws.count; d++) this.record.volumes[a * this.draws.count + d] = action.size;
          this.inject(a, action.column);
          break;
        case "attach":
          this.attach(a, action);
          break;
        case "detach":
          this.detach(a, action.spring);
          break;
        case "scale":
          this.record.begin(a, action.share);
          for (let i = 0; i < this.place.length; i++) this.place[i] = this.place[i] * action.share;
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
    for (let d = 0; d < this.draws.count; d++) this.record.gather(count, d, this.out);
    return this.out;
  }

  /** Outputs of the nominal draw after every action; see ActionRecord.history. */
  history(count: number, each: (action: number, out: Float64Array) => void): Generator<number, void> {
    return this.record.history(count, each);
  }

  /**
   * Flexibility as it stands after `count` actions: of the joints' own blocks, from joints to outputs, from loads to outputs.
   * @param joint which joint. @returns its 6 x 6 block, then six values per output.
   */
  frozenJoint(joint: number, count: number): Float64Array {
    const { condensed, f, z } = this;
    const { outputs, offset } = condensed;
    const c = offset[joint];
    const block = new Float64Array(36 + 6 * outputs);
    this.half.block(c, 6, f);
    block.set(f);
    const column = new Float64Array(outputs);
    for (let i = 0; i < 6; i++) {
      z.fill(0);
      z[c + i] = 1;
      for (let k = count - 1; k >= 0; k--) this.record.turnBack(k, z);
      column.fill(0);
      this.record.addOutputs(z, column, 0);
      for (let o = 0; o < outputs; o++) block[36 + 6 * o + i] = column[o];
    }
    return block;
  }

  /** From one load to the outputs, as frozenJoint. */
  frozenLoad(load: number, count: number): Float64Array {
    const { condensed, z } = this;
    const { outputs, columns, springColumns, start } = condensed;
    const out = new Float64Array(outputs);
    for (let o = 0; o < outputs; o++) out[o] = start[(springColumns + o) * columns + springColumns + load];
    this.gainedBy(load, z, 0);
    for (let k = count - 1; k >= 0; k--) this.record.turnBack(k, z);
    this.record.addOutputs(z, out, 0);
    return out;
  }

  /** Pull of each clamp that is on, nominal draw, N: by the spring's id. */
  clampForces(): { id: string; forceN: number }[] {
    const { offset, springs } = this.condensed;
    return [...this.attached].flatMap(([spring, on]) => {
      if (on.matrix.length !== 1) return [];
      const here = this.place[offset[spring] - (this.n - this.held)];
      return [{ id: springs[spring]?.id ?? "", forceN: on.matrix[0] * (here - on.reference[0]) }];
    });
  }

  private weld(a: number, action: RingAction, id: string): void {
    const { condensed, draws, local, f, q } = this;
    const { offset, model } = condensed;
    const c = offset[action.spring];
    this.record.first[a] = c;
    this.record.size[a] = 6;
    if (action.delta) {
      this.gain(action.spring, action.delta);
      this.half.update(c, 6, action.delta, this.record.w, a * 6 * this.n);
    } else this.record.w.fill(0, a * 6 * this.n, (a + 1) * 6 * this.n);
    this.half.block(c, 6, f);
    local.prepare(action, f);
    const own = draws.bead(id);
    const unfitted = action.unfitted === null ? null : draws.joint(action.unfitted);
    const closing = draws.shared(action.closingFactors);
    const volume = draws.shared(action.chordFactors);
    const stride = 4 * model.joints.length;
    for (let d = 0; d < draws.count; d++) {
      const scatter = own[d] * (unfitted ? unfitted[d] : 1);
      const mm = action.closingMm * closing[d] * scatter;
      if (this.limited) local.solve(action, mm, this.tacks, d * stride + 4 * action.spring);
      else local.free(action, mm);
      if (d === 0) this.yielded = this.limited ? local.yielded : 0;
      matVec(action.ring.x, local.load, 6, 6, q);
      this.pushed(a, d, c, 6);
      this.record.volumes[a * draws.count + d] = action.chordMm3 * volume[d] * scatter;
    }
    if (action.chordColumn >= 0) this.inject(a, action.chordColumn);
  }

  private attach(a: number, action: Extract<Action, { kind: "attach" }>): void {
    const { condensed, draws, pull, q } = this;
    const c = condensed.offset[action.spring];
    const r = condensed.offset[action.spring + 1] - c;
    this.record.first[a] = c;
    this.record.size[a] = r;
    this.gain(action.spring, action.matrix);
    this.half.update(c, r, action.matrix, this.record.w, a * 6 * this.n);
    const reference = new Float64Array(draws.count * r);
    this.readPlaces(action.spring, reference);
    this.attached.set(action.spring, { matrix: action.matrix, reference });
    for (let d = 0; d < draws.count; d++) {
      for (let i = 0; i < r; i++) {
        const here = reference[d * r + i];
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
    const c = condensed.offset[spring];
    const r = condensed.offset[spring + 1] - c;
    const here = new Float64Array(draws.count * r);
    this.readPlaces(spring, here);
    this.record.first[a] = c;
    this.record.size[a] = r;
    const off = on.matrix.map((v) => -v);
    this.gain(spring, off);
    this.half.update(c, r, off, this.record.w, a * 6 * this.n);
    for (let d = 0; d < draws.count; d++) {
      for (let i = 0; i < r; i++) pull[i] = here[d * r + i] - on.reference[d * r + i];
      matVec(on.matrix, pull, r, r, q);
      this.pushed(a, d, c, r);
    }
  }

  private gain(spring: number, d: Float64Array): void {
    const total = this.total[spring];
    for (let i = 0; i < total.length; i++) total[i] = total[i] + d[i];
  }

  /** Records the load in `q` and moves what is tracked by it. */
  private pushed(a: number, d: number, c: number, r: number): void {
    const { q, held, n, half, place } = this;
    const at = (a * this.draws.count + d) * 6;
    for (let i = 0; i < r; i++) this.record.pushes[at + i] = q[i];
    for (let h = 0; h < held; h++) {
      const row = n - held + h;
      let sum = place[d * held + h];
      for (let i = 0; i < r; i++) sum += q[i] * half.at(row, c + i);
      place[d * held + h] = sum;
    }
  }

  /** -D S_l(0): what a load of size one pushes back through the springs that were gained by now. */
  private gainedBy(load: number, into: Float64Array, at: number): void {
    const { offset, columns, start, springColumns, springs } = this.condensed;
    const column = springColumns + load;
    for (let k = 0; k < springs.length; k++) {
      const c = offset[k];
      const r = offset[k + 1] - c;
      const d = this.total[k];
      for (let i = 0; i < r; i++) {
        let sum = 0;
        for (let j = 0; j < r; j++) sum += d[i * r + j] * start[(c + j) * columns + column];
        into[at + c + i] = -sum;
      }
    }
  }

  /** A load on the members; what is tracked moves by S_vl(0) + S_v h, with S as it is now. */
  private inject(a: number, load: number): void {
    const { condensed, n, held, half, place, draws } = this;
    const { injected, volumes } = this.record;
    const { columns, start, springColumns } = condensed;
    this.record.loadOf[a] = load;
    this.gainedBy(load, injected, a * n);
    for (let h = 0; h < held; h++) {
      const v = n - held + h;
      let sum = start[v * columns + springColumns + load];
      for (let j = 0; j < n; j++) sum += half.at(v, j) * injected[a * n + j];
      for (let d = 0; d < draws.count; d++)
        place[d * held + h] = place[d * held + h] + volumes[a * draws.count + d] * sum;
    }
  }

  private readPlaces(spring: number, into: Float64Array): void {
    const { offset } = this.condensed;
    const c = offset[spring];
    const r = offset[spring + 1] - c;
    const from = c - (this.n - this.held);
    for (let d = 0; d < this.draws.count; d++)
      for (let i = 0; i < r; i++) into[d * r + i] = this.place[d * this.held + from + i];
  }
}

const copied = (attached: Map<number, Attached>): Map<number, Attached> =>
  new Map([...attached].map(([k, v]) => [k, { ...v, reference: v.reference.slice() }]));
