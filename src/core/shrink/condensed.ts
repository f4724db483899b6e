import { luSolve, matVec, type Sparse, sparseDot } from "../numeric";
import { BaseSolver } from "./baseSolver";
import { type Draws, NO_DRAWS } from "./draws";
import { LocalYield } from "./localYield";
import type { MechanicalModel, ModelJoint } from "./mechanicalModel";
import type { Action, Programme, RingAction, Spring } from "./programme";

/**
 * A frame condensed to what the steps touch: movement of springs and outputs per unit of spring force and load, before
 * any tack. Rows: springs, then outputs. Columns: springs, then loads. Made once; every order starts from it.
 */
export interface Condensed {
  model: MechanicalModel;
  springs: readonly Spring[];
  /** First row and column of each spring, and their end. */
  offset: Int32Array;
  springColumns: number;
  loadColumns: number;
  outputs: number;
  rows: number;
  columns: number;
  start: Float64Array;
}

/** Columns solved between two chances to stop. */
const COLUMNS_AT_ONCE = 16;

/**
 * Condenses a frame, with chances to stop on the way.
 * @param plan a programme that names every spring and load that will be used. @param outputs rows over the freedoms.
 * @throws RangeError when the frame is not held together.
 */
export function* condensing(
  plan: Pick<Programme, "model" | "springs" | "loads">,
  outputs: readonly Sparse[],
): Generator<number, Condensed> {
  const { model, springs, loads } = plan;
  const solver = new BaseSolver(model);
  const offset = new Int32Array(springs.length + 1);
  springs.forEach((s, i) => {
    offset[i + 1] = (offset[i] as number) + s.rows.length;
  });
  const springColumns = offset[springs.length] as number;
  const columns = springColumns + loads.length;
  const springRows = springs.flatMap((s) => s.rows);
  const all = [...springRows, ...outputs];
  const start = new Float64Array(all.length * columns);
  for (const [j, load] of [...springRows, ...loads].entries()) {
    const x = solver.solve(load);
    for (let i = 0; i < all.length; i++) start[i * columns + j] = sparseDot(all[i] as Sparse, x);
    if (j % COLUMNS_AT_ONCE === 0) yield j / columns;
  }
  return {
    model,
    springs: [...springs],
    offset,
    springColumns,
    loadColumns: loads.length,
    outputs: outputs.length,
    rows: all.length,
    columns,
    start,
  };
}

