import {
  CORNERS,
  type Corner,
  type FaceLine,
  MATERIALS,
  type MaterialName,
  type ResolvedFrame,
  SIDES,
  type Side,
  type Structure,
} from "../frame";
import { fromStructure } from "../mechanics";
import { partOf, type Vec2 } from "../numeric";
import { type Estimate, plainMm } from "../units";
import { FACTORS, factorsFor, heatJPerMm, type ShrinkFactors, type Weld } from "../weld";
import { frameOutputs, frameQuantities } from "./frameQuantities";
import { fromFrame } from "./fromFrame";
import type { OutputPoint } from "./outputs";
import { type SetUpShape, settingUp } from "./setUpShape";
import { DRAWS, type SimulatedQuantity, type Simulation, simulate, type Yielded } from "./simulate";
import type { SimulationStep } from "./simulationSteps";
import { structureOutputs, structureQuantities } from "./structureQuantities";
import { twistStiffness } from "./twistStiffness";

/** One predicted quantity of the cold frame: change from how it was set up, unless it is a size of its own. */
export type PredictedQuantity = Pick<SimulatedQuantity, "id" | "label" | "unit" | "unsigned" | "nominal" | "estimate">;

/** What welding in one order is expected to do to one frame. Losses are positive when the frame gets smaller. */
export interface Prediction {
  heatJPerMm: number;
  /** Free closing of one fully beaded mitre line, mm. */
  closingMm: number;
  /** Of a frame with a rectangle A to D: what its sides lose. Null for others. */
  sidesMm: Record<Side, Estimate> | null;
  /** How much nearer the ends of each member come, mm. */
  spansMm: Record<string, Estimate>;
  /** How far each cross member draws its two sides together where it stands. */
  crossPullMm: { member: string; pullMm: Estimate }[];
  /** Movement of each corner from the shape to set up to the cold frame, mm; null where none is set off nominal. */
  cornerMovesMm: Record<Corner, Vec2> | null;
  quantities: PredictedQuantity[];
  /** Force that lifts one corner of the finished rectangle by 1 mm with three held, N/mm. */
  twistNPerMm: number | null;
  setUp: SetUpShape | null;
  reasons: string[];
}

/** The same step by step, for the drawing and for asking which step did what. */
export interface Replay {
  /** Step that each row belongs to. */
  ids: string[];
  points: OutputPoint[];
  /** Movement of every point after each step, mm. */
  history: Float64Array[];
  /** Each quantity after each step, and what is left in the end of what each step did. */
  quantities: Pick<SimulatedQuantity, "id" | "label" | "unit" | "after" | "byStep">[];
  clampForces: Simulation["clampForces"];
  /** Weld line that each row is about, null for what is no tack or bead. */
  lines: (FaceLine | null)[];
  yielded: Yielded[];
}

export interface FramePrediction {
  prediction: Prediction;
  replay: Replay;
}

const lossOf = ({ value, low, high }: Estimate): Estimate => ({ value: -value, low: -high, high: -low });

/** Share of the work that finding the set-up shape takes, for progress. */
const SET_UP_SHARE = 0.3;

/**
 * Predicts a rectangle welded in one order. A generator: yields the share done.
 * @param frame resolved. @param weld settings. @param steps the order of work as the mechanics sees it.
 * @param factors defaults, or what a shop has learned.
 * @throws RangeError when frame or steps have an error.
 */
export function* predictFrame(
  frame: ResolvedFrame,
  weld: Weld,
  steps: readonly SimulationStep[],
  factors: ShrinkFactors = FACTORS,
): Generator<number, FramePrediction> {
  const material = MATERIALS[frame.material];
  const own = factorsFor(frame.material === "mild steel", factors);
  const heat = heatJPerMm(weld);
  const shape = yield* partOf(settingUp(frame, steps, own), 0, SET_UP_SHARE);
  const simulation = yield* partOf(
    simulate({
      frame: fromFrame(frame, shape.moves),
      steps,
      outputs: frameOutputs(frame),
      quantities: frameQuantities(frame),
      factors: own,
      draws: DRAWS,
    }),
    SET_UP_SHARE,
    0.95 - SET_UP_SHARE,
  );
  const twistNPerMm = yield* partOf(twistStiffness(frame, own), 0.95, 0.05);
  const of = (id: string): Estimate =>
    simulation.quantities.find((q) => q.id === id)?.estimate ?? { value: 0, low: 0, high: 0 };
  const closingMm = (own.transverse.value * material.alphaPerK * heat) / (material.heatJPerMm3K * frame.section.wallMm);
  const prediction: Prediction = {
    heatJPerMm: heat,
    closingMm,
    sidesMm: Object.fromEntries(SIDES.map((s) => [s, lossOf(of(s))])) as Record<Side, Estimate>,
    spansMm: {},
    crossPullMm: frame.members
      .filter((m) => m.kind === "cross")
      .map((m) => ({ member: m.name, pullMm: lossOf(of(`pull ${m.name}`)) })),
    cornerMovesMm: Object.fromEntries(
      CORNERS.map((c) => [c, { x: -shape.moves[c].x, y: -shape.moves[c].y }]),
    ) as Record<Corner, Vec2>,
    quantities: simulation.quantities.map(({ byStep: _, after: __, ...q }) => q),
    twistNPerMm,
    setUp: shape.toSetUp(simulation.quantities),
    reasons: reasonsOf(
      { wallMm: frame.section.wallMm, materials: [frame.material] },
      heat,
      closingMm,
      shape.beyondMm,
      simulation,
    ),
  };
  return { prediction, replay: replayOf(simulation) };
}

