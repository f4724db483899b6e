import { matVec, sparseRows } from "../numeric";
import { Carried, type Source } from "./carried";
import type { Condensed } from "./condensed";
import { putOn, slipping, takenOff } from "./contacts";
import {
  copiedState,
  fittedState,
  type HeldState,
  LINES,
  putBack,
  rememberSeams,
  SEAMS,
  seamsFrom,
  setJoints,
  setState,
  shareAnew,
  widthOf,
} from "./heldState";
import { type Answers, type Gained, Holding, type OwnWish } from "./holding";
import {
  type Action,
  type CompiledLoads,
  type Draws,
  type JointStiffness,
  NO_DRAWS,
  type WeldAction,
} from "./loadActions";
import { columnOf } from "./ownUnknowns";
import { PackedSymmetric } from "./packedSymmetric";
import { type Within, within } from "./within";

/** Actions between two chances to stop. */
const ACTIONS_AT_ONCE = 2;
/** Draws of which outputs are worked out between two chances to stop. */
const DRAWS_AT_ONCE = 8;
const ONE = Float64Array.of(1);
const NONE = new Float64Array(0);

/** A clamp or strongback that is on, with the place that it holds in each draw. */
interface Attached {
  matrix: Float64Array;
  reference: Float64Array;
}

/** What lines that yielded and seams that pressed push on the frame with. */
interface Giving {
  add: (gained: Gained, draw: number) => void;
  sources: () => Iterable<Source>;
}

/** Something that held was let go. */
export interface LetGo {
  action: number;
  spring: number;
  /** Way of a post; 0 for what holds with all its ways. */
  at: number;
  /** What it held with in each draw, N. */
  forcesN: Float64Array;
  /** How far the frame went there, nominal draw, mm, and the energy that did it, N mm. */
  movedMm: number;
  energyNmm: number;
}

/** The state after some actions of an order. */
export interface Snapshot {
  done: number;
  /** Flexibility of the springs, its lower half. */
  half: Float64Array;
  carried: Float64Array[];
  place: Float64Array;
  state: HeldState;
  joints: (JointStiffness | null)[];
  attached: Map<number, Attached>;
}

/**
 * Works through steps on a condensed frame. Every tack and bead is an update of rank 6 of the springs' own flexibility S, of which
 * only the lower half is kept (Woodbury's identity). With D what all springs gained by now, a push q on springs and a load V on members
 * move the springs by m = S (q - D S_l(0) V) + S_l(0) V. The frame with all its welds, whose springs have gained D', would move alike
 * under q + (D' - D) m and V: those are carried along for every draw (see Carried), and what outputs move by is one solve of the
 * welded frame. Equal to the full matrix to rounding. Lines of all joints that would hold more than they can yield together after
 * every step.
 */
export class LowRankRun {
  /** Outputs of each draw, one after the other. */
  readonly out: Float64Array;
  /** What lines hold and how open seams stand, of each draw. */
  readonly state: HeldState;
  /** Lines that yielded in the last action, nominal draw: four times the joint's place and the line's. */
  yielded: readonly number[] = [];
  /** What was let go in the last action; null where nothing was. */
  letGo: LetGo | null = null;
  private readonly n: number;
  /** Flexibility of the springs as it stands. */
  private readonly half: PackedSymmetric;
  private readonly fitted: Float64Array;
  private readonly carried: Carried;
  private readonly place: Float64Array;
  private attached = new Map<number, Attached>();
  private readonly held: number;
  /** Springs of which lines may yield or seams touch: joints, then posts of contacts. */
  private readonly holders: number;
  /** Everything as it was fitted. */
  private readonly fit: HeldState;
  /** What holds at each joint by now. */
  private joints: (JointStiffness | null)[];
  private readonly kinkColumns: Int32Array;
  private readonly q = new Float64Array(6);
  /** Force through a joint in every draw. */
  private readonly through: Float64Array;
  private readonly pull = new Float64Array(6);
  /** What lines and seams do; null where nothing yields and nothing touches. */
  private readonly holding: Holding | null;
  /** How joints answer to what lines and seams push on them. */
  private readonly answers: Answers = {
    reach: (spring, push, from, into) => this.half.reach(this.condensed.offset[spring], push, from, into),
  };
  /** Room for movements that are forgotten after an action, and how much of it is taken. */
  private readonly room: Float64Array[] = [];
  private taken = 0;