/** Runs a generator to its end. */
export function drain<T>(work: Generator<unknown, T>): T {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

/** Condenses a frame in one go. See `condensing`. */
export const condense = (plan: Pick<Programme, "model" | "springs" | "loads">, outputs: readonly Sparse[]): Condensed =>
  drain(condensing(plan, outputs));

/** A clamp or strongback that is on, with the place that it holds in each draw. */
interface Attached {
  matrix: Float64Array;
  reference: Float64Array;
}

/** Everything that changes while steps are worked through, kept at one point of an order. */
export interface Snapshot {
  /** Actions done. */
  done: number;
  s: Float64Array;
  out: Float64Array;
  place: Float64Array;
  tacks: Float64Array;
  attached: Map<number, Attached>;
}

/** What is asked of a run. */
export interface RunOptions {
  /** Whether beads and tacks yield. */
  limited?: boolean;
  /** Stop keeping up joints that no later step touches. Exact; off only to measure what it saves. */
  drop?: boolean;
  /** Called after each action. */
  after?: (action: number) => void;
  /** First action to do; the state must be that of a snapshot there. */
  from?: number;
  /** Stop before this action. */
  to?: number;
}

/**
 * Works through steps on a condensed frame: every tack and bead is an update of rank 6. Buffers are kept; nothing is
 * allocated per step. Equal to the plain path to rounding.
 */
export class CondensedRun {
  /** Outputs of each draw, one after the other, mm and rad. */
  readonly out: Float64Array;
  /** Tension in the tack of each line of each joint, of each draw, N. */
  readonly tacks: Float64Array;
  /** Lines that yielded in the last action, nominal draw, as bits. */
  yielded = 0;
  /** Forces of the spring let go last, nominal draw. */
  readonly letGo = new Float64Array(6);
  private s: Float64Array;
  /** Movement of every clamp and strongback in each draw. */
  private readonly place: Float64Array;
  private readonly held: number;
  private attached = new Map<number, Attached>();
  private readonly local = new LocalYield();
  private readonly f = new Float64Array(36);
  private readonly m = new Float64Array(36);
  private readonly g = new Float64Array(36);
  private readonly w: Float64Array;
  private readonly q = new Float64Array(6);
  private readonly pull = new Float64Array(6);
  private readonly activeRows: Int32Array;
  private rowCount = 0;
  private readonly ranges: Int32Array;
  private rangeCount = 0;

  constructor(
    readonly condensed: Condensed,
    readonly draws: Draws = NO_DRAWS,
  ) {
    const { model, springColumns, outputs, rows, columns } = condensed;
    this.s = condensed.start.slice();
    this.out = new Float64Array(draws.count * outputs);
    this.held = springColumns - 6 * model.joints.length;
    this.place = new Float64Array(draws.count * this.held);
    this.tacks = new Float64Array(draws.count * 4 * model.joints.length);
    this.w = new Float64Array(6 * columns);
    this.activeRows = new Int32Array(rows);
    this.ranges = new Int32Array(2 * columns + 2);
  }

  /** The working matrix as it stands; rows and columns that no later step needs are out of date. */
  get flexibility(): Float64Array {
    return this.s;
  }

  /** Back to the fitted frame. */
  reset(): void {
    this.s.set(this.condensed.start);
    this.out.fill(0);
    this.place.fill(0);
    this.tacks.fill(0);
    this.attached = new Map();
  }

  /** @param done actions done so far. */
  snapshot(done: number): Snapshot {
    return {
      done,
      s: this.s.slice(),
      out: this.out.slice(),
      place: this.place.slice(),
      tacks: this.tacks.slice(),
      attached: new Map([...this.attached].map(([k, v]) => [k, { ...v, reference: v.reference.slice() }])),
    };
  }

  restore(kept: Snapshot): void {
    this.s.set(kept.s);
    this.out.set(kept.out);
    this.place.set(kept.place);
    this.tacks.set(kept.tacks);
    this.attached = new Map([...kept.attached].map(([k, v]) => [k, { ...v, reference: v.reference.slice() }]));
  }

  /** Works through the actions of a programme that uses the springs and loads that the frame was condensed for. */
  run(plan: Programme, options: RunOptions = {}): void {
    const { limited = true, drop = true, after, from = 0, to = plan.actions.length } = options;
    const { actions } = plan;
    const last = lastUses(this.condensed, actions);
    this.activate(drop ? last : null, from);
    for (let a = from; a < to; a++) {
      const action = actions[a] as Action;
      const id = plan.steps[plan.stepOf[a] as number]?.id ?? "";
      this.yielded = 0;
      if (drop && last.ends[a]) this.activate(last, a + 1);
      this.act(action, id, limited);
      after?.(a);
    }
  }

  private act(action: Action, id: string, limited: boolean): void {
    const { draws } = this;
    switch (action.kind) {
      case "ring":
        this.weld(action, id, limited);
        break;
      case "load":
        for (let d = 0; d < draws.count; d++) this.push(d, this.condensed.springColumns + action.column, action.size);
        break;
      case "attach":
        this.attach(action);
        break;
      case "detach":
        this.detach(action.spring);
        break;
      case "scale":
        for (let i = 0; i < this.out.length; i++) this.out[i] = (this.out[i] as number) * action.share;
        for (let i = 0; i < this.place.length; i++) this.place[i] = (this.place[i] as number) * action.share;
        this.tacks.fill(0);
        for (const [spring, on] of this.attached) this.readPlaces(spring, on.reference);
        break;
      case "nothing":
        break;
    }
  }

  private weld(action: RingAction, id: string, limited: boolean): void {
    const { condensed, draws, local, s, f, q } = this;
    const { columns, offset, model } = condensed;
    const c = offset[action.spring] as number;
    if (action.delta) this.update(c, 6, action.delta);
    if (limited) {
      for (let i = 0; i < 6; i++) for (let j = 0; j < 6; j++) f[i * 6 + j] = s[(c + i) * columns + c + j] as number;
      local.prepare(action, f);
    }
    const joint = model.joints[action.spring] as ModelJoint;
    const own = draws.bead(id);
    const unfitted = joint.unfitted.length > 0 ? draws.joint(joint.id) : null;
    const closing = draws.shared(action.closingFactors);
    const volume = draws.shared(action.chordFactors);
    const tackStride = 4 * model.joints.length;
    for (let d = 0; d < draws.count; d++) {
      const scatter = (own[d] as number) * (unfitted ? (unfitted[d] as number) : 1);
      const mm = action.closingMm * (closing[d] as number) * scatter;
      if (limited) local.solve(action, mm, this.tacks, d * tackStride + 4 * action.spring);
      else local.free(action, mm);
      if (d === 0) this.yielded = limited ? local.yielded : 0;
      matVec(action.ring.x, local.load, 6, 6, q);
      this.pushSix(d, c);
      if (action.chordColumn >= 0)
        this.push(d, condensed.springColumns + action.chordColumn, action.chordMm3 * (volume[d] as number) * scatter);
    }
  }

  private attach(action: Extract<Action, { kind: "attach" }>): void {
    const { condensed, draws, pull, q } = this;
    const c = condensed.offset[action.spring] as number;
    const r = (condensed.offset[action.spring + 1] as number) - c;
    const { matrix, toMm, byMm } = action;
    this.update(c, r, matrix);
    const reference = new Float64Array(draws.count * r);
    this.readPlaces(action.spring, reference);
    this.attached.set(action.spring, { matrix, reference });
    if (toMm === null && byMm === 0) return;
    for (let d = 0; d < draws.count; d++) {
      for (let i = 0; i < r; i++) {
        const here = reference[d * r + i] as number;
        const there = (toMm ?? here) + byMm;
        pull[i] = there - here;
        reference[d * r + i] = there;
      }
      matVec(matrix, pull, r, r, q);
      for (let i = 0; i < r; i++) this.push(d, c + i, q[i] as number);
    }
  }

  private detach(spring: number): void {
    const { condensed, draws, pull, q } = this;
    const on = this.attached.get(spring);
    if (!on) return;
    this.attached.delete(spring);
    const c = condensed.offset[spring] as number;
    const r = (condensed.offset[spring + 1] as number) - c;
    const here = new Float64Array(draws.count * r);
    this.readPlaces(spring, here);
    this.update(
      c,
      r,
      on.matrix.map((v) => -v),
    );
    for (let d = 0; d < draws.count; d++) {
      for (let i = 0; i < r; i++) pull[i] = (here[d * r + i] as number) - (on.reference[d * r + i] as number);
      matVec(on.matrix, pull, r, r, q);
      if (d === 0) this.letGo.set(q);
      for (let i = 0; i < r; i++) this.push(d, c + i, q[i] as number);
    }
  }

  /** Where a clamp's or strongback's rows stand in each draw. */
  private readPlaces(spring: number, into: Float64Array): void {
    const { offset, model } = this.condensed;
    const c = offset[spring] as number;
    const r = (offset[spring + 1] as number) - c;
    const first = c - 6 * model.joints.length;
    for (let d = 0; d < this.draws.count; d++)
      for (let i = 0; i < r; i++) into[d * r + i] = this.place[d * this.held + first + i] as number;
  }

  /** Force at which each clamp that is on pulls now, nominal draw, N: by the spring's id. */
  clampForces(): { id: string; forceN: number }[] {
    const { offset, springs, model } = this.condensed;
    return [...this.attached].flatMap(([spring, on]) => {
      if (on.matrix.length !== 1) return [];
      const here = this.place[(offset[spring] as number) - 6 * model.joints.length] as number;
      const stretch = here - (on.reference[0] as number);
      return [{ id: springs[spring]?.id ?? "", forceN: (on.matrix[0] as number) * stretch }];
    });
  }

  /** Adds what a force of size k on one column does to outputs and to what is tracked, in one draw. */
  private push(draw: number, column: number, k: number): void {
    const { condensed, s, out, place, held } = this;
    const { columns, springColumns, outputs, model } = condensed;
    let at = springColumns * columns + column;
    for (let o = draw * outputs; o < (draw + 1) * outputs; o++, at += columns)
      out[o] = (out[o] as number) + k * (s[at] as number);
    at = 6 * model.joints.length * columns + column;
    for (let o = draw * held; o < (draw + 1) * held; o++, at += columns)
      place[o] = (place[o] as number) + k * (s[at] as number);
  }

  /** The same for the six columns of a joint under the ring load in `q`. */
  private pushSix(draw: number, column: number): void {
    const { condensed, s, out, place, held, q } = this;
    const { columns, springColumns, outputs, model } = condensed;
    const [q0, q1, q2, q3, q4, q5] = q as unknown as [number, number, number, number, number, number];
    let at = springColumns * columns + column;
    for (let o = draw * outputs; o < (draw + 1) * outputs; o++, at += columns)
      out[o] =
        (out[o] as number) +
        q0 * (s[at] as number) +
        q1 * (s[at + 1] as number) +
        q2 * (s[at + 2] as number) +
        q3 * (s[at + 3] as number) +
        q4 * (s[at + 4] as number) +
        q5 * (s[at + 5] as number);
    at = 6 * model.joints.length * columns + column;
    for (let o = draw * held; o < (draw + 1) * held; o++, at += columns)
      place[o] =
        (place[o] as number) +
        q0 * (s[at] as number) +
        q1 * (s[at + 1] as number) +
        q2 * (s[at + 2] as number) +
        q3 * (s[at + 3] as number) +
        q4 * (s[at + 4] as number) +
        q5 * (s[at + 5] as number);
  }

  /** S -= S_c (I + D S_cc)^-1 D S_c^T for the rows and columns that are still needed. Woodbury's identity. */
  private update(c: number, r: number, d: Float64Array): void {
    const { condensed, s, m, g, w, ranges, activeRows } = this;
    const { columns } = condensed;
    for (let i = 0; i < r; i++)
      for (let j = 0; j < r; j++) {
        let sum = i === j ? 1 : 0;
        for (let k = 0; k < r; k++) sum += (d[i * r + k] as number) * (s[(c + k) * columns + c + j] as number);
        m[i * r + j] = sum;
      }
    for (let i = 0; i < r * r; i++) g[i] = d[i] as number;
    luSolve(m, g, r, r);
    for (let t = 0; t < this.rangeCount; t++) {
      const end = ranges[2 * t + 1] as number;
      for (let j = ranges[2 * t] as number; j < end; j++)
        for (let i = 0; i < r; i++) {
          let sum = 0;
          for (let k = 0; k < r; k++) sum += (g[i * r + k] as number) * (s[(c + k) * columns + j] as number);
          w[i * columns + j] = sum;
        }
    }
    if (r === 6) this.updateSix(c);
    else
      for (let a = 0; a < this.rowCount; a++) {
        const row = (activeRows[a] as number) * columns;
        for (let k = 0; k < r; k++) m[k] = s[row + c + k] as number;
        for (let t = 0; t < this.rangeCount; t++) {
          const end = ranges[2 * t + 1] as number;
          for (let j = ranges[2 * t] as number; j < end; j++) {
            let sum = 0;
            for (let k = 0; k < r; k++) sum += (m[k] as number) * (w[k * columns + j] as number);
            s[row + j] = (s[row + j] as number) - sum;
          }
        }
      }
  }

  private updateSix(c: number): void {
    const { condensed, s, w, ranges, activeRows, rangeCount, rowCount } = this;
    const { columns } = condensed;
    const w1 = columns;
    const w2 = 2 * columns;
    const w3 = 3 * columns;
    const w4 = 4 * columns;
    const w5 = 5 * columns;
    for (let a = 0; a < rowCount; a++) {
      const row = (activeRows[a] as number) * columns;
      const u0 = s[row + c] as number;
      const u1 = s[row + c + 1] as number;
      const u2 = s[row + c + 2] as number;
      const u3 = s[row + c + 3] as number;
      const u4 = s[row + c + 4] as number;
      const u5 = s[row + c + 5] as number;
      for (let t = 0; t < rangeCount; t++) {
        const end = ranges[2 * t + 1] as number;
        for (let j = ranges[2 * t] as number; j < end; j++)
          s[row + j] =
            (s[row + j] as number) -
            (u0 * (w[j] as number) +
              u1 * (w[w1 + j] as number) +
              u2 * (w[w2 + j] as number) +
              u3 * (w[w3 + j] as number) +
              u4 * (w[w4 + j] as number) +
              u5 * (w[w5 + j] as number));
      }
    }
  }

  /** Lists the rows and column ranges that actions from `from` on still need. */
  private activate(last: LastUses | null, from: number): void {
    const { condensed, activeRows, ranges } = this;
    const { offset, springs, springColumns, columns, rows } = condensed;
    this.rowCount = 0;
    this.rangeCount = 0;
    let open = -1;
    const column = (j: number, needed: boolean) => {
      if (needed && open < 0) open = j;
      if (!needed && open >= 0) {
        ranges[2 * this.rangeCount] = open;
        ranges[2 * this.rangeCount + 1] = j;
        this.rangeCount++;
        open = -1;
      }
    };
    for (let k = 0; k < springs.length; k++) {
      // A spring is needed while it acts; at its own last action its rows and columns are still read.
      const needed = !last || (last.springs[k] as number) >= from - 1;
      const end = offset[k + 1] as number;
      column(offset[k] as number, needed);
      if (needed) for (let i = offset[k] as number; i < end; i++) activeRows[this.rowCount++] = i;
    }
    for (let j = springColumns; j < columns; j++)
      column(j, !last || (last.loads[j - springColumns] as number) >= from - 1);
    column(columns, false);
    for (let i = springColumns; i < rows; i++) activeRows[this.rowCount++] = i;
  }
}

interface LastUses {
  /** Last action that touches each spring or load, -1 when none does. */
  springs: Int32Array;
  loads: Int32Array;
  /** Whether something was used for the last time in the action before. */
  ends: Uint8Array;
}

function lastUses({ springs, loadColumns }: Condensed, actions: readonly Action[]): LastUses {
  const last: LastUses = {
    springs: new Int32Array(springs.length).fill(-1),
    loads: new Int32Array(loadColumns).fill(-1),
    ends: new Uint8Array(actions.length + 1),
  };
  actions.forEach((action, a) => {
    if ("spring" in action) last.springs[action.spring] = a;
    if (action.kind === "ring" && action.chordColumn >= 0) last.loads[action.chordColumn] = a;
    if (action.kind === "load") last.loads[action.column] = a;
  });
  for (const a of last.springs) if (a >= 0) last.ends[a + 1] = 1;
  for (const a of last.loads) if (a >= 0) last.ends[a + 1] = 1;
  return last;
}
