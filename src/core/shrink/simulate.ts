import { inRuns } from "../cut";
import type { FaceLine } from "../frame";
import { type BeamJointKind, type LetGo, LowRankRun, type MechanicalFrame, NO_DRAWS } from "../mechanics";
import { partOf, smoothQuantile } from "../numeric";
import type { Estimate } from "../units";
import { FACTORS, NOMINAL_JOINTS, type ShrinkFactors, type WeldedModel } from "../weld";
import { drawsOf, type FrameDraws, type ScatterName } from "./draws";
import { nominalRun, readied } from "./nominalRun";
import type { OutcomeId } from "./outcomeId";
import { type Outcome, outcomeAt } from "./outcomes";
import type { OutputPoint, Outputs } from "./outputs";
import type { SimulationStep } from "./simulationSteps";

/** Draws for a band, the nominal frame besides. */
export const DRAWS = 160;
/** Every band comes from the same draws, so that two orders differ by their order alone. */
const SEED = 20_406;

export interface SimulationInput {
  frame: MechanicalFrame;
  steps: readonly SimulationStep[];
  /** Points to follow and outcomes to report, for the model that the frame becomes. */
  outputs: (model: WeldedModel) => Outputs;
  outcomes: (model: WeldedModel, outputs: Outputs) => Outcome[];
  factors?: ShrinkFactors;
  /** Draws for the bands; 0 for the nominal frame alone. */
  draws?: number;
  /** Another seed gives other draws. */
  seed?: number;
  /** Stiffness of all joints over that of their tables; 1 when left out. */
  jointShare?: number;
  /** Steps, by their ids, from which on changes are asked about besides the whole: moments when the frame is read. */
  gates?: readonly string[];
}

/** One quantity of the cold frame. */
export interface SimulatedOutcome {
  id: OutcomeId;
  unit: Outcome["unit"];
  unsigned: boolean;
  /** Of the nominal frame. */
  nominal: number;
  /** What to expect, with the band that holds about nine in ten. */
  estimate: Estimate;
  /** Share of the band's variance that each kind of scatter makes by itself; what is left they make together. Null without draws. */
  wide: Record<ScatterName, number> | null;
  /** Value in each draw, draw 0 nominal. */
  draws: Float64Array;
  /** What is still to come from each of the gates on, by its step's id; not of sizes that cannot be negative. */
  from: Record<string, { estimate: Estimate; draws: Float64Array }>;
  /** Nominal value after each step (of the same sum over points as at the end, for a flatness or a bow). */
  after: Float64Array;
  /** What is left of what each step did in the final nominal value; they add up to it. Squaring up takes back what came before. */
  byStep: Float64Array;
}

/** A tack or bead that reached its yield force. */
export interface Yielded {
  step: number;
  joint: string;
  lines: FaceLine[];
}

/** A clamp, stop or strongback that was let go. */
export interface Released {
  step: number;
  /** Its name, as its step called it. */
  what: string;
  /** What it held with, N: of the nominal frame, and what nineteen in twenty stay under. */
  forceN: number;
  highN: number;
  /** How far the frame goes there, mm, and the energy that it gives off, J. */
  movedMm: number;
  energyJ: number;
}

/** A joint as its beads find it. */
export interface SeamWall {
  kind: BeamJointKind;
  fillet: boolean;
  wallMm: number;
}

export interface Simulation {
  steps: readonly SimulationStep[];
  /** Of every joint. */
  walls: SeamWall[];
  points: OutputPoint[];
  /** Movement of every point after each step, nominal frame: x, y, z in mm. */
  history: Float64Array[];
  outcomes: SimulatedOutcome[];
  /** Pull of every clamp after each step, N: positive when the frame wants to move along the clamp's direction. Push of every stop. */
  clampForces: { id: string; forceN: number }[][];
  yielded: Yielded[];
  released: Released[];
  /** What a person must know before trusting the figures. */
  notes: string[];
  /** Tension left in the tacks that were not welded over, N. */
  tackForces: { joint: string; line: FaceLine; forceN: number }[];
}

/** Shares of the work, for progress: to make a frame ready, then to work through it in all draws; what is left goes to stiffer joints. */
const READY_SHARE = 0.05;
const DRAWN_SHARE = 0.8;
/** Draws of a quantity between two chances to stop. */
const DRAWS_AT_ONCE = 8;

/** What scatters one by one in a frame. */
export const scatteredOf = (model: WeldedModel, steps: readonly SimulationStep[]) => ({
  tacks: steps.flatMap((s) => (s.do === "tack" ? [s.id] : [])),
  beads: steps.flatMap((s) => (s.do === "bead" || s.do === "chord" ? [s.id] : [])),
  joints: model.joints.map((j) => j.id),
});

/**
 * Works through the steps of a frame: movement after each, final shape with bands, what each step did to it.
 * A generator, so that whoever drives it can show progress (it yields shares done, 0 to 1) and stop between any two parts.
 * @throws RangeError when the frame or the steps have an error: ask frameProblems and stepProblems first.
 */