  constructor(
    readonly condensed: Condensed,
    readonly draws: Draws = NO_DRAWS,
    /** Whether beads and tacks yield. */
    limited = true,
  ) {
    const { springColumns: n, model, start } = condensed;
    this.n = n;
    // By columns as by rows: it is symmetric.
    this.fitted = start.subarray(0, n * n);
    this.half = new PackedSymmetric(n, this.fitted);
    this.carried = new Carried(condensed, draws.count);
    this.through = new Float64Array(6 * draws.count);
    this.holders = model.joints.length + condensed.posts;
    this.held = n - 6 * this.holders;
    this.place = new Float64Array(draws.count * this.held);
    const { holders } = this;
    const gaps = new Float64Array(draws.count * holders);
    model.joints.forEach(({ id, gapMm }, j) => {
      if (gapMm !== null)
        draws.gap(id).forEach((by, d) => {
          gaps[d * holders + j] = gapMm * by;
        });
    });
    this.fit = fittedState(holders, gaps);
    this.joints = new Array<JointStiffness | null>(holders).fill(null);
    this.kinkColumns = new Int32Array(holders).fill(-1);
    this.out = new Float64Array(draws.count * condensed.outputs.count);
    const holds = limited || condensed.posts > 0 || model.joints.some((j) => j.gapMm !== null);
    this.holding = holds ? new Holding(holders, draws.count, limited) : null;
    this.state = this.holding?.state ?? copiedState(this.fit);
    setState(this.state, this.fit);
  }

  /** A movement of every spring, nought, that lasts until the next action. */
  private movement(): Float64Array {
    const at = this.taken++;
    this.room[at] ??= new Float64Array(this.n);
    return this.room[at].fill(0);
  }

  /** Back to the fitted frame. */
  reset(): void {
    this.half.s.set(this.fitted);
    this.carried.reset();
    this.place.fill(0);
    setState(this.state, this.fit);
    this.joints.fill(null);
    this.attached = new Map();
  }

  snapshot(done: number): Snapshot {
    return {
      done,
      half: this.half.half(),
      carried: this.carried.snapshot(),
      place: this.place.slice(),
      state: copiedState(this.state),
      joints: [...this.joints],
      attached: copied(this.attached),
    };
  }

  restore(kept: Snapshot): void {
    this.half.setHalf(kept.half);
    this.carried.restore(kept.carried);
    this.place.set(kept.place);
    setState(this.state, kept.state);
    this.joints = [...kept.joints];
    this.attached = copied(kept.attached);
  }

  /** Gives room to whoever works next: a run is not to be used after. */
  done(): void {
    this.half.done();
    this.carried.done();
    this.holding?.done();
  }

  /** What moved so far is not asked about any more: outputs are of what comes. */
  forgetMovement(): void {
    this.carried.forget();
  }

  /**
   * Works through a whole order, with chances to stop.
   * @param after is told every action.
   * @returns the outputs.
   */
  *whole(plan: CompiledLoads, after?: (action: number) => void): Generator<number, Float64Array> {
    const n = plan.actions.length;
    for (let from = 0; from < n; from += ACTIONS_AT_ONCE) {
      this.forward(plan, from, Math.min(n, from + ACTIONS_AT_ONCE), after);
      yield from / n;
    }
    for (let d = 0; d < this.draws.count; d++) {
      this.outputsOf(d);
      if (d % DRAWS_AT_ONCE === 0) yield 1;
    }
    return this.out;
  }

