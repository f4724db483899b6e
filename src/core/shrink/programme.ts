import { drain, norm3, type Sparse, sub3, unit3, type Vec3 } from "../numeric";
import type { Problem } from "../units";
import { beamStiffness, memberAxes, toGlobal } from "./beam";
import { CHORD_EFFECT, type FactorName, type ShrinkFactors } from "./constants";
import { type BeamSection, LINES, lineIndex } from "./mechanicalFrame";
import { chordLoad, type MechanicalModel, type ModelJoint, relativeRows } from "./mechanicalModel";
import {
  type Birth,
  beadBirth,
  type LineState,
  OPEN,
  type RingState,
  type RingStiffness,
  ringStiffness,
  tackBirth,
} from "./ring";
import type { SimulationStep } from "./simulationSteps";

/** A tack that holds while another line of its joint is welded. */
export interface HeldTack {
  line: number;
  birth: Birth;
}

/** A tack or bead, worked out as far as it does not depend on what came before elsewhere. */
export interface RingAction {
  kind: "ring";
  spring: number;
  line: number;
  tack: boolean;
  /** Change of the joint's stiffness, 6 x 6; null when nothing changes. */
  delta: Float64Array | null;
  ring: RingStiffness;
  birth: Birth;
  held: HeldTack[];
  /** Free closing at nominal factors, mm, and the factors that scale it. */
  closingMm: number;
  closingFactors: readonly FactorName[];
  /** Column of the chord's load and its volume at nominal factors; -1 without. */
  chordColumn: number;
  chordMm3: number;
  chordFactors: readonly FactorName[];
}

export type Action =
  | RingAction
  | { kind: "attach"; spring: number; matrix: Float64Array; toMm: number | null; byMm: number }
  | { kind: "detach"; spring: number }
  | { kind: "scale"; share: number }
  | { kind: "load"; column: number; size: number }
  | { kind: "nothing" };

/** A spring between nodes: rows over the freedoms, one per way it holds. Joints come first, in the model's order. */
export interface Spring {
  id: string;
  rows: Sparse[];
}

/** Steps with everything that depends on their order and not on the frame's answer. */
export interface Programme {
  model: MechanicalModel;
  springs: Spring[];
  loads: Sparse[];
  /** Actions of each step, in order: a flip is several. */
  actions: Action[];
  /** Step of each action. */
  stepOf: number[];
  steps: readonly SimulationStep[];
  notes: string[];
}