export function* simulate(input: SimulationInput): Generator<number, Simulation> {
  const { frame, steps, factors = FACTORS, draws: count = DRAWS, seed = SEED, gates = [], jointShare = 1 } = input;
  const nominal = { ...NOMINAL_JOINTS, gapMm: factors.gap.value, joint: jointShare };
  const ready = readied(frame, steps, factors, nominal, input.outputs, "set up");
  const { model, cache, plan, outputs, condensed } = yield* partOf(ready, 0, READY_SHARE);
  const draws = count > 0 ? drawsOf(factors, count + 1, seed, scatteredOf(model, steps)) : null;
  const run = new LowRankRun(condensed, draws ?? NO_DRAWS);
  const m = condensed.outputs.count;
  const history: Float64Array[] = steps.map(() => new Float64Array(0));
  const clampForces: Simulation["clampForces"] = steps.map(() => []);
  const yielded: Yielded[] = [];
  const released: Released[] = [];
  const stops = new Map(
    steps.flatMap((s) => {
      if (s.do !== "stop on") return [];
      const { spring, at } = cache.contact(s);
      return [[`${spring - model.joints.length}/${at}`, s.stop] as const];
    }),
  );
  /** Outputs of every draw at each gate. */
  const atGates = new Map<string, Float64Array>();
  yield* partOf(
    run.whole(plan, (a) => {
      const step = plan.stepOf[a];
      clampForces[step] = [
        ...run.clampForces(),
        ...run.contactForces().map((c) => ({ id: stops.get(`${c.post}/${c.at}`) ?? "", forceN: c.forceN })),
      ];
      if (run.letGo) released.push(releasedOf(run.letGo, step, steps[step]));
      if (run.yielded.length > 0) yielded.push(...yieldedIn(model, run.yielded, step));
      // A step of several actions stands after its last.
      if (plan.stepOf[a + 1] === step) return;
      history[step] = run.outputsOf(0).slice();
      if (gates.includes((steps[step] as SimulationStep).id)) atGates.set(steps[step].id, run.gather().slice());
    }),
    READY_SHARE,
    count > 0 ? DRAWN_SHARE : 1 - READY_SHARE,
  );

  const tackForces = run.tackForces().map(({ joint, line, forceN }) => ({
    joint: model.joints[joint].id,
    line: model.joints[joint].faces.kind.lines[line],
    forceN,
  }));
  run.done();
  const samples = run.out;
  if (draws) {
    // What scatter of the joints' stiffness does to the outputs, per standard deviation of its logarithm.
    const spread = Math.exp(Math.sqrt(Math.log(1 + factors.joint.cv ** 2)));
    const stiffer = { ...nominal, joint: nominal.joint * spread };
    const done = READY_SHARE + DRAWN_SHARE;
    const { out } = yield* partOf(nominalRun(frame, steps, factors, stiffer, input.outputs), done, 1 - done);
    const effect = out.map((v, o) => v - samples[o]);
    for (let d = 1; d <= count; d++)
      for (let o = 0; o < m; o++) samples[d * m + o] = samples[d * m + o] + draws.stiffness[d] * effect[o];
  }
  const outcomes: SimulatedOutcome[] = [];
  const takenBack = takenBackOf(model, steps);
  for (const q of input.outcomes(model, outputs))
    outcomes.push(yield* simulatedOutcome(q, samples, m, draws, history, steps, atGates, takenBack));
  return {
    steps,
    walls: model.joints.map(({ faces: { kind, yieldPerMm } }) => ({
      kind: kind.name,
      fillet: kind.fillet,
      wallMm: yieldPerMm / model.frame.material.yieldMPa,
    })),
    points: outputs.points,
    history,
    outcomes,
    clampForces,
    yielded,
    released,
    notes: [...plan.notes, ...unfittedNotes(model)],
    tackForces,
  };
}

/** Joints of which lines yielded in a step. @param yielded four times a joint's place and a line's. */
const yieldedIn = (model: WeldedModel, yielded: readonly number[], step: number): Yielded[] =>
  model.joints.flatMap((joint, j) => {
    const lines = joint.faces.kind.lines.filter((_, l) => yielded.includes(4 * j + l));
    return lines.length > 0 ? [{ step, joint: joint.id, lines }] : [];
  });

const NMM_PER_J = 1000;

function releasedOf({ forcesN, movedMm, energyNmm }: LetGo, step: number, by: SimulationStep | undefined): Released {
  const what =
    by?.do === "unclamp"
      ? by.clamp
      : by?.do === "stop off"
        ? by.stop
        : by?.do === "strongback off"
          ? by.strongback
          : "";
  const drawn = forcesN.slice(1).map(Math.abs).sort();
  const forceN = Math.abs(forcesN[0] ?? 0);
  return {
    step,
    what,
    forceN,
    highN: Math.max(forceN, drawn.length > 0 ? smoothQuantile(drawn, 0.95) : forceN),
    movedMm,
    energyJ: energyNmm / NMM_PER_J,
  };
}

