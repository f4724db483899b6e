import { type JointStiffness, placeOfContact, postsOf, type Spring, slipsOf, type WeldAction } from "../mechanics";
import type { Sparse } from "../numeric";
import { jointStiffness, OPEN, type ShrinkFactors, type WeldedJoint, type WeldedModel, type WeldState } from "../weld";
import type { ContactPlace, SimulationStep } from "./simulationSteps";
import { type StrongbackSpring, strongbackSpring } from "./strongback";

type StrongbackOn = Extract<SimulationStep, { do: "strongback on" }>;

/** A bar by where it sits and how it is tacked. */
export const strongbackKey = ({ from, to, section, tacks }: StrongbackOn): string =>
  JSON.stringify([from, to, section, tacks]);

const contactKey = ({ member, point, push, against }: ContactPlace): string =>
  `${member}/${point}/${push.join()}${against ? `/${against.join("/")}` : ""}`;

/** By how much a contact opens, over the freedoms. */
function contactRow(model: WeldedModel, { member, point, push, against }: ContactPlace): Sparse {
  const ways = (node: number, sign: number): Sparse => ({
    at: [0, 1, 2].map((i) => 6 * node + i),
    value: push.map((v) => sign * v),
  });
  const own = ways(model.nodeOf(member, point), 1);
  if (!against) return own;
  const other = ways(model.nodeOf(...against), -1);
  return { at: [...own.at, ...other.at], value: [...own.value, ...other.value] };
}

/** Keeps what is the same in every order: loads, springs, joints by state. One per model and set of factors. */
export class CompileCache {
  readonly springs: Spring[];
  /** How many of them are posts of contacts. */
  readonly posts: number;
  /** Those of them that let the frame go of its hold. */
  readonly slips: readonly number[];
  private readonly contactIndex: ReadonlyMap<string, number>;
  readonly loads: Sparse[] = [];
  private readonly springIndex = new Map<string, number>();
  private readonly loadIndex = new Map<string, number>();
  private readonly deltas = new Map<string, Float64Array>();
  private readonly transitions = new WeakMap<
    SimulationStep,
    Map<WeldState, { action: WeldAction; after: WeldState }>
  >();
  private readonly strongbacks = new Map<string, StrongbackSpring>();
  private readonly states = new Map<string, WeldState>();

  /** @param steps whatever any order does: contacts that they put on have their places here. */
  constructor(
    readonly model: WeldedModel,
    readonly factors: ShrinkFactors,
    steps: readonly SimulationStep[] = [],
  ) {
    const has = ([member, point]: readonly [string, string]): boolean =>
      model.nodes.some((n) => n.member === member && n.point === point);
    const contacts = new Map(
      steps.flatMap((s) =>
        s.do === "stop on" && has([s.member, s.point]) && (!s.against || has(s.against))
          ? [[contactKey(s), s] as const]
          : [],
      ),
    );
    this.contactIndex = new Map([...contacts.keys()].map((key, i) => [key, i]));
    const own = postsOf([...contacts.values()].map((c) => contactRow(model, c)));
    const slips = model.frame.carried ? slipsOf(model.hold) : [];
    const posts = [...own, ...slips];
    this.posts = posts.length;
    this.slips = slips.map((_, i) => model.joints.length + own.length + i);
    this.springs = [
      ...model.joints.map((j) => ({ id: j.id, rows: j.rows })),
      ...posts.map((rows, i) => ({ id: `post/${i}`, rows })),
    ];
  }

  /** Post and way of a contact. @throws RangeError for one that nobody told of. */
  contact(place: ContactPlace): { spring: number; at: number } {
    const index = this.contactIndex.get(contactKey(place));
    if (index === undefined)
      throw new RangeError(`Nothing was told of what touches ${place.member} at ${place.point}.`);
    const { post, at } = placeOfContact(index);
    return { spring: this.model.joints.length + post, at };
  }

  spring(id: string, rows: () => Sparse[]): number {
    const known = this.springIndex.get(id);
    if (known !== undefined) return known;
    const index = this.springs.push({ id, rows: rows() }) - 1;
    this.springIndex.set(id, index);
    return index;
  }

  strongback(step: StrongbackOn): StrongbackSpring {
    const key = strongbackKey(step);
    const known = this.strongbacks.get(key) ?? strongbackSpring(this.model, this.factors, step);
    this.strongbacks.set(key, known);
    return known;
  }

  load(id: string, column: () => Sparse): number {
    const known = this.loadIndex.get(id);
    if (known !== undefined) return known;
    const index = this.loads.push(column()) - 1;
    this.loadIndex.set(id, index);
    return index;
  }

  jointAt(joint: number, state: WeldState): JointStiffness {
    return jointStiffness(this.model.joints[joint] as WeldedJoint, state);
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