  /** Works through actions `from` to `to` of a plan whose actions before `from` made the state. */
  forward(plan: CompiledLoads, from: number, to: number, after?: (action: number) => void): void {
    for (let a = from; a < to; a++) {
      this.yielded = [];
      this.letGo = null;
      this.taken = 0;
      const action = plan.actions[a];
      switch (action.kind) {
        case "weld":
          this.weld(action, plan.steps[plan.stepOf[a]]?.id ?? "");
          break;
        case "load":
          this.load(action.column, action.size);
          this.rememberPosts();
          break;
        case "attach":
          this.attach(action);
          break;
        case "detach":
          this.detach(a, action.spring);
          break;
        case "touch":
          this.touch(action);
          this.rememberPosts();
          break;
        case "part":
          this.part(a, action);
          break;
        case "float":
          this.joints[action.spring] = slipping(this.condensed.model.holdNPerMm);
          break;
        case "scale":
          if (action.of) {
            this.putPartBack(plan, within(plan, action.of), action);
            break;
          }
          this.carried.scale(action.share, action.holds);
          for (let i = 0; i < this.place.length; i++) this.place[i] = this.place[i] * action.share;
          if (!action.holds) putBack(this.state, this.fit, this.holders, action.share);
          for (const [spring, on] of this.attached) this.readPlaces(spring, on.reference);
          break;
        case "nothing":
          break;
      }
      after?.(a);
    }
  }

  /** Outputs of every draw as it stands. */
  gather(): Float64Array {
    for (let d = 0; d < this.draws.count; d++) this.outputsOf(d);
    return this.out;
  }

  /** Outputs of one draw as it stands: its part of `out`. */
  outputsOf(draw: number): Float64Array {
    const { outputs } = this.condensed;
    const out = this.out.subarray(draw * outputs.count, (draw + 1) * outputs.count);
    this.carried.outputs(draw, out);
    return out;
  }

  /** Tension in each tack that is left, nominal draw, N. */
  tackForces(): { joint: number; line: number; forceN: number }[] {
    return this.joints
      .slice(0, this.condensed.model.joints.length)
      .flatMap((state, joint) =>
        (state?.lines ?? []).flatMap(({ line, tack }) =>
          tack ? [{ joint, line, forceN: this.state.held[LINES * joint + line] }] : [],
        ),
      );
  }

