import { seeded } from "../numeric";
import {
  chosenOrder,
  clampedMechanics,
  loadSteps,
  notForFrame,
  type OrderChoice,
  type Step,
  type StepId,
  stepKey,
  TACK_SCHOOLS,
  USUAL_ORDER,
  WELD_SCHOOLS,
  workpiece,
} from "../plan";
import {
  frameOutcomes,
  frameOutputs,
  leanNoise,
  OrderTrial,
  type OutcomeId,
  type Prediction,
  type SimulationStep,
} from "../shrink";
import { FACTORS, factorsFor, unsureHeat } from "../weld";
import { builtOf } from "./built";
import { forecasting } from "./evaluate";
import { evaluationContext } from "./evaluationContext";
import type { Job } from "./jobSchema";
import { type Bead, byClass, classesOf, liesUp, moved } from "./orderMoves";
import { inOrder, type OrderOutlook, orderOutlook, turnsOf } from "./orderOutlook";
import { weldOf } from "./settings";

/** What is asked of a search. */
export interface PlanningWish {
  /** Orders to try besides the schools'; 0 compares the schools alone. */
  trials: number;
  /** How often the frame may be turned over. */
  mostTurns: number;
  seed?: number;
  /** Draws behind each chance. */
  draws?: number;
  /** Asked after every trial: whether to end the search with what it has. */
  enough?: () => boolean;
}

/** How planning stands. */
export interface PlanningState {
  doing: "schools" | "search" | "chances";
  /** Orders tried so far. */
  tried: number;
  /** Outlooks by draws that no search has seen, best first. */
  outlooks: OrderOutlook[];
}

/** A limit that is all but lost counts as this chance, so that orders can still be told apart. */
const LOST = 1e-6;
/** Random rows of face classes that are tried before single beads are moved, at most this share of the trials. */
const PHASES = 0.3;
/** Orders of the search whose chance is worked out by fresh draws: the best few, for the one that the trial's draws favoured need not be the best. */
const FINALISTS = 3;

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
const LIMITED: readonly OutcomeId["kind"][] = ["span", "square", "angle", "flat", "twist"];

