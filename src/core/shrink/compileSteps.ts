import {
  type Action,
  type Attach,
  type ChordHeat,
  type CompiledLoads,
  columnOf,
  type WeldAction,
  weightLoads,
} from "../mechanics";
import { drain, type Sparse, unit3 } from "../numeric";
import {
  type ChordPlace,
  chordHeat,
  type FactorName,
  kinkLoad,
  type LineState,
  lineIndex,
  lineLengthMm,
  OPEN,
  type WeldedJoint,
  type WeldedModel,
  type WeldState,
} from "../weld";
import { chordVolumeMm3, contractionMm, isAcross } from "./chordContraction";
import { type CompileCache, strongbackKey } from "./compileCache";
import type { SimulationStep } from "./simulationSteps";
import { stepProblems } from "./stepProblems";

/** Steps of an order, compiled for a welded frame. */
export interface CompiledSteps extends CompiledLoads {
  model: WeldedModel;
  steps: readonly SimulationStep[];
  /** What a person must know before trusting the figures. */
  notes: string[];
}

/**
 * Turns steps into actions on springs.
 * @param shop what is kept between orders. @param steps without errors (see stepProblems).
 * @throws RangeError with the first error.
 */
export const compileLoads = (shop: CompileCache, steps: readonly SimulationStep[]): CompiledSteps =>
  drain(compilingLoads(shop, steps));

/** As `compileLoads`, with chances to stop on the way. */
export function* compilingLoads(
  shop: CompileCache,
  steps: readonly SimulationStep[],
): Generator<number, CompiledSteps> {
  const { model } = shop;
  const problems = stepProblems(model, steps);
  const wrong = problems.find((p) => p.severity === "error");
  if (wrong) throw new RangeError(wrong.message);
  return { ...(yield* compiling(shop, steps)), notes: problems.map((p) => p.message) };
}

/** As `compileLoads`, for steps that are known to be without errors: the inner loop of a search. */
export const compile = (shop: CompileCache, steps: readonly SimulationStep[]): CompiledSteps =>
  drain(compiling(shop, steps));

/** Steps compiled between two chances to stop. */
const STEPS_AT_ONCE = 32;

