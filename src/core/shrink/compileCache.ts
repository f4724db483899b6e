import type { JointStiffness, Spring, WeldAction } from "../mechanics";
import type { Sparse } from "../numeric";
import { jointStiffness, OPEN, type ShrinkFactors, type WeldedJoint, type WeldedModel, type WeldState } from "../weld";
import type { SimulationStep } from "./simulationSteps";

/** Keeps what is the same in every order: loads, springs, joints by state. One per model and set of factors. */
export class CompileCache {
  readonly springs: Spring[];
  readonly loads: Sparse[] = [];
  private readonly springIndex = new Map<string, number>();
  private readonly loadIndex = new Map<string, number>();
  private readonly jointStates = new Map<string, JointStiffness>();
  private readonly deltas = new Map<string, Float64Array>();
  private readonly transitions = new WeakMap<
    SimulationStep,
    Map<WeldState, { action: WeldAction; after: WeldState }>
  >();
  private readonly states = new Map<string, WeldState>();

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

  jointAt(joint: number, state: WeldState): JointStiffness {
    const key = `${joint}/${state.join()}`;
    const known = this.jointStates.get(key);
    if (known) return known;
    const made = jointStiffness(this.model.joints[joint] as WeldedJoint, state);
    this.jointStates.set(key, made);
    return made;
  }

  /** A joint without welds is what holds it before: its contact. */
  private stiffnessAt(joint: number, state: WeldState): Float64Array {
    return state.join() === OPEN.join()
      ? (this.model.joints[joint] as WeldedJoint).contact
      : this.jointAt(joint, state).k;
  }

  delta(joint: number, from: WeldState, to: WeldState): Float64Array | null {
    const key = `${joint}/${from.join()}/${to.join()}`;
    const known = this.deltas.get(key);
    if (known) return known;
    const [before, after] = [this.stiffnessAt(joint, from), this.stiffnessAt(joint, to)];
    const made = after.map((v, i) => v - before[i]);
    if (made.every((v) => v === 0)) return null;
    this.deltas.set(key, made);
    return made;
  }

  /** One object per state, so that states can be told apart by identity. */
  state(state: WeldState): WeldState {
    const key = state.join();
    const known = this.states.get(key) ?? state;
    this.states.set(key, known);
    return known;
  }

  /** What a step does to its joint in a given state; worked out once. */
  transition(step: SimulationStep, before: WeldState, make: () => { action: WeldAction; after: WeldState }) {
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
}
