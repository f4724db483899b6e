import { seeded } from "../numeric";
import { brokenHolds, type OrderChoice, orderKey, USUAL_ORDER } from "../plan";
import { builtOf } from "./built";
import type { Job } from "./jobSchema";
import { isCutAndSet, type Moving, schoolChoices, weldSpace, withCut } from "./orderChoices";
import { byClass, moved, retacked } from "./orderMoves";
import { inOrder, type OrderOutlook, orderOutlook, timeOf, turnsOf } from "./orderOutlook";
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
/** Share of the later trials that move tacks, and of these that put one in or leave one out. */
const TACKS = 0.2;
const RETACKS = 0.07;
/** Share that lays the frame down on its other side. */
const OVER = 0.02;
/** Worths nearer than this are as good: a fifth of a hundredth of the chance. */
const AS_GOOD = 0.002;
/** After so many trials without anything better, or so many for each bead, it goes on from elsewhere: so many changes off the best. */
const STUCK = 40;
const STUCK_EACH = 3;
const KICKS = 3;
/** So often another order is looked for where one was tried already. */
const AGAIN = 12;
/** An order that is as good is taken when it takes this share of the time. */
const SOONER = 0.98;
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
 * Searches for a better order: first whole classes of beads in another row, then a class, a bead, a few or a stretch moved, or the same with
 * the tacks behind where the error is closed, or a tack more or less; the first that is better is kept, and one that is as good and sooner done.
 * What does not keep the holds is not looked at.
 * @param start whose welds it begins with. @param worth of an order, larger for better. @param after is called after every trial.
 * @returns the best orders, best first.
 */
export function* searching(
  job: Job,
  start: OrderChoice,
  { trials, mostTurns, seed = 1, enough = () => false }: PlanningWish,
  worth: (choice: OrderChoice) => number,
  after: () => void = () => undefined,
): Generator<number, Tried[]> {
  const { start: all, places, kept, classes, over, choiceOf } = weldSpace(job, start, mostTurns);
  const holds = job.plan.holds ?? [];
  const random = seeded(seed);
  const names = [...new Set(classes.values())];
  const found: Tried[] = [];
  const seen = new Set<string>();
  /** From where it goes on, and the best of all. */
  let now = { moving: all, worth: Number.NEGATIVE_INFINITY, totalS: Number.POSITIVE_INFINITY };
  let best = now;
  const stuck = Math.max(STUCK, STUCK_EACH * all.beads.length);
  /** Trials since something was better. */
  let idle = 0;
  /** Rows of classes that were tried already: of few classes there are few, and then it goes on with single changes. */
  let knownRows = 0;
  /** An order that nobody tried yet; null for one that was, or that may not be. */
  const untried = (moving: Moving): OrderChoice | null => {
    const choice = choiceOf(moving);
    const key = orderKey(choice);
    if (seen.has(key) || turnsOf(inOrder(job, choice)) > mostTurns) return null;
    seen.add(key);
    return choice.by !== "schools" && brokenHolds(choice.steps, holds).length > 0 ? null : choice;
  };
  const consider = (moving: Moving, choice: OrderChoice): void => {
    const value = worth(choice);
    idle++;
    if (value < now.worth - AS_GOOD) return;
    const totalS = timeOf(inOrder(job, choice))?.totalS ?? 0;
    if (value <= now.worth && totalS > SOONER * now.totalS) return;
    if (value > now.worth) idle = 0;
    now = { moving, worth: Math.max(now.worth, value), totalS };
    if (value < best.worth - AS_GOOD || (value <= best.worth && totalS > SOONER * best.totalS)) return;
    best = { ...now, worth: Math.max(best.worth, value) };
    found.unshift({ choice, worth: value });
    found.length = Math.min(found.length, FINALISTS);
  };
  const changed = (from: Moving): Moving => {
    const { tacks, beads } = from;
    const kind = random();
    if (kind < OVER && over) return over(from);
    if (kind >= TACKS || places.length === 0) return { ...from, beads: moved(beads, classes, random) };
    return {
      ...from,
      tacks: kind < RETACKS || tacks.length < 2 ? retacked(tacks, places, kept, random) : moved(tacks, classes, random),
    };
  };
  const next = (t: number): Moving => {
    if (t < PHASES * trials && knownRows < AGAIN)
      return { ...all, beads: byClass(all.beads, classes, shuffled(names, random)) };
    if (idle <= stuck) return changed(now.moving);
    // Nothing better lies near: from the best, a few changes at once.
    idle = 0;
    let moving = best.moving;
    for (let k = 0; k < KICKS; k++) moving = changed(moving);
    now = { ...now, worth: Number.NEGATIVE_INFINITY };
    return moving;
  };
  if (all.beads.length === 0) return [];
  const first = untried(all);
  if (first) consider(all, first);
  for (let t = 0; t < trials && all.beads.length > 1 && !enough(); t++) {
    for (let again = 0; again < AGAIN; again++) {
      const moving = next(t);
      const choice = untried(moving);
      if (!choice) {
        idle++;
        if (t < PHASES * trials) knownRows++;
        continue;
      }
      consider(moving, choice);
      break;
    }
    after();
    yield 0.1 + (0.6 * t) / trials;
  }
  return found;
}

