import {
  chosenOrder,
  facesLeft,
  heldMechanics,
  laterGates,
  loadSteps,
  type OrderChoice,
  putBackIn,
  type Step,
  USUAL_ORDER,
  withBars,
} from "../plan";
import {
  frameOutcomes,
  frameOutputs,
  leanNoise,
  type OrderTrial,
  type OutcomeId,
  type Prediction,
  type SimulationStep,
  TriedFrame,
} from "../shrink";
import { placesOf } from "../square";
import { factorsFor } from "../weld";
import { builtOf } from "./built";
import { forecasting } from "./evaluate";
import { factorsOf } from "./factorsOf";
import { heldOf } from "./held";
import type { Job } from "./jobSchema";
import { laidRoughly } from "./laidRoughly";
import { schoolChoices, withCut } from "./orderChoices";
import { weldOf } from "./settings";

/** A limit that is all but lost counts as this chance, so that orders can still be told apart. */
const LOST = 1e-6;
const NOTHING: Prediction = {
  heatJPerMm: 0,
  closingMm: 0,
  outcomes: [],
  setUp: { targets: [], offsetsMm: {}, rounds: 0, leftMm: 0, beyondMm: null },
  allowancesMm: {},
  twistNPerMm: null,
  reasons: [],
};

/** What any limit may be about. */
const LIMITED: readonly OutcomeId["kind"][] = ["span", "mouth", "square", "angle", "flat", "twist", "place"];

/**
 * Worth of an order by a few draws that all orders share: the sum of the logarithms of the chances of its limits. The frame is made ready
 * once, however many draws are asked for afterwards.
 */
export function worthsOf(job: Job): (draws?: number) => (choice: OrderChoice) => number {
  const { structure, on } = builtOf(job.plan);
  if (!structure) throw new RangeError("The frame has errors.");
  const held = heldOf(structure, job.plan);
  const { mechanics, by } = heldMechanics(structure, on, held);
  const weld = weldOf(job.plan);
  const factors = factorsFor(structure.members[0]?.material === "mild steel", factorsOf(job.plan));
  const known = new Map<string, SimulationStep[]>();
  const load = (steps: readonly Step[]): SimulationStep[] => {
    const putBack = putBackIn(structure, steps);
    return steps.flatMap((s) => {
      const key = `${s.key} ${s.up} ${s.closes} ${s.why.kind === "cut and set"} ${putBack.get(s.key) ?? ""}`;
      const made = known.get(key) ?? loadSteps(structure, weld, [s], by, putBack);
      known.set(key, made);
      return made;
    });
  };
  const stepsOf = (choice: OrderChoice): SimulationStep[] =>
    load(withBars(chosenOrder(structure, on, choice), held.bars).steps);
  // A search tacks where no school does.
  const everyTack: OrderChoice = {
    ...USUAL_ORDER,
    by: "own",
    steps: facesLeft(structure, []).map(({ joint, line }) => ({ do: "tack", joint, line })),
  };
  const { of, isRead, gate } = forecasting(job, NOTHING);
  // What was read is known: from there on all orders are compared.
  const since = gate !== null && laterGates(builtOf(job.plan).order?.steps ?? []).includes(gate) ? gate : null;
  const judged = of([]).map((f) => f.limit);
  const straight = judged.some((l) => l.kind === "straight");
  // Feet are judged once they were read.
  const byFeet = judged.some((l) => l.ofFeet);
  const frame = new TriedFrame(
    mechanics.frame,
    stepsOf(USUAL_ORDER),
    [...schoolChoices(job).flatMap((c) => [c, withCut(job, c, true) ?? c]), everyTack].flatMap(stepsOf),
    factors,
    frameOutputs(structure, mechanics.joints),
    frameOutcomes(structure, mechanics.joints),
    ({ kind }) => LIMITED.includes(kind) || (byFeet && kind === "feet") || straight,
  );
  const isSetUp = job.plan.aim === "set-up" && !isRead;
  // What is set up off nominal ends on nominal, but for a lean that is less than its scatter.
  const isSetOff = structure.quad !== null && isSetUp;
  // Places of a frame without corners end there as well as straight tubes can be laid so.
  const places = structure.quad === null && isSetUp ? placesOf(structure) : null;
  const worthOf = (trial: OrderTrial, choice: OrderChoice): number => {
    const rough = trial.of(stepsOf(choice), since).outcomes.map((told) => ({
      ...told,
      unit: "mm" as const,
      unsigned: false,
      nominal: told.estimate.value,
      wide: null,
      from: {},
    }));
    const stays = new Set<string>([
      "flat",
      "twist",
      "bow",
      "lift",
      ...(leanNoise({ outcomes: rough }) ? ["square"] : []),
    ]);
    const centred = rough.map((o) =>
      isSetOff && !stays.has(o.id.kind)
        ? {
            ...o,
            estimate: {
              value: 0,
              low: o.estimate.low - o.estimate.value,
              high: o.estimate.high - o.estimate.value,
            },
            ...(o.draws ? { draws: o.draws.map((v) => v - o.estimate.value) } : {}),
          }
        : o,
    );
    return of(centred, places ? laidRoughly(structure, places, rough) : {}).reduce(
      (sum, f) => sum + (f.chance === null ? 0 : Math.log(Math.max(f.chance, LOST))),
      0,
    );
  };
  return (draws) => {
    const trial = frame.by(draws);
    return (choice) => worthOf(trial, choice);
  };
}

/** Worth by so many draws; as many as are usual for the frame when left out. */
export const worthBy = (job: Job, draws?: number): ((choice: OrderChoice) => number) => worthsOf(job)(draws);
