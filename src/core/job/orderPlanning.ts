import { type OrderChoice, orderKey, USUAL_ORDER } from "../plan";
import { builtOf } from "./built";
import type { Job } from "./jobSchema";
import { schoolChoices } from "./orderChoices";
import { EQUAL, inOrder, type OrderOutlook, turnsOf } from "./orderOutlook";
import { begunFrom, cutToLookAt, ranked } from "./orderRanking";
import { type PlanningWish, searching, type Tried, type Worth } from "./orderSearching";
import { worthBy, worthsOf } from "./orderWorth";
import { orderOutlook } from "./outlookByDraws";

/** Pairs of schools whose chance is worked out: all of them, but of a frame with sub-assemblies the likelier half. */
const MOST_SCHOOLS = 16;
/** Trials between two reports. */
const TELL_EVERY = 10;
/** Draws that sort the schools, or rows of classes, before anything is known of them: they go by 64 others, at a quarter of the cost. */
const ROUGH_DRAWS = 16;

/** Each order once. */
function once(choices: readonly OrderChoice[]): OrderChoice[] {
  const seen = new Set<string>();
  return choices.filter((c) => !seen.has(orderKey(c)) && seen.add(orderKey(c)));
}

/** What whoever waits is told meanwhile; of a search the first order that is worth a look, too. */
export type Tell = (doing: "schools" | "search", tried: number, early?: OrderChoice) => void;

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
  const sorted = yield* sortedRoughly(all, worthBy(job, ROUGH_DRAWS), (tried) => tell("schools", tried));
  return once([current, ...sorted.slice(0, MOST_SCHOOLS)]);
}

/** Orders by what they are worth by a few draws, best first. */
function* sortedRoughly(
  choices: readonly OrderChoice[],
  worth: Worth,
  tell: (tried: number) => void,
): Generator<number, OrderChoice[]> {
  const tried: Tried[] = [];
  for (const choice of choices) {
    tried.push({ choice, worth: worth(choice) });
    tell(tried.length);
    yield 0.1;
  }
  return tried.sort((a, b) => b.worth - a.worth).map((t) => t.choice);
}

/** Those that turn the frame over at most so often; all of them where none does. */
function turnedSoSeldom<T>(all: readonly T[], most: number, turns: (of: T) => number): readonly T[] {
  const few = all.filter((of) => turns(of) <= most);
  return few.length > 0 ? few : all;
}

/** Schools that few draws favour, of which the worth itself is asked. */
const BEST_ROUGHLY = 3;

/**
 * The pair of schools that seems best before any chance is known: sorted by a few draws, the first few by the worth itself.
 * @param mostTurns how often the frame may be turned over; where every school turns it more often, all of them are looked at.
 */
export function* likeliestRoughly(
  job: Job,
  rough: Worth,
  worth: Worth,
  mostTurns = Number.POSITIVE_INFINITY,
): Generator<number, OrderChoice | undefined> {
  const all = turnedSoSeldom(schoolChoices(job), mostTurns, (c) => turnsOf(inOrder(job, c)));
  const first = (yield* sortedRoughly(all, rough, () => undefined)).slice(0, BEST_ROUGHLY);
  return (yield* sortedRoughly(first, worth, () => undefined))[0];
}

/**
 * How a job is likely to end in the order that suits it best among the schools, or as planned where none is likelier by more than counts as
 * equal: the draws that a person reads decide.
 */
export function* suitedOutlook(job: Job, draws?: number): Generator<number, OrderOutlook> {
  const current = job.plan.order ?? USUAL_ORDER;
  const planned = yield* orderOutlook(job, current, draws);
  const by = worthsOf(job);
  const choice = yield* likeliestRoughly(job, by(ROUGH_DRAWS), by());
  if (!choice || orderKey(choice) === orderKey(current) || planned.chance === null) return planned;
  const suited = yield* orderOutlook(job, choice, draws);
  return (suited.chance ?? 0) - planned.chance >= EQUAL ? suited : planned;
}

/**
 * The best orders that a search finds, begun from the likeliest of what was compared; where nothing was yet, from the school that a few draws
 * favour. Told step by step; may be left at any point. The same wish gives the same orders.
 */
export function* betterToLookAt(
  job: Job,
  outlooks: readonly OrderOutlook[],
  wish: PlanningWish,
  tell: Tell,
): Generator<number, OrderChoice[]> {
  if (wish.trials === 0) return [];
  const by = worthsOf(job);
  const [rough, worth] = [by(ROUGH_DRAWS), by()];
  // From an order that turns the frame too often a search would find its way to others first.
  const known = turnedSoSeldom(outlooks, wish.mostTurns, (o) => o.turns);
  const start = begunFrom(job, known)?.choice ?? (yield* likeliestRoughly(job, rough, worth, wish.mostTurns));
  if (!start) return [];
  let tried = 0;
  const found = yield* searching(job, start, wish, worth, {
    rough,
    after: () => {
      if (++tried % TELL_EVERY === 0) tell("search", tried);
    },
    early: (choice) => tell("search", tried, choice),
  });
  const there = new Set(outlooks.map((o) => orderKey(o.choice)));
  return once(found.map((f) => f.choice)).filter((c) => !there.has(orderKey(c)));
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
