import { heldMechanics, loadSteps } from "../plan";
import { type PredictedOutcome, predictFrame, type SimulationStep } from "../shrink";
import { builtOf } from "./built";
import { factorsOf } from "./factorsOf";
import { heldOf } from "./held";
import type { Plan } from "./planSchema";
import { weldOf } from "./settings";

/** What one way of laying the inside beads leaves, mm. */
export interface InsideWay {
  /** Half the band of AC less BD: how far it may lie from what the frame is set up for. */
  squareMm: number;
  /** What nine frames in ten are flatter than. */
  flatMm: number;
}

/** Insides of the corners later, or before all other beads: what each would leave of this very frame. */
export interface InsideTrade {
  /** Where they stand in the order as it is planned. */
  planned: "first" | "last" | "between";
  /** As planned, or after all other beads where the plan has them first. */
  last: InsideWay;
  first: InsideWay;
}

const wayOf = (outcomes: readonly PredictedOutcome[]): InsideWay | null => {
  const square = outcomes.find((o) => o.id.kind === "square")?.estimate;
  const flat = outcomes.find((o) => o.id.kind === "flat")?.estimate;
  return square && flat ? { squareMm: (square.high - square.low) / 2, flatMm: flat.high } : null;
};

/**
 * The same steps with the inside beads of the corners before all other beads, and after them, with where they stand; null where the order
 * has none, or no others.
 */
export function insidesMoved(
  steps: readonly SimulationStep[],
  corners: ReadonlySet<string>,
): { first: SimulationStep[]; last: SimulationStep[]; planned: InsideTrade["planned"] } | null {
  const isInside = (s: SimulationStep): boolean =>
    s.do === "bead" && corners.has(s.joint) && (s.line === "inside" || s.line === "plus");
  const insides = steps.filter(isInside);
  const rest = steps.filter((s) => !isInside(s));
  const before = rest.findIndex((s) => s.do === "bead");
  if (insides.length === 0 || before < 0) return null;
  const after = rest.findLastIndex((s) => s.do === "bead") + 1;
  const first = [...rest.slice(0, before), ...insides, ...rest.slice(before)];
  const last = [...rest.slice(0, after), ...insides, ...rest.slice(after)];
  const areFirst = steps
    .filter((s) => s.do === "bead")
    .slice(0, insides.length)
    .every(isInside);
  const ofCorners = steps.filter((s) => s.do === "bead" && corners.has(s.joint));
  const areLast = ofCorners.slice(-insides.length).every(isInside);
  return { first, last, planned: areFirst ? "first" : areLast ? "last" : "between" };
}

/**
 * Compares the insides of all mitred corners later, as the order has them, with first, everything else as it is; where the order has them
 * first, with last. A generator, as a prediction is.
 * @returns null for a frame without four corners, or an order without inside beads.
 */
export function* insideTrade(plan: Plan): Generator<number, InsideTrade | null> {
  const { structure, order, on } = builtOf(plan);
  if (!structure?.quad || !order) return null;
  const held = heldOf(structure, plan);
  const { mechanics, by } = heldMechanics(structure, on, held);
  const weld = weldOf(plan);
  const steps = loadSteps(structure, weld, order.steps, by);
  const corners = new Set(structure.joints.filter((j) => j.kind === "mitre").map((j) => j.id));
  const ways = insidesMoved(steps, corners);
  if (!ways) return null;
  const later = ways.planned === "first" ? ways.last : steps;
  const factors = factorsOf(plan);
  const [last, first] = [
    wayOf((yield* predictFrame(structure, mechanics, weld, later, factors)).prediction.outcomes),
    wayOf((yield* predictFrame(structure, mechanics, weld, ways.first, factors)).prediction.outcomes),
  ];
  return last && first ? { planned: ways.planned, last, first } : null;
}
