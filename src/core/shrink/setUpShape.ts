import { CORNERS, type Corner, ends, type ResolvedFrame, SIDES, SPANS, type Span } from "../frame";
import { condensing, LowRankRun } from "../mechanics";
import { distance, type Vec2 } from "../numeric";
import type { Estimate } from "../units";
import { NOMINAL_STIFFNESS, type ShrinkFactors, weldedModel } from "../weld";
import { CompileCache } from "./compileCache";
import { compilingLoads } from "./compileSteps";

import { frameOutputs } from "./frameQuantities";
import { fromFrame } from "./fromFrame";
import type { SimulatedQuantity } from "./simulate";
import type { SimulationStep } from "./simulationSteps";

/** One thing to set up off nominal. */
export interface SetUpTarget {
  id: string;
  label: string;
  unit: "mm" | "°";
  /** What to set it to; the band says how far the cold frame may still scatter about nominal. */
  target: Estimate;
  /** What it shall be when cold. */
  nominal: number;
}

/** What to build off nominal so that the cold frame lands on nominal. */
export interface SetUpShape {
  /** Sides and diagonals (mm), corner presets (degrees), camber of each member (mm; outward, and up). */
  targets: SetUpTarget[];
  /** Rounds that it took, and what was left at the end, mm. */
  rounds: number;
  leftMm: number;
}

/** Corners set up off nominal. */
export interface SettingUp {
  /** How far a corner would move when that is more than the model can say: then nothing is set off. Null as a rule. */
  beyondMm: number | null;
  moves: Record<Corner, Vec2>;
  toSetUp: (quantities: readonly SimulatedQuantity[]) => SetUpShape;
}

/** The set-up shape is found when another round changes no corner by more than this, mm. */
const CLOSE_MM = 1e-6;
const MOST_ROUNDS = 8;
/** Movement beyond this share of the shorter side is more than a linear model can say. */
const MOST_SHARE = 0.02;

/**
 * Finds the corners to set up: nominal less the movement that this very set-up then makes, round after round until it
 * stands still. Each round is a run of the nominal frame.
 * @throws RangeError when frame or steps have an error.
 */
export function* settingUp(
  frame: ResolvedFrame,
  steps: readonly SimulationStep[],
  factors: ShrinkFactors,
): Generator<number, SettingUp> {
  const still: Vec2 = { x: 0, y: 0 };
  let moves = Object.fromEntries(CORNERS.map((c) => [c, still])) as Record<Corner, Vec2>;
  let leftMm = Number.POSITIVE_INFINITY;
  let rounds = 0;
  while (rounds < MOST_ROUNDS && leftMm > CLOSE_MM) {
    const model = weldedModel(fromFrame(frame, moves), { ...NOMINAL_STIFFNESS, fitup: factors.fitup.value });
    yield Math.min(0.9, rounds / 3);
    const plan = yield* compilingLoads(new CompileCache(model, factors), steps);
    yield Math.min(0.9, rounds / 3);
    const outputs = frameOutputs(frame)(model);
    const corners = outputs.points.filter((p) => p.member === null);
    const condensed = yield* condensing(plan, outputs.rows.slice(0, 3 * corners.length));
    const out = yield* new LowRankRun(condensed).whole(plan);
    const next = Object.fromEntries(
      corners.map((p) => [p.id, { x: -(out[p.first] as number), y: -(out[p.first + 1] as number) }]),
    ) as Record<Corner, Vec2>;
    const most = Math.max(...CORNERS.map((c) => distance(next[c], still)));
    if (!(most <= MOST_SHARE * Math.min(frame.lengthMm, frame.widthMm))) {
      const none = Object.fromEntries(CORNERS.map((c) => [c, still])) as Record<Corner, Vec2>;
      return { beyondMm: most, moves: none, toSetUp: (q) => toSetUp(frame, none, q, rounds, most) };
    }
    leftMm = Math.max(...CORNERS.map((c) => distance(next[c], moves[c])));
    moves = next;
    rounds++;
  }
  const found = moves;
  return { beyondMm: null, moves: found, toSetUp: (quantities) => toSetUp(frame, found, quantities, rounds, leftMm) };
}

function toSetUp(
  frame: ResolvedFrame,
  moves: Record<Corner, Vec2>,
  quantities: readonly SimulatedQuantity[],
  rounds: number,
  leftMm: number,
): SetUpShape {
  const at = (c: Corner): Vec2 => ({ x: frame.corners[c].x + moves[c].x, y: frame.corners[c].y + moves[c].y });
  const known = new Map(quantities.map((q) => [q.id, q]));
  /** The target with the scatter of the change about its likely value. */
  const around = (id: string, value: number): Estimate => {
    const e = known.get(id)?.estimate ?? { value: 0, low: 0, high: 0 };
    return { value, low: value - (e.high - e.value), high: value + (e.value - e.low) };
  };
  const spans = SPANS.map((s: Span): SetUpTarget => {
    const [p, q] = ends(s);
    return {
      id: s,
      label: SIDES.some((x) => x === s) ? `side ${s}` : `diagonal ${s}`,
      unit: "mm",
      target: around(s, distance(at(p), at(q))),
      nominal: distance(frame.corners[p], frame.corners[q]),
    };
  });
  const opposite = (id: string, label: string, nominal: number, unit: SetUpTarget["unit"]): SetUpTarget => ({
    id,
    label,
    unit,
    target: around(id, nominal - (known.get(id)?.estimate.value ?? 0)),
    nominal,
  });
  return {
    targets: [
      ...spans,
      ...CORNERS.map((c) => opposite(`angle ${c}`, `corner ${c}`, 90, "°")),
      ...frame.members.flatMap((m) => [
        opposite(`bow ${m.name}`, `camber of ${m.name}, along the bed`, 0, "mm"),
        opposite(`lift ${m.name}`, `camber of ${m.name}, up`, 0, "mm"),
      ]),
    ],
    rounds,
    leftMm,
  };
}