  /** What each contact that is on pushes with, nominal draw, N: by its post and its way. */
  contactForces(): { post: number; at: number; forceN: number }[] {
    const { joints } = this.condensed.model;
    return this.joints.slice(joints.length).flatMap((post, i) =>
      (post?.seams ?? []).map(({ at }) => ({
        post: i,
        at,
        forceN: this.state.pressed[SEAMS * (joints.length + i) + at],
      })),
    );
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

  private weld(action: WeldAction, id: string): void {
    const { condensed, draws, state } = this;
    const c = condensed.offset[action.spring];
    const before = this.joints[action.spring];
    if (before) {
      this.carried.through(action.spring, this.through);
      shareAnew(state, this.holders, action.spring, before, action.joint, this.through);
    }
    if (action.delta) this.changeSpring(action.spring, action.delta);
    this.joints[action.spring] = action.joint;
    const own = draws.bead(id, action.lineCv);
    const unfitted = action.unfitted === null ? null : draws.joint(action.unfitted);
    const closing = draws.shared(action.closingFactors);
    const scatter = (d: number): number => own[d] * (unfitted ? unfitted[d] : 1);
    const width = widthOf(this.holders);
    if (!action.tack)
      for (let d = 0; d < draws.count; d++) state.held[d * width + LINES * action.spring + action.line] = 0;
    const closes = this.closing(action.spring, action.line, action.kinkColumn);
    for (let d = 0; d < draws.count; d++) closes.sizes[d] = action.closingMm * closing[d] * scatter(d);
    const { spring, line } = action;
    const pushing = [closes];
    const wishes: OwnWish[] = [{ spring, closing: { line, mm: 1 } }];
    if (action.heat) {
      const { free, push, kink, mm, factors } = action.heat;
      const warms = this.source(c, push, action.kinkColumn, kink);
      const shared = draws.shared(factors);
      for (let d = 0; d < draws.count; d++) warms.sizes[d] = mm * shared[d] * scatter(d);
      if (draws.count === 1) {
        // One draw has one size of each: they are worked through as one push.
        pushing[0] = inOne(closes, warms);
        wishes[0] = { spring, closing: { line, mm: closes.sizes[0] }, free: free.map((v) => v * warms.sizes[0]) };
      } else {
        pushing.push(warms);
        wishes.push({ spring, free });
      }
    }
    this.kinkColumns[spring] = action.kinkColumn;
    this.settle(pushing, wishes);
  }

  private load(column: number, size: number): void {
    const source = this.source(0, NONE, column, ONE);
    source.sizes.fill(size);
    this.settle([source], []);
  }

  private attach(action: Extract<Action, { kind: "attach" }>): void {
    const { condensed, draws, pull, q } = this;
    const c = condensed.offset[action.spring];
    const r = condensed.offset[action.spring + 1] - c;
    this.changeSpring(action.spring, action.matrix);
    const reference = new Float64Array(draws.count * r);
    this.readPlaces(action.spring, reference);
    this.attached.set(action.spring, { matrix: action.matrix, reference });
    const pushing = this.ways(c, r);
    for (let d = 0; d < draws.count; d++) {
      for (let i = 0; i < r; i++) {
        const here = reference[d * r + i];
        const there = (action.toMm ?? here) + action.byMm;
        pull[i] = there - here;
        reference[d * r + i] = there;
      }
      matVec(action.matrix, pull, r, r, q);
      for (let i = 0; i < r; i++) pushing[i].sizes[d] = q[i];
    }
    this.settle(pushing, []);
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
    this.changeSpring(
      spring,
      on.matrix.map((v) => -v),
    );
    const pushing = this.ways(c, r);
    for (let d = 0; d < draws.count; d++) {
      for (let i = 0; i < r; i++) pull[i] = here[d * r + i] - on.reference[d * r + i];
      matVec(on.matrix, pull, r, r, q);
      for (let i = 0; i < r; i++) pushing[i].sizes[d] = q[i];
    }
    const moved = this.settle(
      pushing,
      [],
      pushing.map((_, i) => c + i),
    );
    this.letGo = {
      action: a,
      spring,
      at: 0,
      forcesN: Float64Array.from({ length: draws.count }, (_, d) =>
        Math.hypot(...pushing.slice(0, 3).map(({ sizes }) => sizes[d])),
      ),
      movedMm: Math.hypot(...moved.slice(0, 3)),
      energyNmm: Math.abs(moved.reduce((sum, v, i) => sum + 0.5 * v * pushing[i].sizes[0], 0)),
    };
  }

  /** Something is put where it may touch. */
  private touch({ spring, at, gapMm, givesMmPerN }: Extract<Action, { kind: "touch" }>): void {
    this.joints[spring] = putOn(this.joints[spring], at, givesMmPerN);
    const { state, holders } = this;
    for (let d = 0; d < this.draws.count; d++) {
      state.held[d * widthOf(holders) + seamsFrom(holders, spring) + at] = -gapMm;
      state.pressed[SEAMS * (d * holders + spring) + at] = 0;
    }
    this.settle([], []);
  }

  /** It is taken away: what it pushed with goes. */
  private part(a: number, { spring, at }: Extract<Action, { kind: "part" }>): void {
    const { draws, state, holders } = this;
    this.joints[spring] = takenOff(this.joints[spring], at);
    const leaves = this.source(this.condensed.offset[spring] + at, ONE, -1, NONE);
    for (let d = 0; d < draws.count; d++) {
      const place = SEAMS * (d * holders + spring) + at;
      leaves.sizes[d] = -state.pressed[place];
      state.pressed[place] = 0;
    }
    const [movedMm] = this.settle([leaves], [null], [this.condensed.offset[spring] + at]);
    const forcesN = leaves.sizes.map((v) => -v);
    this.letGo = {
      action: a,
      spring,
      at,
      forcesN,
      movedMm: Math.abs(movedMm),
      energyNmm: 0.5 * forcesN[0] * Math.abs(movedMm),
    };
  }

  /** Changes a spring's stiffness, and with it the flexibility of all. */
  private changeSpring(spring: number, delta: Float64Array): void {
    const { offset } = this.condensed;
    this.carried.change(spring, delta);
    this.half.update(offset[spring], offset[spring + 1] - offset[spring], delta);
  }

  /** A mm of closing of a line of a joint as it stands. @param kinkColumn first of its chords' load columns, or -1. */
  private closing(spring: number, line: number, kinkColumn: number): Source {
    const joint = this.joints[spring] as JointStiffness;
    return this.source(
      this.condensed.offset[spring],
      columnOf(joint.push, line),
      kinkColumn,
      columnOf(joint.kink, line),
    );
  }

  /** A push on a spring together with loads on members. @param load first load column, -1 without. @param by how much of each. */
  private source(first: number, q: Float64Array, load: number, by: Float64Array): Source {
    const loads: [number, number][] = [];
    if (load >= 0) for (let k = 0; k < by.length; k++) if (by[k] !== 0) loads.push([load + k, by[k]]);
    return { first, q, push: null, loads, sizes: new Float64Array(this.draws.count) };
  }

  /** How far a source moves every spring per unit; until the next action. */
  private movesOf({ first, q, push, loads }: Source): Float64Array {
    const { start } = this.condensed;
    const { n } = this;
    const moves = this.movement();
    if (loads.length === 0) {
      this.half.addTimes(push, first, q, moves);
      return moves;
    }
    // What the loads would do to the fitted frame, and what springs gained by now push back then.
    for (const [load, by] of loads) {
      const column = (n + load) * n;
      for (let i = 0; i < n; i++) moves[i] = moves[i] + by * start[column + i];
    }
    const back = this.movement();
    this.pushedBack(moves, back);
    if (push) for (let i = 0; i < n; i++) back[i] = back[i] + push[i];
    this.half.addTimes(back, first, q, moves);
    return moves;
  }

  /** A unit push on each way of a spring. */
  private ways(c: number, r: number): Source[] {
    return Array.from({ length: r }, (_, i) => this.source(c + i, ONE, -1, NONE));
  }

  /** into -= D m: what springs that were gained by now push back when the frame moves them by m. */
  private pushedBack(moved: Float64Array, into: Float64Array): void {
    const { offset, springs } = this.condensed;
    for (let k = 0; k < springs.length; k++) {
      const c = offset[k];
      const r = offset[k + 1] - c;
      const d = this.carried.gained[k];
      for (let i = 0; i < r; i++) {
        let sum = 0;
        for (let j = 0; j < r; j++) sum += d[i * r + j] * moved[c + j];
        into[c + i] = into[c + i] - sum;
      }
    }
  }

  /**
   * Carries what pushed in an action, and lets lines yield that would hold more than they can.
   * @param wishes what each brings to its own joint besides. @param watched columns that are asked about.
   * @returns how far each moved, nominal draw.
   */
  private settle(
    pushing: readonly Source[],
    wishes: readonly (OwnWish | null)[],
    watched: readonly number[] = [],
  ): number[] {
    const { n, held, place, draws, holding } = this;
    const pushed = pushing.map((source) => ({ source, moves: this.movesOf(source) }));
    if (holding) {
      holding.begin(this.joints);
      const brought = pushed.map(({ source, moves }, i) => ({
        forces: holding.forces(moves, wishes[i] ?? null),
        sizes: source.sizes,
      }));
      const giving = draws.count === 1 ? this.together(holding) : this.oneByOne(holding);
      const worked = wishes[0]?.spring ?? -1;
      holding.settle(brought, worked, draws.shared(["yield"]), this.answers, (gained, d) => {
        if (d === 0)
          this.yielded = [...gained.unknown.subarray(0, gained.count)].flatMap((i) => holding.lineAt(i) ?? []);
        giving.add(gained, d);
      });
      for (const source of giving.sources()) pushed.push({ source, moves: this.movesOf(source) });
    }
    for (const { source, moves } of pushed) {
      this.carried.add(source, moves);
      if (held === 0) continue;
      for (let d = 0; d < draws.count; d++) {
        const size = source.sizes[d];
        if (size === 0) continue;
        for (let h = 0, at = d * held; h < held; h++, at++) place[at] = place[at] + size * moves[n - held + h];
      }
    }
    this.carried.settle();
    return watched.map((at) => pushed.reduce((sum, { source, moves }) => sum + source.sizes[0] * moves[at], 0));
  }

  /** What yields and touches, each by itself: for many draws, in which the same do. */
  private oneByOne(holding: Holding): Giving {
    const made: Source[] = [];
    const sourceOf = (unknown: number): Source => {
      const { spring, line, seam } = holding.unknown(unknown);
      const source = seam
        ? this.source(this.condensed.offset[spring], seam.push, -1, NONE)
        : this.closing(spring, line, this.kinkColumns[spring]);
      made.push(source);
      return source;
    };
    const of: Source[] = [];
    return {
      add: ({ count, unknown, by }, d) => {
        for (let q = 0; q < count; q++) {
          const i = unknown[q];
          of[i] ??= sourceOf(i);
          of[i].sizes[d] = by[q];
        }
      },
      sources: () => made,
    };
  }

  /** What yields and touches as one push: for one draw. */
  private together(holding: Holding): Giving {
    const { condensed, n, kinkColumns } = this;
    let made: Source | null = null;
    return {
      add: (gained) => {
        const push = new Float64Array(n);
        const loads = new Map<number, number>();
        for (let q = 0; q < gained.count; q++) {
          const by = gained.by[q];
          const spring = holding.pushOf(gained.unknown[q], by, push, condensed.offset);
          const line = holding.lineAt(gained.unknown[q]);
          if (line === null || kinkColumns[spring] < 0) continue;
          const { kink } = this.joints[spring] as JointStiffness;
          for (let k = 0; LINES * k < kink.length; k++) {
            const bends = kink[LINES * k + (line % LINES)];
            const column = kinkColumns[spring] + k;
            if (bends !== 0) loads.set(column, (loads.get(column) ?? 0) + by * bends);
          }
        }
        made = { first: 0, q: NONE, push, loads: [...loads], sizes: ONE };
      },
      sources: () => (made ? [made] : []),
    };
  }

  /**
   * Puts a part back that hangs on nothing else yet: all that pushed on it alone is taken off it by so much. What is open between it and the
   * rest, and what it touches, goes along.
   */
  private putPartBack(plan: CompiledLoads, part: Within, { share, holds }: { share: number; holds: boolean }): void {
    const { n, held, place, draws, holding, holders, state, carried, condensed } = this;
    const { offset } = condensed;
    const rows = sparseRows(plan.springs.flatMap((spring) => spring.rows));
    const through = carried.throughOf(holds ? part.springs : []);
    const before = copiedState(state);
    const width = widthOf(holders);
    holding?.begin(this.joints);
    const all = new Float64Array(n);
    for (let d = 0; d < draws.count; d++) {
      this.taken = 0;
      const loads = carried.pushing(d, rows, all);
      const push = new Float64Array(n);
      for (const k of part.springs) for (let c = offset[k]; c < offset[k + 1]; c++) push[c] = (share - 1) * all[c];
      const source: Source = {
        first: 0,
        q: NONE,
        push,
        loads: part.loads.flatMap((l): [number, number][] => (loads[l] === 0 ? [] : [[l, (share - 1) * loads[l]]])),
        sizes: Float64Array.from({ length: draws.count }, (_, i) => (i === d ? 1 : 0)),
      };
      const moves = this.movesOf(source);
      carried.add(source, moves);
      carried.settle();
      for (let h = 0, at = d * held; h < held; h++, at++) place[at] = place[at] + moves[n - held + h];
      holding?.forces(moves, null).forEach((v, k) => {
        state.held[d * width + k] = state.held[d * width + k] + v;
      });
    }
    carried.setThrough(part.springs, through);
    const back = copiedState(before);
    if (!holds) putBack(back, this.fit, holders, share);
    setJoints(state, back, holders, part.springs);
    for (const [spring, on] of this.attached) if (part.springs.includes(spring)) this.readPlaces(spring, on.reference);
  }

  /** How posts stand before anything shrinks. */
  private rememberPosts(): void {
    rememberSeams(this.fit, this.state, this.holders, this.condensed.model.joints.length);
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

/** Two pushes on the same spring in one draw, as one of size 1. */
function inOne(a: Source, b: Source): Source {
  const [sizeA, sizeB] = [a.sizes[0], b.sizes[0]];
  return {
    first: a.first,
    q: a.q.map((v, i) => sizeA * v + sizeB * b.q[i]),
    push: null,
    loads: [...scaled(a.loads, sizeA), ...scaled(b.loads, sizeB)],
    sizes: ONE,
  };
}
const scaled = (loads: Source["loads"], size: number): (readonly [number, number])[] =>
  loads.map(([column, by]) => [column, size * by]);

const copied = (attached: Map<number, Attached>): Map<number, Attached> =>
  new Map([...attached].map(([k, v]) => [k, { ...v, reference: v.reference.slice() }]));