const replayOf = (simulation: Simulation): Replay => ({
  ids: simulation.steps.map((s) => s.id),
  points: simulation.points,
  history: simulation.history,
  quantities: simulation.quantities.map(({ id, label, unit, after, byStep }) => ({ id, label, unit, after, byStep })),
  clampForces: simulation.clampForces,
  lines: simulation.steps.map((s) => ("line" in s ? s.line : null)),
  yielded: simulation.yielded,
});

/**
 * Predicts any frame in space welded in one order, as it is drawn: nothing is set up off nominal. A generator: yields the
 * share done.
 * @param rectangle of the structure, or null. @param steps the order of work as the mechanics sees it.
 * @throws RangeError when frame or steps have an error.
 */
export function* predictStructure(
  structure: Structure,
  rectangle: ResolvedFrame | null,
  weld: Weld,
  steps: readonly SimulationStep[],
  factors: ShrinkFactors = FACTORS,
): Generator<number, FramePrediction> {
  const first = structure.members[0];
  if (!first) throw new RangeError("The frame has no member.");
  const material = MATERIALS[first.material];
  const own = factorsFor(first.material === "mild steel", factors);
  const heat = heatJPerMm(weld);
  const { frame, joints } = fromStructure(structure);
  const simulation = yield* simulate({
    frame,
    steps,
    outputs: structureOutputs(structure, rectangle, joints),
    quantities: structureQuantities(structure, rectangle, joints),
    factors: own,
    draws: DRAWS,
  });
  const wall = Math.min(...structure.members.map((m) => m.properties.wallMm));
  const closingMm = (own.transverse.value * material.alphaPerK * heat) / (material.heatJPerMm3K * wall);
  const of = (id: string): Estimate =>
    lossOf(simulation.quantities.find((q) => q.id === id)?.estimate ?? { value: 0, low: 0, high: 0 });
  const has = (id: string): boolean => simulation.quantities.some((q) => q.id === id);
  const materials = new Set(structure.members.map((m) => m.material));
  const prediction: Prediction = {
    heatJPerMm: heat,
    closingMm,
    sidesMm: SIDES.every(has) ? (Object.fromEntries(SIDES.map((s) => [s, of(s)])) as Record<Side, Estimate>) : null,
    spansMm: Object.fromEntries(structure.members.map((m) => [m.id, of(`span ${m.id}`)])),
    crossPullMm: [],
    cornerMovesMm: null,
    quantities: simulation.quantities.map(({ byStep: _, after: __, ...q }) => q),
    twistNPerMm: null,
    setUp: null,
    reasons: [
      ...reasonsOf({ wallMm: wall, materials: [...materials] }, heat, closingMm, null, simulation),
      ...(materials.size > 1
        ? [
            `Several materials: all are worked out as ${MATERIALS[first.material].label}. Take the figures for a rough guide.`,
          ]
        : []),
    ],
  };
  return { prediction, replay: replayOf(simulation) };
}

function reasonsOf(
  { wallMm, materials }: { wallMm: number; materials: readonly MaterialName[] },
  heat: number,
  closingMm: number,
  beyondMm: number | null,
  simulation: Simulation,
): string[] {
  const cautions = new Set(materials.flatMap((m) => MATERIALS[m].caution ?? []));
  const tacks = new Set(
    simulation.yielded.flatMap((y) => {
      const step = simulation.steps[y.step];
      return y.lines.filter((l) => !(step?.do === "bead" && step.line === l)).map((l) => `${y.joint}/${l}`);
    }),
  );
  return [
    ...(beyondMm === null
      ? []
      : [
          `A corner would move by ${plainMm(Math.round(beyondMm))}: more than this model can say. Check heat, wall and sizes; nothing is set up off nominal.`,
        ]),
    `${Math.round(heat)} J/mm on a wall of ${plainMm(wallMm)} closes a mitre freely by about ${closingMm.toFixed(2)} mm under each bead; how much of it the frame lets through depends on what holds by then, so every step is worked through in order.`,
    "Bands hold about nine frames in ten: the same order on frames whose heat, fit and beads scatter. They are wide because no coupon of this shop has been measured.",
    ...(simulation.steps.some((s) => s.do === "clamp")
      ? ["Clamps hold it down on the bed; along the bed it is free to shrink."]
      : []),
    ...(tacks.size > 0
      ? [`${tacks.size} ${tacks.size === 1 ? "tack gives" : "tacks give"} way a little while other faces are welded.`]
      : []),
    ...simulation.notes,
    ...cautions,
  ];
}