/** Keeps what is the same in every order: loads, springs, ring stiffness by state. One per model and set of factors. */
export class Workshop {
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
    readonly model: MechanicalModel,
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
    const made = ringStiffness((this.model.joints[joint] as ModelJoint).ring, state);
    this.ringStates.set(key, made);
    return made;
  }

  delta(joint: number, from: RingState, to: RingState): Float64Array | null {
    const key = `${joint}/${from.join()}/${to.join()}`;
    const known = this.deltas.get(key);
    if (known) return known;
    const [before, after] = [this.ringAt(joint, from).kj, this.ringAt(joint, to).kj];
    const made = after.map((v, i) => v - (before[i] as number));
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

/**
 * What is wrong with steps for this frame, each at its place (`steps/3`).
 * @returns errors, and warnings for what is allowed but worth saying (a bead before any tack).
 */
export function stepProblems(model: MechanicalModel, steps: readonly SimulationStep[]): Problem[] {
  const found: Problem[] = [];
  const held = new Set<string>();
  const clamps = new Set<string>();
  const strongbacks = new Set<string>();
  let said = false;
  const check = (step: SimulationStep, i: number): void => {
    const put = (message: string, severity: Problem["severity"] = "error") =>
      found.push({ path: `steps/${i}`, message, severity });
    const point = (member: string, name: string) => {
      if (!model.nodes.some((n) => n.member === member && n.point === name))
        put(`Step ${i + 1}: ${member} has no point ${name}.`);
    };
    if (step.do === "tack" || step.do === "bead" || step.do === "chord") {
      const joint = model.joints.find((j) => j.id === step.joint);
      if (!joint) {
        put(`Step ${i + 1}: there is no joint ${step.joint}.`);
        return;
      }
      if (lineIndex(joint.spec.kind, step.line) < 0) {
        put(
          `Step ${i + 1}: ${step.joint} has no face ${step.line}. A ${joint.spec.kind} has ${LINES[joint.spec.kind].join(", ")}.`,
        );
        return;
      }
      if (step.do === "chord") {
        if (!joint.chord) put(`Step ${i + 1}: ${step.joint} has no member that runs through.`);
        return;
      }
      const given = step.heatJPerMm ?? step.closingMm;
      if (given === undefined || !(given >= 0) || !Number.isFinite(given))
        put(`Step ${i + 1}: the heat of ${step.joint} ${step.line} must be zero or more.`);
      if (step.do === "tack" && !(step.lengthMm > 0 && Number.isFinite(step.lengthMm)))
        put(`Step ${i + 1}: a tack needs a length.`);
      if (step.do === "bead" && !held.has(step.joint) && !said) {
        said = true;
        put(`Step ${i + 1}: ${step.joint} is beaded before any tack holds it. It will pull far.`, "warning");
      }
      held.add(step.joint);
    } else if (step.do === "clamp") {
      point(step.member, step.point);
      if (clamps.has(step.clamp)) put(`Step ${i + 1}: clamp ${step.clamp} is already on.`);
      if (!(step.stiffnessNPerMm > 0)) put(`Step ${i + 1}: clamp ${step.clamp} has no stiffness.`);
      if (!(norm3(step.direction) > 0)) put(`Step ${i + 1}: clamp ${step.clamp} has no direction.`);
      clamps.add(step.clamp);
    } else if (step.do === "unclamp") {
      if (!clamps.delete(step.clamp)) put(`Step ${i + 1}: clamp ${step.clamp} is not on.`);
    } else if (step.do === "strongback on") {
      point(...step.from);
      point(...step.to);
      if (strongbacks.has(step.strongback)) put(`Step ${i + 1}: strongback ${step.strongback} is already on.`);
      strongbacks.add(step.strongback);
    } else if (step.do === "strongback off") {
      if (!strongbacks.delete(step.strongback)) put(`Step ${i + 1}: strongback ${step.strongback} is not on.`);
    } else if (step.do === "square up") {
      if (!(step.residualShare >= 0 && step.residualShare <= 1))
        put(`Step ${i + 1}: what is left after squaring up lies between 0 and 1.`);
    } else if (step.do === "load") point(step.member, step.point);
  };
  steps.forEach(check);
  const open = model.joints.filter((j) => !held.has(j.id));
  if (steps.length > 0 && open.length > 0)
    found.push({
      path: `joints/${open[0]?.id}`,
      message: `${open.map((j) => j.id).join(", ")} ${open.length === 1 ? "has" : "have"} no weld line in this order: only contact holds there.`,
      severity: "warning",
    });
  return found;
}

/**
 * Turns steps into actions on springs.
 * @param shop what is kept between orders. @param steps without errors (see stepProblems).
 * @throws RangeError with the first error.
 */
export const programme = (shop: Workshop, steps: readonly SimulationStep[]): Programme =>
  drain(programming(shop, steps));

/** As `programme`, with chances to stop on the way. */
export function* programming(shop: Workshop, steps: readonly SimulationStep[]): Generator<number, Programme> {
  const { model } = shop;
  const problems = stepProblems(model, steps);
  const wrong = problems.find((p) => p.severity === "error");
  if (wrong) throw new RangeError(wrong.message);
  return { ...(yield* compiling(shop, steps)), notes: problems.map((p) => p.message) };
}

/** As `programme`, for steps that are known to be without errors: the inner loop of a search. */
export const compile = (shop: Workshop, steps: readonly SimulationStep[]): Programme => drain(compiling(shop, steps));

/** Steps compiled between two chances to stop. */
const STEPS_AT_ONCE = 32;

function* compiling(shop: Workshop, steps: readonly SimulationStep[]): Generator<number, Programme> {
  const { model } = shop;
  const states: RingState[] = model.joints.map(() => shop.state(OPEN));
  const jointIndex = new Map(model.joints.map((j, i) => [j.id, i]));
  const clamps = new Map<string, Extract<Action, { kind: "attach" }>>();
  const actions: Action[] = [];
  const stepOf: number[] = [];
  for (const [i, step] of steps.entries()) {
    if (i % STEPS_AT_ONCE === STEPS_AT_ONCE - 1) yield i / steps.length;
    const put = (action: Action) => {
      actions.push(action);
      stepOf.push(i);
    };
    switch (step.do) {
      case "tack":
      case "bead": {
        const j = jointIndex.get(step.joint) as number;
        const before = states[j] as RingState;
        const { action, after } = shop.transition(step, before, () => ringAction(shop, j, before, step));
        states[j] = after;
        put(action);
        break;
      }
      case "chord":
        put({
          kind: "load",
          column: chordColumn(shop, jointIndex.get(step.joint) as number, step.line),
          size: step.volumeMm3,
        });
        break;
      case "clamp": {
        const node = model.nodeOf(step.member, step.point);
        const d = unit3(step.direction);
        const attach: Action = {
          kind: "attach",
          spring: shop.spring(`clamp/${step.member}/${step.point}/${d.join()}`, () => [
            { at: [6 * node, 6 * node + 1, 6 * node + 2], value: [...d] },
          ]),
          matrix: Float64Array.of(step.stiffnessNPerMm),
          toMm: step.toMm ?? null,
          byMm: step.byMm ?? 0,
        };
        clamps.set(step.clamp, attach);
        put(attach);
        break;
      }
      case "unclamp": {
        const clamp = clamps.get(step.clamp);
        clamps.delete(step.clamp);
        if (clamp) put({ kind: "detach", spring: clamp.spring });
        break;
      }
      case "strongback on": {
        const { spring, matrix } = strongback(shop, step);
        put({ kind: "attach", spring, matrix, toMm: null, byMm: 0 });
        clampsOf(clamps, step.strongback, spring, matrix);
        break;
      }
      case "strongback off": {
        const key = `strongback ${step.strongback}`;
        const on = clamps.get(key);
        clamps.delete(key);
        if (on) put({ kind: "detach", spring: on.spring });
        break;
      }
      case "square up":
        put({ kind: "scale", share: step.residualShare });
        break;
      case "flip": {
        const on = [...clamps].filter(([key]) => !key.startsWith("strongback ")).map(([, clamp]) => clamp);
        for (const clamp of on) put({ kind: "detach", spring: clamp.spring });
        for (const clamp of on) put(clamp);
        if (on.length === 0) put({ kind: "nothing" });
        break;
      }
      case "wait":
        put({ kind: "nothing" });
        break;
      case "load": {
        const node = model.nodeOf(step.member, step.point);
        put({
          kind: "load",
          column: shop.load(`load/${node}/${step.wrench.join()}`, () => ({
            at: [0, 1, 2, 3, 4, 5].map((f) => 6 * node + f),
            value: [...step.wrench],
          })),
          size: 1,
        });
        break;
      }
    }
  }
  return { model, springs: shop.springs, loads: shop.loads, actions, stepOf, steps, notes: [] };
}

function clampsOf(
  clamps: Map<string, Extract<Action, { kind: "attach" }>>,
  id: string,
  spring: number,
  matrix: Float64Array,
): void {
  clamps.set(`strongback ${id}`, { kind: "attach", spring, matrix, toMm: null, byMm: 0 });
}

function chordColumn(shop: Workshop, joint: number, line: string): number {
  const j = shop.model.joints[joint] as ModelJoint;
  return shop.load(`chord/${j.id}/${line}`, () => chordLoad(shop.model, j, lineIndex(j.spec.kind, line)));
}

function ringAction(
  shop: Workshop,
  j: number,
  before: RingState,
  step: Extract<SimulationStep, { do: "tack" | "bead" }>,
): { action: RingAction; after: RingState } {
  const { model, factors } = shop;
  const joint = model.joints[j] as ModelJoint;
  const { ring } = joint;
  const line = lineIndex(joint.spec.kind, step.line);
  const tack = step.do === "tack";
  const now = before[line] as LineState;
  // A second tack on a face lengthens the first; a tack on a bead changes nothing but its heat.
  const next: LineState = step.do === "bead" || now === "welded" ? "welded" : now + step.lengthMm;
  const after = shop.state(before.map((s, l) => (l === line ? next : s)) as unknown as RingState);
  const birth =
    step.do === "tack"
      ? shop.birth(`${j}/${line}/${step.lengthMm}`, () => tackBirth(ring, line, step.lengthMm))
      : shop.birth(`${j}/${line}/${before.join()}/${step.cornerShare}`, () =>
          beadBirth(ring, before, line, step.cornerShare ?? null),
        );
  const held = before.flatMap((s, l): HeldTack[] =>
    typeof s === "number" && s > 0 && (l !== line || tack)
      ? [{ line: l, birth: shop.birth(`${j}/${l}/${s}`, () => tackBirth(ring, l, s)) }]
      : [],
  );
  const { material } = model.frame;
  const strainMm3PerJ = material.alphaPerK / material.heatJPerMm3K;
  const fillet = joint.chord !== null;
  const tackFactor = tack ? factors.tackHeat.value : 1;
  const across = line < 2;
  const heat = step.heatJPerMm ?? 0;
  const wall = ring.perWall / material.eMPa;
  const own: FactorName[] = tack ? ["otherMaterial", "tackHeat"] : ["otherMaterial"];
  let chordMm3 = 0;
  if (joint.chord && heat > 0) {
    const { wallMm, branchWallMm } = joint.chord;
    const share = (2 * wallMm) / (branchWallMm + 2 * wallMm);
    const factor = across
      ? factors.transverse.value * CHORD_EFFECT.across
      : factors.longitudinal.value * CHORD_EFFECT.along;
    chordMm3 = birth.lengthMm * strainMm3PerJ * share * heat * factor * tackFactor;
  }
  const action: RingAction = {
    kind: "ring",
    spring: j,
    line,
    tack,
    delta: shop.delta(j, before, after),
    ring: shop.ringAt(j, after),
    birth,
    held,
    closingMm:
      step.closingMm ??
      (factors.transverse.value * (fillet ? factors.filletClosing.value : 1) * tackFactor * strainMm3PerJ * heat) /
        wall,
    closingFactors:
      step.closingMm === undefined ? ["transverse", ...(fillet ? (["filletClosing"] as const) : []), ...own] : [],
    chordColumn: chordMm3 > 0 ? chordColumn(shop, j, step.line) : -1,
    chordMm3,
    chordFactors: [across ? "transverse" : "longitudinal", ...own],
  };
  return { action, after };
}

/** Two nodes joined by a bar: a six-way spring at its far end, the stiffness of a cantilever of its length. */
function strongback(shop: Workshop, step: Extract<SimulationStep, { do: "strongback on" }>) {
  const { model } = shop;
  const from = model.nodeOf(...step.from);
  const to = model.nodeOf(...step.to);
  const [xFrom, xTo] = [model.nodes[from]?.at as Vec3, model.nodes[to]?.at as Vec3];
  const { widthMm: w, heightMm: h, wallMm: t } = step.section;
  const area = w * h - (w - 2 * t) * (h - 2 * t);
  const second = (a: number, b: number) => (a * b ** 3 - (a - 2 * t) * (b - 2 * t) ** 3) / 12;
  const section: BeamSection = {
    shape: "tube",
    widthMm: w,
    heightMm: h,
    wallMm: t,
    areaMm2: area,
    iyMm4: second(w, h),
    izMm4: second(h, w),
    jMm4: (2 * t * ((w - t) * (h - t)) ** 2) / (w + h - 2 * t),
  };
  const { eMPa, nu } = model.frame.material;
  const axes = memberAxes(xFrom, xTo, undefined, unit3(model.frame.up ?? [0, 0, 1]));
  const k = toGlobal(beamStiffness(section, norm3(sub3(xTo, xFrom)), eMPa, eMPa / (2 * (1 + nu))), axes);
  const matrix = new Float64Array(36);
  for (let i = 0; i < 6; i++) for (let q = 0; q < 6; q++) matrix[i * 6 + q] = k[(6 + i) * 12 + 6 + q] as number;
  const spring = shop.spring(`strongback/${from}/${to}/${w}/${h}/${t}`, () => relativeRows(xTo, from, xFrom, to, xTo));
  return { spring, matrix };
}
