import { type FaceLine, MATERIALS, type MaterialName, type Structure } from "../frame";
import type { MechanicalFrame, StructureMechanics } from "../mechanics";
import { partOf } from "../numeric";
import { type Estimate, formatSmall, physical, type UnitPreference, wallWords } from "../units";
import { FACTORS, factorsFor, heatJPerMm, NOMINAL_JOINTS, type ShrinkFactors, type Weld } from "../weld";
import { bandCauses } from "./bandCauses";
import { frameOutcomes, frameOutputs } from "./frameOutcomes";
import { type LikelyValue, likelyValues, type NominalRun, nominalRun } from "./nominalRun";
import { outcomeKey } from "./outcomeId";
import type { OutputPoint } from "./outputs";
import { lossOf } from "./predicted";
import { type SetUpShape, settingUp } from "./settingUp";
import { DRAWS, type SeamWall, type SimulatedOutcome, type Simulation, simulate, type Yielded } from "./simulate";
import type { SimulationStep } from "./simulationSteps";
import { twistStiffness } from "./twistStiffness";

/** One predicted quantity of the cold frame: change from how it was set up, unless it is a size of its own. */
export type PredictedOutcome = Pick<SimulatedOutcome, "id" | "unit" | "unsigned" | "nominal" | "estimate" | "wide"> & {
  /** What is still to come from a gate on, by its step's id: for a frame that was read there. */
  from: Record<string, Estimate>;
  /** Of places, the worst of which is asked about: what it comes to in some draws, mm, and what is still to come from each gate on. */
  draws?: readonly number[];
  drawsFrom?: Record<string, readonly number[]>;
};

/** Figures that are kept of all places, their gates counted, and draws at least: enough for the band of the worst, few to store. */
const PLACE_FIGURES = 4800;
const LEAST_PLACE_DRAWS = 64;
/** Digits that are kept of them, mm. */
const PLACE_DIGITS = 3;

/** An outcome as a prediction keeps it. @param count draws that are kept of a place. */
function keptOutcome({ byStep: _, after: __, draws, from, ...q }: SimulatedOutcome, count: number): PredictedOutcome {
  const keptDraws = (all: Float64Array): number[] =>
    Array.from(all.subarray(1, 1 + count), (v) => +v.toFixed(PLACE_DIGITS));
  const ofGates = <T>(take: (gate: SimulatedOutcome["from"][string]) => T): Record<string, T> =>
    Object.fromEntries(Object.entries(from).map(([gate, at]) => [gate, take(at)]));
  const kept = { ...q, from: ofGates(({ estimate }) => estimate) };
  return q.id.kind === "place"
    ? { ...kept, draws: keptDraws(draws), drawsFrom: ofGates((at) => keptDraws(at.draws)) }
    : kept;
}

/** What welding in one order is expected to do to one frame. */
export interface Prediction {
  heatJPerMm: number;
  /** Free closing of one fully beaded line of the frame's mitres, else of what joints it has, mm. */
  closingMm: number;
  outcomes: PredictedOutcome[];
  setUp: SetUpShape;
  /** What is added to each member's length so that the cold frame is on nominal, mm. */
  allowancesMm: Record<string, Estimate>;
  /** Force that lifts one corner of the finished quadrilateral by 1 mm with three held, N/mm. */
  twistNPerMm: number | null;
  reasons: string[];
}

/** The same step by step, for the drawing and for asking which step did what. */
export interface Replay {
  /** Step that each row belongs to. */
  ids: string[];
  points: OutputPoint[];
  /** Movement of every point after each step, mm. */
  history: Float64Array[];
  /** Each outcome after each step, and what is left in the end of what each step did. */
  outcomes: Pick<SimulatedOutcome, "id" | "unit" | "after" | "byStep">[];
  clampForces: Simulation["clampForces"];
  released: Simulation["released"];
  /** Weld line that each row is about, null for what is no tack or bead. */
  lines: (FaceLine | null)[];
  yielded: Yielded[];
}

export interface FramePrediction {
  prediction: Prediction;
  replay: Replay;
  /** Every outcome in every draw, draw 0 nominal. */
  drawn: Drawn[];
}

/** One outcome in every draw. */
export type Drawn = Pick<SimulatedOutcome, "id" | "draws" | "from">;

/** How a frame is predicted. */
export interface PredictHow {
  /** For the reasons. */
  units?: UnitPreference;
  /** Is told the likely values before the bands are worked out; those of which only the draws can tell are not among them. */
  early?: ((likely: readonly LikelyValue[]) => void) | undefined;
  /** Draws of the bands, and their seed. */
  draws?: number;
  seed?: number;
  /** Steps, by their ids, from which on changes are asked about besides the whole. */
  gates?: readonly string[];
}

/** Share of the work that finding the set-up shape takes, for progress. */
const SET_UP_SHARE = 0.15;
const EARLY_SHARE = 0.1;

