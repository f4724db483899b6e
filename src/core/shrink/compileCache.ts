import type { Birth, RingAction, RingStiffness, Spring } from "../mechanics";
import type { Sparse } from "../numeric";
import { type RingState, ringStiffness, type ShrinkFactors, type WeldedJoint, type WeldedModel } from "../weld";
import type { SimulationStep } from "./simulationSteps";

/** Keeps what is the same in every order: loads, springs, ring stiffness by state. One per model and set of factors. */
export class CompileCache {
  readonly springs: Spring[];
  readonly loads: Sparse[] = [];
  private readonly springIndex = new Map<string, number>();
  private readonly loadIndex = new Map<string, number>();
  private readonly ringStates = new Map<string, RingStiffness>();
  private readonly deltas = new Map<string, Float64Array>();
  private readonly births = new Map<string, Birth>();
  private readonly transitions = new Map<SimulationStep, Map<RingState, { action: RingAction; after: RingState }>>();
  private readonly states = new Map<string, RingState>();

  constructor(
    readonly model: WeldedModel,
    readonly factors: ShrinkFactors,
  ) {
    this.springs = model.joints.map((j) => ({ id: j.id, rows: j.rows }));
  }

  spring(id: string, rows: () => Sparse[]): number {
    const known = this.springIndex.get(id);
    if (known !== undefined) return known;
    const index = this.springs.push({ id, rows: rows() }) - 1;
    this.springIndex.set(id, index);
    return index;
  }

  load(id: string, column: () => Sparse): number {
    const known = this.loadIndex.get(id);
    if (known !== undefined) return known;
    const index = this.loads.push(column()) - 1;
    this.loadIndex.set(id, index);
    return index;
  }

  ringAt(joint: number, state: RingState): RingStiffness {
    const key = `${joint}/${state.join()}`;
    const known = this.ringStates.get(key);
    if (known) return known;
    const made = ringStiffness((this.model.joints[joint] as WeldedJoint).ring, state);
    this.ringStates.set(key, made);
    return made;
  }

  delta(joint: number, from: RingState, to: RingState): Float64Array | null {
    const key = `${joint}/${from.join()}/${to.join()}`;
    const known = this.deltas.get(key);
    if (known) return known;
    const [before, after] = [this.ringAt(joint, from).kj, this.ringAt(joint, to).kj];
    const made = after.map((v, i) => v - before[i]);
    if (made.every((v) => v === 0)) return null;
    this.deltas.set(key, made);
    return made;
  }

  /** One object per state, so that states can be told apart by identity. */
  state(state: RingState): RingState {
    const key = state.join();
    const known = this.states.get(key) ?? state;
    this.states.set(key, known);
    return known;
  }

  /** What a step does to its joint in a given state; worked out once. */
  transition(step: SimulationStep, before: RingState, make: () => { action: RingAction; after: RingState }) {
    let of = this.transitions.get(step);
    if (!of) {
      of = new Map();
      this.transitions.set(step, of);
    }
    let known = of.get(before);
    if (!known) {
      known = make();
      of.set(before, known);
    }
    return known;
  }

  birth(key: string, make: () => Birth): Birth {
    const known = this.births.get(key) ?? make();
    this.births.set(key, known);
    return known;
  }
}