function* compiling(shop: CompileCache, steps: readonly SimulationStep[]): Generator<number, CompiledSteps> {
  const { model } = shop;
  const states: WeldState[] = model.joints.map(() => shop.state(OPEN));
  const jointIndex = new Map(model.joints.map((j, i) => [j.id, i]));
  const clamps = new Map<string, Attach>();
  /** Springs of the strongbacks that are on. */
  const strongbacks = new Map<string, number>();
  /** Loads of the weight that is on. */
  const weights: number[] = [];
  /** Where what is put to touch stands. */
  const stops = new Map<string, { spring: number; at: number }>();
  const actions: Action[] = [];
  const stepOf: number[] = [];
  // What carries a frame carries it from its first step on.
  for (const spring of steps.length > 0 ? shop.slips : []) {
    actions.push({ kind: "float", spring });
    stepOf.push(0);
  }
  for (const [i, step] of steps.entries()) {
    if (i % STEPS_AT_ONCE === STEPS_AT_ONCE - 1) yield i / steps.length;
    const put = (action: Action) => {
      actions.push(action);
      stepOf.push(i);
    };
    switch (step.do) {
      case "tack":
      case "bead":
      case "chord": {
        const j = jointIndex.get(step.joint) as number;
        const before = states[j];
        const { action, after } = shop.transition(step, before, () => weldAction(shop, j, before, step));
        states[j] = after;
        put(action);
        break;
      }
      case "clamp": {
        const node = model.nodeOf(step.member, step.point);
        const d = unit3(step.direction);
        const attach: Attach = {
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
        const { rows, matrix, kinks } = shop.strongback(step);
        const spring = shop.spring(`strongback/${strongbackKey(step)}`, () => rows);
        put({ kind: "attach", spring, matrix, toMm: null, byMm: 0 });
        strongbacks.set(step.strongback, spring);
        for (const { key, load, mm } of kinks) put({ kind: "load", column: shop.load(key, load), size: mm });
        break;
      }
      case "strongback off": {
        const spring = strongbacks.get(step.strongback);
        strongbacks.delete(step.strongback);
        if (spring !== undefined) put({ kind: "detach", spring });
        break;
      }
      case "stop on": {
        const place = shop.contact(step);
        stops.set(step.stop, place);
        put({ kind: "touch", ...place, gapMm: step.gapMm ?? 0, givesMmPerN: step.givesMmPerN ?? 0 });
        break;
      }
      case "stop off": {
        const place = stops.get(step.stop);
        stops.delete(step.stop);
        // Taken away already, or never there: nothing moves.
        put(place ? { kind: "part", ...place } : { kind: "nothing" });
        break;
      }
      case "weight on": {
        const column = shop.load(`weight/${JSON.stringify(step.nPerMm)}`, () => weightColumn(model, step.nPerMm));
        put({ kind: "load", column, size: 1 });
        weights.push(column);
        break;
      }
      case "weight off":
        for (const column of weights) put({ kind: "load", column, size: -1 });
        if (weights.length === 0) put({ kind: "nothing" });
        weights.length = 0;
        break;
      case "square up":
        put({
          kind: "scale",
          share: step.residualShare,
          holds: step.holds === true,
          ...(step.members ? { of: new Set(step.members.flatMap((m) => model.members.get(m)?.nodes ?? [])) } : {}),
        });
        break;
      case "flip": {
        const on = [...clamps.values()];
        for (const clamp of on) put({ kind: "detach", spring: clamp.spring });
        for (const clamp of on) put(clamp);
        if (on.length === 0) put({ kind: "nothing" });
        break;
      }
      case "wait":
        put({ kind: "nothing" });
        break;
      case "load": {
        const on = [step, ...(step.and ? [step.and] : [])].map(({ member, point, wrench }) => ({
          node: model.nodeOf(member, point),
          wrench,
        }));
        put({
          kind: "load",
          column: shop.load(`load/${on.map((o) => `${o.node}/${o.wrench.join()}`).join("/")}`, () => ({
            at: on.flatMap(({ node }) => [0, 1, 2, 3, 4, 5].map((f) => 6 * node + f)),
            value: on.flatMap(({ wrench }) => [...wrench]),
          })),
          size: 1,
        });
        break;
      }
    }
  }
  return { model, springs: shop.springs, posts: shop.posts, loads: shop.loads, actions, stepOf, steps, notes: [] };
}

/** The weight of all members as a load over the freedoms. */
function weightColumn(model: WeldedModel, nPerMm: Readonly<Record<string, number>>): Sparse {
  const load = weightLoads(model, new Map(Object.entries(nPerMm)));
  const at = [...load.keys()].filter((i) => load[i] !== 0);
  return { at, value: at.map((i) => load[i]) };
}

/** What a piece of seam along two members does to both: it shortens them together by so many mm. */
const heatAlong = (
  { kinks }: NonNullable<WeldedJoint["along"]>,
  line: number,
  mm: number,
  factors: FactorName[],
): ChordHeat | null =>
  mm > 0 ? { free: new Float64Array(6), push: new Float64Array(6), kink: columnOf(kinks, line), mm, factors } : null;

/** First of the load columns that kink a joint's chords, six each, one a way; -1 without a chord. */
function kinkColumn(shop: CompileCache, { id, chords, nodeA, nodeB }: WeldedJoint): number {
  const columns = chords.flatMap(({ of, member }) =>
    [0, 1, 2, 3, 4, 5].map((way) =>
      shop.load(`kink/${id}/${of}/${way}`, () =>
        kinkLoad(shop.model, { member, node: of === "a" ? nodeA : nodeB }, way),
      ),
    ),
  );
  return columns[0] ?? -1;
}

/**
 * What heat at a line does to the members that run through, by how much the wall of each contracts there; it scatters as the first does.
 * @param mm of each chord.
 */
function heatOf(
  chords: readonly ChordPlace[],
  welds: Float64Array,
  line: number,
  mm: readonly number[],
  factors: FactorName[],
): ChordHeat | null {
  const [first = 0] = mm;
  if (!(first > 0)) return null;
  const free = new Float64Array(6);
  const push = new Float64Array(6);
  const kink = new Float64Array(6 * chords.length);
  chords.forEach((chord, k) => {
    const heat = chordHeat(chord, welds);
    const share = (mm[k] ?? 0) / first;
    for (let i = 0; i < 6; i++) {
      free[i] = free[i] + share * heat.free[4 * i + line];
      push[i] = push[i] + share * heat.push[4 * i + line];
      kink[6 * k + i] = share * heat.kink[4 * i + line];
    }
  });
  return { free, push, kink, mm: first, factors };
}

function weldAction(
  shop: CompileCache,
  j: number,
  before: WeldState,
  step: Extract<SimulationStep, { do: "tack" | "bead" | "chord" }>,
): { action: WeldAction; after: WeldState } {
  const { model, factors } = shop;
  const joint = model.joints[j] as WeldedJoint;
  const line = lineIndex(joint.spec.kind, step.line);
  const tack = step.do === "tack";
  const now = before[line];
  // A second tack on a face lengthens the first; a tack on a bead changes nothing but its heat.
  const next: LineState =
    step.do === "chord" ? now : step.do === "bead" || now === "welded" ? "welded" : now + step.lengthMm;
  const after = shop.state(before.map((s, l) => (l === line ? next : s)) as unknown as WeldState);
  const state = shop.jointAt(j, after);
  const { material } = model.frame;
  const strainMm3PerJ = material.alphaPerK / material.heatJPerMm3K;
  const { fillet } = joint.faces.kind;
  const tackFactor = tack ? factors.tackHeat.value : 1;
  const across = isAcross(line);
  const heat = step.do === "chord" ? 0 : (step.heatJPerMm ?? 0);
  const wallMm = joint.faces.yieldPerMm / material.yieldMPa;
  const own: FactorName[] = tack ? ["day", "otherMaterial", "tackHeat"] : ["day", "otherMaterial"];
  const share = step.do === "bead" ? (step.share ?? 1) : 1;
  const lengthMm = step.do === "tack" ? step.lengthMm : share * lineLengthMm(joint.faces, line);
  const volumes = joint.chords.map((chord) => {
    const there = chord.lines[line];
    const seam = { line: there, lengthMm, heatJPerMm: heat, heatShare: tackFactor };
    const given = step.do === "chord" && chord.of === "a" ? step.volumeMm3 : 0;
    return heat > 0 ? chordVolumeMm3(chord, seam, factors, material) : given;
  });
  const warmed: FactorName[] = step.do === "chord" ? [] : [across ? "transverse" : "longitudinal", ...own];
  const measured = step.do === "chord" ? 0 : step.closingMm;
  const action: WeldAction = {
    kind: "weld",
    spring: j,
    line,
    // A contraction of the chord alone leaves what holds as it was.
    tack: step.do !== "bead",
    delta: shop.delta(j, before, after),
    joint: state,
    closingMm:
      measured ??
      (share *
        (factors.transverse.value * (fillet ? factors.filletClosing.value : 1) * tackFactor * strainMm3PerJ * heat)) /
        wallMm,
    closingFactors:
      measured === undefined ? ["transverse", ...(fillet ? (["filletClosing"] as const) : []), ...own] : [],
    kinkColumn: kinkColumn(shop, joint),
    heat: joint.along
      ? heatAlong(joint.along, line, volumes.reduce((sum, v) => sum + v, 0) / joint.along.areaMm2, warmed)
      : heatOf(
          joint.chords,
          state.welds,
          line,
          joint.chords.map((chord, k) => contractionMm(chord, chord.lines[line], volumes[k] ?? 0)),
          warmed,
        ),
    lineCv: joint.form.table === "mitre" && step.line === "outside" ? factors.outside.cv : 0,
    unfitted: joint.unfitted.length > 0 ? joint.id : null,
  };
  return { action, after };
}