/** Joints by their names; of several on one member those that land there, and members that carry the same ones together. */
function jointNames(joints: WeldedModel["joints"]): string {
  const isCorner = ({ id, spec }: WeldedModel["joints"][number]): boolean => !id.includes("/") || spec.kind === "mitre";
  const landing = new Map<string, Set<string>>();
  // Pieces of seam along two members are told as one.
  for (const { spec } of joints.filter((j) => !isCorner(j)))
    landing.set(spec.a, (landing.get(spec.a) ?? new Set()).add(spec.b));
  const carriers = new Map<string, string[]>();
  for (const [chord, branches] of landing) {
    const names = inRuns([...branches]);
    carriers.set(names, [...(carriers.get(names) ?? []), chord]);
  }
  const corners = inRuns(joints.filter(isCorner).map((j) => j.id));
  return [...(corners ? [corners] : []), ...[...carriers].map(([names, on]) => `${names} on ${inRuns(on)}`)].join("; ");
}

/** Which joints lie beyond the tables, once per reason. */
function unfittedNotes(model: WeldedModel): string[] {
  const by = new Map<string, WeldedModel["joints"]>();
  for (const joint of model.joints) for (const why of joint.unfitted) by.set(why, [...(by.get(why) ?? []), joint]);
  return [...by].map(
    ([why, joints]) =>
      `${joints.length === model.joints.length ? "All joints" : jointNames(joints)}: ${why}, so the nearest entry of the tables is taken and the band is wider.`,
  );
}

/** Steps at a part of the frame that are taken back where that part is squared up, by the places of both in the order. */
function takenBackOf(model: WeldedModel, steps: readonly SimulationStep[]): Map<number, number[]> {
  const joints = new Map(model.joints.map((j) => [j.id, j.spec]));
  const membersOf = (step: SimulationStep): string[] => {
    if (step.do === "strongback on") return [step.from[0], step.to[0]];
    if (!("joint" in step)) return "member" in step ? [step.member] : [];
    const joint = joints.get(step.joint);
    return joint ? [joint.a, joint.b] : [];
  };
  return new Map(
    steps.flatMap((step, s) => {
      if (step.do !== "square up" || !step.members) return [];
      const { members } = step;
      const isIn = (i: number): boolean => {
        const own = membersOf(steps[i] as SimulationStep);
        return own.length > 0 && own.every((m) => members.includes(m));
      };
      return [[s, [...steps.keys()].filter((i) => i < s && isIn(i))] as const];
    }),
  );
}

/** @param samples outputs of every draw, draw 0 nominal. @param takenBack see `takenBackOf`. */
function* simulatedOutcome(
  q: Outcome,
  samples: Float64Array,
  m: number,
  draws: FrameDraws | null,
  history: readonly Float64Array[],
  steps: readonly SimulationStep[],
  atGates: ReadonlyMap<string, Float64Array>,
  takenBack: ReadonlyMap<number, readonly number[]>,
): Generator<number, SimulatedOutcome> {
  const nominal = outcomeAt(q, samples, 0);
  const { at, value } = q.weights(samples, 0);
  const byStep = new Float64Array(history.length);
  const after = new Float64Array(history.length);
  history.forEach((out, s) => {
    let here = 0;
    for (let i = 0; i < at.length; i++) here += value[i] * out[at[i]];
    after[s] = here;
    const step = steps[s];
    const back = takenBack.get(s);
    if (step?.do === "square up" && !back) for (let i = 0; i < s; i++) byStep[i] = byStep[i] * step.residualShare;
    else if (step?.do === "square up" && back) {
      for (const i of back) byStep[i] = byStep[i] * step.residualShare;
      // What it does besides: what little a part moved the rest by.
      byStep[s] = here - byStep.reduce((sum, v) => sum + v, 0);
    } else byStep[s] = here - (s > 0 ? after[s - 1] : 0);
  });
  const all = new Float64Array(draws?.count ?? 1);
  all[0] = nominal;
  for (let d = 1; d < all.length; d++) {
    all[d] = outcomeAt(q, samples, d * m);
    if (d % DRAWS_AT_ONCE === 0) yield 1;
  }
  const from: SimulatedOutcome["from"] = {};
  if (!q.unsigned)
    for (const [gate, out] of atGates) {
      const left = all.map((v, d) => v - outcomeAt(q, out, d * m));
      from[gate] = { draws: left, estimate: band(left.slice(1).sort(), left[0], false) };
    }
  return {
    id: q.id,
    unit: q.unit,
    unsigned: q.unsigned,
    from,
    nominal,
    after,
    byStep,
    wide: draws?.sharesOf(all) ?? null,
    draws: all,
    estimate: band(all.slice(1).sort(), nominal, q.unsigned),
  };
}

/**
 * Value and the band that holds about nine draws in ten. The value is the nominal one, or the middle of the draws for a
 * size that scatter can only add to (a flatness of the nominal frame is far smaller than any real one).
 */
function band(sorted: Float64Array, nominal: number, unsigned: boolean): Estimate {
  if (sorted.length === 0) return { value: nominal, low: nominal, high: nominal };
  const quantile = (share: number): number => smoothQuantile(sorted, share);
  const value = unsigned ? quantile(0.5) : nominal;
  return { value, low: Math.min(value, quantile(0.05)), high: Math.max(value, quantile(0.95)) };
}