/** Each order once. */
function once(choices: readonly OrderChoice[]): OrderChoice[] {
  const seen = new Set<string>();
  return choices.filter((c) => !seen.has(orderKey(c)) && seen.add(orderKey(c)));
}

/** What whoever waits is told meanwhile. */
export type Tell = (doing: "schools" | "search", tried: number) => void;

/**
 * The order as planned, then every pair of schools; of more than so many the likelier by a few draws. Told step by step; may be left at
 * any point.
 * @param job without errors: ask canPredict first.
 */
export function* schoolsToLookAt(job: Job, tell: Tell): Generator<number, OrderChoice[]> {
  if (!builtOf(job.plan).order) throw new RangeError("The frame has errors.");
  const current = job.plan.order ?? USUAL_ORDER;
  const all = schoolChoices(job);
  if (all.length <= MOST_SCHOOLS) return once([current, ...all]);
  const worth = worthBy(job);
  const tried: Tried[] = [];
  for (const choice of all) {
    tried.push({ choice, worth: worth(choice) });
    tell("schools", tried.length);
    yield 0.1;
  }
  tried.sort((a, b) => b.worth - a.worth);
  return once([current, ...tried.slice(0, MOST_SCHOOLS).map((t) => t.choice)]);
}

/** The likeliest of what was compared that is squared up as planned: where a search begins. */
const begunFrom = (job: Job, outlooks: readonly OrderOutlook[]): OrderOutlook | null => {
  const isCut = isCutAndSet(job.plan.order ?? USUAL_ORDER);
  return ranked(outlooks).find((o) => o.chance !== null && isCutAndSet(o.choice) === isCut) ?? null;
};

/** The likeliest pair of schools squared up the other way: cut and set once more, or not; null where it cannot be. */
export function cutToLookAt(job: Job, outlooks: readonly OrderOutlook[]): OrderChoice | null {
  const schools = outlooks.filter((o) => o.choice.by === "schools");
  const best = begunFrom(job, schools);
  return best && withCut(job, best.choice, !isCutAndSet(job.plan.order ?? USUAL_ORDER));
}

/**
 * The best orders that a search finds, begun from the likeliest of what was compared. Told step by step; may be left at any point. The
 * same wish gives the same orders.
 */
export function* betterToLookAt(
  job: Job,
  outlooks: readonly OrderOutlook[],
  wish: PlanningWish,
  tell: Tell,
): Generator<number, OrderChoice[]> {
  const start = begunFrom(job, outlooks);
  if (!start || wish.trials === 0) return [];
  let tried = 0;
  const found = yield* searching(job, start.choice, wish, worthBy(job), () => {
    if (++tried % TELL_EVERY === 0) tell("search", tried);
  });
  const known = new Set(outlooks.map((o) => orderKey(o.choice)));
  return once(found.map((f) => f.choice)).filter((c) => !known.has(orderKey(c)));
}

/**
 * All of it one after the other: the schools with their chances, squared up the other way, and what a search finds.
 * @param draws behind every chance.
 */
export function* comparing(
  job: Job,
  wish: PlanningWish,
  tell: Tell = () => undefined,
  draws?: number,
): Generator<number, OrderOutlook[]> {
  const outlooks: OrderOutlook[] = [];
  const look = function* (choices: readonly OrderChoice[]): Generator<number, void> {
    for (const choice of choices) outlooks.push(yield* orderOutlook(job, choice, draws));
  };
  yield* look(yield* schoolsToLookAt(job, tell));
  const cut = cutToLookAt(job, outlooks);
  const better = yield* betterToLookAt(job, outlooks, wish, tell);
  yield* look([...(cut ? [cut] : []), ...better]);
  return ranked(outlooks);
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
