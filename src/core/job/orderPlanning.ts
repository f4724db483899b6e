import { seeded } from "../numeric";
import { type OrderChoice, orderKey, USUAL_ORDER } from "../plan";
import { builtOf } from "./built";
import type { Job } from "./jobSchema";
import { beadSpace, isCutAndSet, schoolChoices, withCut } from "./orderChoices";
import { type Bead, byClass, moved } from "./orderMoves";
import { inOrder, type OrderOutlook, turnsOf } from "./orderOutlook";
import { worthBy } from "./orderWorth";

/** What is asked of a search. */
export interface PlanningWish {
  /** Orders to try besides the schools'; 0 compares the schools alone. */
  trials: number;
  /** How often the frame may be turned over. */
  mostTurns: number;
  seed?: number;
  /** Asked after every trial: whether to end the search with what it has. */
  enough?: () => boolean;
}

/** Random rows of face classes that are tried before single beads are moved, at most this share of the trials. */
const PHASES = 0.3;
/** Orders of the search whose chance is worked out by fresh draws: the best few, for the one that the trial's draws favoured need not be the best. */
const FINALISTS = 3;
/** Pairs of schools whose chance is worked out: all of them, but of a frame with sub-assemblies the likelier half. */
const MOST_SCHOOLS = 16;
/** Trials between two reports. */
const TELL_EVERY = 10;

/** One order with what it is worth. */
interface Tried {
  choice: OrderChoice;
  worth: number;
}

/**
 * Searches for a better order of the beads behind an order's tacks: first whole classes of faces in another row, then a class, a bead, a
 * few beads or a stretch moved; the first that is better is kept.
 * @param start whose tacks stay. @param worth of an order, larger for better. @param after is called after every trial.
 * @returns the best orders, best first.
 */
export function* searching(
  job: Job,
  start: OrderChoice,
  { trials, mostTurns, seed = 1, enough = () => false }: PlanningWish,
  worth: (choice: OrderChoice) => number,
  after: () => void = () => undefined,
): Generator<number, Tried[]> {
  const { beads: all, classes, choiceOf } = beadSpace(job, start);
  const random = seeded(seed);
  const names = [...new Set(classes.values())];
  const found: Tried[] = [];
  let beads = all;
  let best = Number.NEGATIVE_INFINITY;
  const consider = (next: Bead[]): void => {
    const choice = choiceOf(next);
    if (turnsOf(inOrder(job, choice)) > mostTurns) return;
    const value = worth(choice);
    if (value <= best) return;
    best = value;
    beads = next;
    found.unshift({ choice, worth: value });
    found.length = Math.min(found.length, FINALISTS);
  };
  if (all.length === 0) return [];
  consider(all);
  for (let t = 0; t < trials && all.length > 1 && !enough(); t++) {
    consider(t < PHASES * trials ? byClass(all, classes, shuffled(names, random)) : moved(beads, classes, random));
    after();
    yield 0.1 + (0.6 * t) / trials;
  }
  return found;
}

/**
 * Orders of a job that are worth a look: as planned, the best that a search finds when one is wished, then every pair of schools, the
 * likeliest first by a few draws. Told step by step; may be left at any point. The same wish gives the same orders.
 * @param job without errors: ask canPredict first. @param tell is told what it does and how many orders it tried.
 */
export function* ordersToLookAt(
  job: Job,
  wish: PlanningWish,
  tell: (doing: "schools" | "search", tried: number) => void,
): Generator<number, OrderChoice[]> {
  if (!builtOf(job.plan).order) throw new RangeError("The frame has errors.");
  let tried = 0;
  const worth = worthBy(job);
  yield 0;
  const schools: Tried[] = [];
  for (const choice of schoolChoices(job)) {
    schools.push({ choice, worth: worth(choice) });
    tell("schools", ++tried);
    yield 0.1;
  }
  schools.sort((a, b) => b.worth - a.worth);
  const [start] = schools;
  const found =
    wish.trials > 0 && start
      ? yield* searching(job, start.choice, wish, worth, () => {
          if (++tried % TELL_EVERY === 0) tell("search", tried);
        })
      : [];
  const likely = schools.slice(0, MOST_SCHOOLS);
  const current = job.plan.order ?? USUAL_ORDER;
  const other = start && withCut(job, start.choice, !isCutAndSet(current));
  const all = [current, ...found.map((s) => s.choice), ...(other ? [other] : []), ...likely.map((s) => s.choice)];
  const seen = new Set<string>();
  return all.filter((c) => !seen.has(orderKey(c)) && seen.add(orderKey(c)));
}

/** Outlooks, the likeliest to hold first. */
export const ranked = (outlooks: readonly OrderOutlook[]): OrderOutlook[] =>
  [...outlooks].sort((a, b) => (b.chance ?? -1) - (a.chance ?? -1) || a.turns - b.turns);

function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const out = [...list];
  for (let i = out.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [out[i], out[j]] = [out[j] as T, out[i] as T];
  }
  return out;
}