/** What is done already: beads in the order in which they were ticked, and whether tacking began. */
function doneOf(job: Job): { beads: Bead[]; isTacked: boolean } {
  const { ticked } = evaluationContext(job, null);
  const ids = job.entries.flatMap((e) => (e.kind === "tick" && e.done ? [e.step] : []));
  const beads = new Map<string, Bead>();
  for (const id of ids) if (id.do === "bead" && ticked.has(stepKey(id))) beads.set(stepKey(id), id as Bead);
  return { beads: [...beads.values()], isTacked: [...ticked].some((k) => /^(tack|bead)\//.test(k)) };
}

/**
 * Orders by every pair of schools that has something to say of the frame; skip lays the same beads as across and around. What is tacked
 * is tacked: then they differ in their beads alone, and those that are welded come first.
 */
function schoolChoices(job: Job): OrderChoice[] {
  const { structure, on } = builtOf(job.plan);
  if (!structure) return [];
  const { beads, isTacked } = doneOf(job);
  const tackedBy = (job.plan.order ?? USUAL_ORDER).tack;
  const up = liesUp(workpiece(structure, on));
  const goneOn = (choice: OrderChoice): OrderChoice => {
    if (beads.length === 0) return choice;
    const steps = chosenOrder(structure, on, choice).steps;
    const done = new Set(beads.map(stepKey));
    const rest = beadsOf(steps).filter((b) => !done.has(stepKey(b)));
    return { ...choice, by: "computed", steps: laid(tackingOf(steps), [...beads, ...rest], up) };
  };
  const fits = (id: (typeof TACK_SCHOOLS)[number] | (typeof WELD_SCHOOLS)[number]) =>
    notForFrame(id, structure) === null;
  return TACK_SCHOOLS.filter((t) => (isTacked ? t === tackedBy : fits(t))).flatMap((tack) =>
    WELD_SCHOOLS.filter((w) => w !== "skip" && fits(w)).map((weld) => goneOn({ by: "schools", tack, weld })),
  );
}

/** Worth of an order by a few draws that all orders share: the sum of the logarithms of the chances of its limits. */
function worthBy(job: Job): (choice: OrderChoice) => number {
  const { structure, on } = builtOf(job.plan);
  if (!structure) throw new RangeError("The frame has errors.");
  const { mechanics, clamps } = clampedMechanics(structure, on);
  const weld = weldOf(job.plan);
  const factors = factorsFor(
    structure.members[0]?.material === "mild steel",
    weld.from === "starting" ? unsureHeat(FACTORS) : FACTORS,
  );
  const known = new Map<string, SimulationStep[]>();
  const load = (steps: readonly Step[]): SimulationStep[] =>
    steps.flatMap((s) => {
      const key = `${s.key} ${s.up} ${s.closes}`;
      const made = known.get(key) ?? loadSteps(structure, weld, [s], clamps);
      known.set(key, made);
      return made;
    });
  const stepsOf = (choice: OrderChoice): SimulationStep[] => load(chosenOrder(structure, on, choice).steps);
  const { of, isRead } = forecasting(job, NOTHING);
  const straight = of([]).some((f) => f.limit.kind === "straight");
  const trial = new OrderTrial(
    mechanics.frame,
    stepsOf(USUAL_ORDER),
    schoolChoices(job).flatMap(stepsOf),
    factors,
    frameOutputs(structure, mechanics.joints),
    frameOutcomes(structure, mechanics.joints),
    ({ kind }) => LIMITED.includes(kind) || straight,
  );
  // What is set up off nominal ends on nominal, but for a lean that is less than its scatter.
  const isSetOff = structure.quad !== null && job.plan.aim === "set-up" && !isRead;
  return (choice) => {
    const rough = trial.of(stepsOf(choice)).outcomes.map(({ id, estimate }) => ({
      id,
      estimate,
      unit: "mm" as const,
      unsigned: false,
      nominal: estimate.value,
      wide: null,
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
          }
        : o,
    );
    return of(centred).reduce((sum, f) => sum + (f.chance === null ? 0 : Math.log(Math.max(f.chance, LOST))), 0);
  };
}

const beadsOf = (steps: readonly Step[]): Bead[] => steps.flatMap((s) => (s.id.do === "bead" ? [s.id as Bead] : []));

/** The tacking of an order: what comes before its first bead, but for what belongs to welding. */
function tackingOf(steps: readonly Step[]): Step[] {
  const first = steps.findIndex((s) => s.id.do === "bead");
  return steps.slice(0, first < 0 ? steps.length : first).filter((s) => s.part === "tack");
}

/** An order of beads as steps: turned over where a face wants it, cooled before it is turned, and cold at the end. */
function laid(tacking: readonly Step[], beads: readonly Bead[], up: (b: Bead) => "top" | "bottom" | null): StepId[] {
  let lies = tacking.at(-1)?.up ?? "top";
  let turns = 0;
  const steps: StepId[] = tacking.map((s) => s.id);
  for (const bead of beads) {
    const wants = up(bead);
    if (wants && wants !== lies) {
      if (turns === 0 && steps.at(-1)?.do === "bead") steps.push({ do: "wait", until: "touch" });
      turns++;
      steps.push({ do: "flip", part: "weld", nth: turns });
      lies = wants;
    }
    steps.push(bead);
  }
  steps.push({ do: "wait", until: "cold" }, { do: "release" }, { do: "measure", gate: "cold", nth: 1 });
  return steps;
}

/** One order with what it is worth. */
interface Tried {
  choice: OrderChoice;
  worth: number;
}

/**
 * Compares all schools on a job's frame and, when asked, searches for a better order of the beads behind the best school's tacks: first
 * whole classes of faces in another row, then single beads. Told step by step; may be left at any point. The same wish gives the same
 * orders.
 * @param job without errors: ask canPredict first. @param tell is told how it stands.
 */
export function* planningOrder(
  job: Job,
  wish: PlanningWish,
  tell: (state: PlanningState) => void,
): Generator<number, OrderOutlook[]> {
  const { structure, on, order } = builtOf(job.plan);
  if (!structure || !order) throw new RangeError("The frame has errors.");
  const { trials, mostTurns, seed = 1, draws, enough = () => false } = wish;
  const outlooks: OrderOutlook[] = [];
  let tried = 0;
  const say = (doing: PlanningState["doing"]): void => tell({ doing, tried, outlooks: ranked(outlooks) });
  const worth = worthBy(job);
  yield 0;
  const current = job.plan.order ?? USUAL_ORDER;
  const schools: Tried[] = [];
  for (const choice of schoolChoices(job)) {
    schools.push({ choice, worth: worth(choice) });
    tried++;
    say("schools");
    yield 0.1;
  }
  schools.sort((a, b) => b.worth - a.worth);
  const [start] = schools;
  const found: Tried[] = [];
  if (trials > 0 && start) {
    const work = workpiece(structure, on);
    const classes = classesOf(work);
    const up = liesUp(work);
    const random = seeded(seed);
    const steps = chosenOrder(structure, on, start.choice).steps;
    const tacking = tackingOf(steps);
    const { beads: done } = doneOf(job);
    const isDone = new Set(done.map(stepKey));
    const choiceOf = (beads: readonly Bead[]): OrderChoice => ({
      by: "computed",
      tack: start.choice.tack,
      weld: start.choice.weld,
      steps: laid(tacking, [...done, ...beads], up),
    });
    const isAllowed = (choice: OrderChoice): boolean => turnsOf(inOrder(job, choice)) <= mostTurns;
    let beads = beadsOf(steps).filter((b) => !isDone.has(stepKey(b)));
    let best = worth(choiceOf(beads));
    const keep = (choice: OrderChoice, value: number): void => {
      found.push({ choice, worth: value });
      found.sort((a, b) => b.worth - a.worth);
      found.length = Math.min(found.length, FINALISTS);
    };
    if (isAllowed(choiceOf(beads))) keep(choiceOf(beads), best);
    else best = Number.NEGATIVE_INFINITY;
    const names = [...new Set(classes.values())];
    const all = [...beads];
    for (let t = 0; t < trials && beads.length > 1 && !enough(); t++) {
      const next = t < PHASES * trials ? byClass(all, classes, shuffled(names, random)) : moved(beads, classes, random);
      const choice = choiceOf(next);
      tried++;
      if (isAllowed(choice)) {
        const value = worth(choice);
        if (value > best) {
          best = value;
          beads = next;
          keep(choice, value);
        }
      }
      if (tried % 10 === 0) say("search");
      yield 0.1 + (0.6 * t) / trials;
    }
  }
  const chosen = [{ choice: current }, ...found, ...schools].map((s) => s.choice);
  const wanted = [...new Map(chosen.map((c) => [keyOf(c), c])).values()];
  for (const choice of wanted) {
    say("chances");
    outlooks.push(yield* orderOutlook(job, choice, draws));
  }
  say("chances");
  return ranked(outlooks);
}

/** An order by what it does: two that do the same are one. */
const keyOf = (choice: OrderChoice): string =>
  choice.by === "schools" ? `${choice.tack}/${choice.weld}` : choice.steps.map(stepKey).join();

const ranked = (outlooks: readonly OrderOutlook[]): OrderOutlook[] =>
  [...outlooks].sort((a, b) => (b.chance ?? -1) - (a.chance ?? -1) || a.turns - b.turns);

function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const out = [...list];
  for (let i = out.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [out[i], out[j]] = [out[j] as T, out[i] as T];
  }
  return out;
}