/**
 * Predicts a frame welded in one order, set up off nominal for what that order does. A generator: yields the share done.
 * @param mechanics of the structure. @param steps the order of work as the mechanics sees it.
 * @param factors defaults, or what a shop has learned.
 * @throws RangeError when frame or steps have an error.
 */
export function* predictFrame(
  structure: Structure,
  mechanics: StructureMechanics,
  weld: Weld,
  steps: readonly SimulationStep[],
  factors: ShrinkFactors = FACTORS,
  { units = "mm", early, draws = DRAWS, seed, gates = [] }: PredictHow = {},
): Generator<number, FramePrediction> {
  const first = structure.members[0];
  if (!first) throw new RangeError("The frame has no member.");
  const material = MATERIALS[first.material];
  const own = factorsFor(first.material === "mild steel", factors);
  const heat = heatJPerMm(weld);
  const outputs = frameOutputs(structure, mechanics.joints);
  const outcomes = frameOutcomes(structure, mechanics.joints);
  let isTold = early === undefined;
  const tell = (run: NominalRun): void => {
    if (!isTold) early?.(likelyValues(run, outcomes));
    isTold = true;
  };
  let shape = yield* partOf(settingUp(structure, mechanics, steps, own, tell), 0, SET_UP_SHARE);
  const input = { steps, outputs, outcomes, factors: own };
  if (!isTold) {
    const joints = { ...NOMINAL_JOINTS, gapMm: own.gap.value };
    tell(yield* partOf(nominalRun(shape.frame, steps, own, joints, outputs, "drawn"), SET_UP_SHARE, EARLY_SHARE));
  }
  const begun = SET_UP_SHARE + (early ? EARLY_SHARE : 0);
  const simulated = (frame: MechanicalFrame): Generator<number, Simulation> =>
    partOf(simulate({ ...input, frame, draws, gates, ...(seed === undefined ? {} : { seed }) }), begun, 0.95 - begun);
  let simulation = yield* simulated(shape.frame);
  // The first answer is as a rule right to a few thousandths of a millimetre.
  for (let next = shape.instead(simulation); next; next = shape.instead(simulation)) {
    shape = next;
    simulation = yield* simulated(shape.frame);
  }
  const twistNPerMm = yield* partOf(twistStiffness(structure, mechanics, own), 0.95, 0.05);
  const seam = toldSeam(simulation.walls);
  const fillet = seam?.fillet ? own.filletClosing.value : 1;
  const closingMm = seam
    ? (own.transverse.value * fillet * material.alphaPerK * heat) / (material.heatJPerMm3K * seam.wallMm)
    : 0;
  const setUp = shape.toSetUp(simulation);
  const materials = [...new Set(structure.members.map((m) => m.material))];
  const placed = simulation.outcomes.filter(({ id }) => id.kind === "place").length;
  const placeDraws = Math.max(LEAST_PLACE_DRAWS, Math.floor(PLACE_FIGURES / Math.max(1, placed * (1 + gates.length))));
  const prediction: Prediction = {
    heatJPerMm: heat,
    closingMm,
    outcomes: simulation.outcomes.map((o) => keptOutcome(o, placeDraws)),
    setUp,
    allowancesMm: allowances(structure, setUp, simulation.outcomes),
    twistNPerMm,
    reasons: reasonsOf({ seam, materials }, heat, closingMm, setUp, simulation, units),
  };
  const drawn = simulation.outcomes.map(({ id, draws: all, from }) => ({ id, draws: all, from }));
  return { prediction, replay: replayOf(simulation), drawn };
}

/**
 * What each member is cut longer by: what it is set up longer by; where nothing is set off, what its ends draw together.
 * A side of the quadrilateral is taken as a tape takes it, over its outside corners.
 */
function allowances(
  structure: Structure,
  setUp: SetUpShape,
  outcomes: readonly SimulatedOutcome[],
): Record<string, Estimate> {
  const { quad } = structure;
  const known = new Map(outcomes.map((o) => [outcomeKey(o.id), o.estimate]));
  const targets = new Map(setUp.targets.map((t) => [outcomeKey(t.id), t]));
  const sides = new Map(quad ? Object.entries(quad.sides).map(([side, member]) => [member, side]) : []);
  return Object.fromEntries(
    structure.members.map((m) => {
      const key = sides.get(m.id) ?? outcomeKey({ kind: "length", member: m.id });
      const change = known.get(key) ?? { value: 0, low: 0, high: 0 };
      const target = targets.get(key);
      if (setUp.beyondMm !== null || !target) return [m.id, lossOf(change)];
      const { value, low, high } = target.target;
      return [m.id, { value: value - target.nominal, low: low - target.nominal, high: high - target.nominal }];
    }),
  );
}

const replayOf = (simulation: Simulation): Replay => ({
  ids: simulation.steps.map((s) => s.id),
  points: simulation.points,
  history: simulation.history,
  outcomes: simulation.outcomes.map(({ id, unit, after, byStep }) => ({ id, unit, after, byStep })),
  clampForces: simulation.clampForces,
  released: simulation.released,
  lines: simulation.steps.map((s) => ("line" in s ? s.line : null)),
  yielded: simulation.yielded,
});

/** The joint that a free closing is told of: a mitre where there is one, else the kind that there is most of; of these the thinnest wall. */
function toldSeam(walls: readonly SeamWall[]): SeamWall | null {
  const count = (kind: SeamWall["kind"]): number => walls.filter((w) => w.kind === kind).length;
  const rank = ({ kind }: SeamWall): number => (kind === "mitre" ? Number.POSITIVE_INFINITY : count(kind));
  return walls.reduce<SeamWall | null>((best, w) => {
    const more = best ? rank(w) - rank(best) : 1;
    return more > 0 || (w.kind === best?.kind && w.wallMm < best.wallMm) ? w : best;
  }, null);
}

/** A push is along the bed when it is this near to level. */
const LEVEL = 0.5;

/** What holds the frame meanwhile, in words; none where nothing does. */
function heldReasons(steps: readonly SimulationStep[]): string[] {
  const has = (is: (s: SimulationStep) => boolean): boolean => steps.some(is);
  const isAlong = has((s) => s.do === "stop on" && !s.against && Math.abs(s.push[2]) < LEVEL);
  const along = isAlong
    ? "along the bed stops push where it touches them, until it is turned over or cold"
    : "along the bed it is free to shrink";
  return [
    ...(has((s) => s.do === "clamp") ? [`Clamps hold it down on the bed; ${along}.`] : []),
    ...(has((s) => s.do === "weight on") ? [`It lies on the bed by its own weight; ${along}.`] : []),
    ...(isAlong && !has((s) => s.do === "clamp" || s.do === "weight on") ? [`Nothing holds it down; ${along}.`] : []),
    ...(has((s) => s.do === "strongback on")
      ? ["Bars that are tacked on hold it until they are cut off: what they hold elastically comes back then."]
      : []),
    ...(has((s) => s.do === "stop on" && s.against !== undefined)
      ? ["A block keeps its members apart, and only pushes."]
      : []),
  ];
}

/** Less than this beside the drawing is not worth a word, mm: what a tape is read to. */
const ASIDE_TOLD_MM = 0.5;
/** Members that are named for it at most. */
const ASIDE_NAMED = 4;

/** Which members cannot be laid so that all of them lands on nominal, and by how much the worst place stays off. */
function asideReasons(asideMm: Record<string, number>, units: UnitPreference): string[] {
  const told = Object.entries(asideMm)
    .filter(([, mm]) => mm >= ASIDE_TOLD_MM)
    .sort((a, b) => b[1] - a[1])
    .slice(0, ASIDE_NAMED)
    .map(([member, mm]) => `${member} by up to ${formatSmall(mm, units, { decimals: 1 })}`);
  return told.length > 0
    ? [
        `No straight tube is laid so that every place of it lands on the drawing: what stays off is shared among its places (${told.join(", ")}).`,
      ]
    : [];
}

function reasonsOf(
  { seam, materials }: { seam: SeamWall | null; materials: readonly MaterialName[] },
  heat: number,
  closingMm: number,
  { beyondMm, asideMm = {} }: Pick<SetUpShape, "beyondMm" | "asideMm">,
  simulation: Simulation,
  units: UnitPreference,
): string[] {
  const cautions = new Set(materials.flatMap((m) => MATERIALS[m].caution ?? []));
  const tacks = new Set(
    simulation.yielded.flatMap((y) => {
      const step = simulation.steps[y.step];
      return y.lines.filter((l) => !(step?.do === "bead" && step.line === l)).map((l) => `${y.joint}/${l}`);
    }),
  );
  const [first] = materials;
  return [
    ...(beyondMm === null
      ? []
      : [
          `A corner would move by ${formatSmall(Math.round(beyondMm), units)}: more than this model can say. Check heat, wall and sizes; nothing is set up off nominal.`,
        ]),
    ...(seam
      ? [
          `${physical("heat", heat, units)} on a wall of ${wallWords(seam.wallMm, units)} closes a ${seam.kind} freely by about ${formatSmall(closingMm, units, { decimals: units === "mm" ? 2 : 1 })} under each bead; how much of it the frame lets through depends on what holds by then, so every step is worked through in order.`,
        ]
      : []),
    ...asideReasons(asideMm, units),
    "Bands hold about nine frames in ten: the same order on frames whose heat, fit and beads scatter.",
    ...bandCauses(simulation.outcomes),
    ...heldReasons(simulation.steps),
    ...(tacks.size > 0
      ? [`${tacks.size} ${tacks.size === 1 ? "tack gives" : "tacks give"} way a little while other faces are welded.`]
      : []),
    ...simulation.notes,
    ...(materials.length > 1 && first
      ? [`Several materials: all are worked out as ${MATERIALS[first].label}. Take the figures for a rough guide.`]
      : []),
    ...cautions,
  ];
}
