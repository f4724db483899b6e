import { seeded } from "../numeric";
import { brokenHolds, type OrderChoice, orderKey } from "../plan";
import type { Job } from "./jobSchema";
import { type Moving, type WeldSpace, weldSpace } from "./orderChoices";
import { byClass, moved, retacked } from "./orderMoves";
import { inOrder, timeOf, turnsOf } from "./orderOutlook";

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

/** What an order is worth, larger for better. */
export type Worth = (choice: OrderChoice) => number;

/** How a search goes besides. */
interface SearchHow {
  /** Worth by fewer draws, that sorts the rows of classes; the worth itself when left out. */
  rough?: Worth | undefined;
  /** After every trial. */
  after?: () => void;
  /** Is told the best of the rows of classes, as soon as they are through. */
  early?: (choice: OrderChoice) => void;
}

/** Random rows of face classes that are tried before single beads are moved, at most this share of the trials, and so many. */
const ROWS_SHARE = 0.3;
const MOST_ROWS = 120;
/** By fewer draws so many rows, each for this share of a trial. */
const ROUGH_ROWS = 24;
const ROUGH_COST = 0.25;
/** Rows of which the worth itself is asked. */
const BEST_ROWS = 4;
/** Share of the later trials that move tacks, and of these that put one in or leave one out. */
const TACKS = 0.2;
const RETACKS = 0.07;
/** Share that lays the frame down on its other side. */
const OVER = 0.02;
/** Worths nearer than this are as good: a fifth of a hundredth of the chance. */
const AS_GOOD = 0.002;
/** An order that is as good is taken when it takes this share of the time. */
const SOONER = 0.98;
/** After so many trials without anything better, or so many for each bead, it goes on from elsewhere: so many changes off the best. */
const STUCK = 40;
const STUCK_EACH = 3;
const KICKS = 3;
/** So often another order is looked for where one was tried already. */
const AGAIN = 12;
/** Orders of the search whose chance is worked out by fresh draws: the best few, for the one that the trial's draws favoured need not be the best. */
const FINALISTS = 3;

/** One order with what it is worth. */
export interface Tried {
  choice: OrderChoice;
  worth: number;
}

/** Where a search stands. */
interface Standing {
  moving: Moving;
  worth: number;
  totalS: number;
}

/** A search among the orders of a job, from one of them. */
class Search {
  private readonly space: WeldSpace;
  private readonly seen = new Set<string>();
  private readonly random: () => number;
  private readonly stuck: number;
  private now: Standing;
  private best: Standing;
  /** Trials since something was better. */
  private idle = 0;
  /** The best orders, best first. */
  readonly found: Tried[] = [];

  constructor(
    private readonly job: Job,
    start: OrderChoice,
    private readonly mostTurns: number,
    seed: number,
    private readonly worth: Worth,
  ) {
    this.space = weldSpace(job, start, mostTurns);
    this.random = seeded(seed);
    this.stuck = Math.max(STUCK, STUCK_EACH * this.space.start.beads.length);
    this.now = { moving: this.space.start, worth: Number.NEGATIVE_INFINITY, totalS: Number.POSITIVE_INFINITY };
    this.best = this.now;
  }

  get beads(): number {
    return this.space.start.beads.length;
  }

  /** An order that nobody tried yet; null for one that was, or that may not be. */
  private untried(moving: Moving): OrderChoice | null {
    const choice = this.space.choiceOf(moving);
    const key = orderKey(choice);
    if (this.seen.has(key) || turnsOf(inOrder(this.job, choice)) > this.mostTurns) return null;
    this.seen.add(key);
    const isBroken = choice.by !== "schools" && brokenHolds(choice.steps, this.job.plan.holds ?? []).length > 0;
    return isBroken ? null : choice;
  }

  /** Tries an order: it is kept when it is better, or as good and sooner done. */
  private consider(moving: Moving, choice: OrderChoice): void {
    const { now, best } = this;
    const worth = this.worth(choice);
    this.idle++;
    if (worth < now.worth - AS_GOOD) return;
    const totalS = timeOf(inOrder(this.job, choice))?.totalS ?? 0;
    if (worth <= now.worth && totalS > SOONER * now.totalS) return;
    if (worth > now.worth) this.idle = 0;
    this.now = { moving, worth: Math.max(now.worth, worth), totalS };
    if (worth < best.worth - AS_GOOD || (worth <= best.worth && totalS > SOONER * best.totalS)) return;
    this.best = { moving, worth: Math.max(best.worth, worth), totalS };
    this.found.unshift({ choice, worth });
    this.found.length = Math.min(this.found.length, FINALISTS);
  }

  private changed(from: Moving): Moving {
    const { places, kept, classes, over } = this.space;
    const { tacks, beads } = from;
    const kind = this.random();
    if (kind < OVER && over) return over(from);
    if (kind >= TACKS || places.length === 0) return { ...from, beads: moved(beads, classes, this.random) };
    const isOneMore = kind < RETACKS || tacks.length < 2;
    return {
      ...from,
      tacks: isOneMore ? retacked(tacks, places, kept, this.random) : moved(tacks, classes, this.random),
    };
  }

  /** Tries where it begins. */
  begin(): void {
    const choice = this.untried(this.space.start);
    if (choice) this.consider(this.space.start, choice);
  }

  /** Rows of classes that nobody tried, at most so many: of few classes there are few. */
  *rows(most: number): Generator<Moving & { choice: OrderChoice }> {
    const { start, classes } = this.space;
    const names = [...new Set(classes.values())];
    for (let n = 0, known = 0; n < most && known < AGAIN; ) {
      const moving = { ...start, beads: byClass(start.beads, classes, shuffled(names, this.random)) };
      const choice = this.untried(moving);
      if (!choice) known++;
      else {
        n++;
        yield { ...moving, choice };
      }
    }
  }

  /** Tries the best of what was sorted by fewer draws. */
  take(sorted: readonly (Moving & { choice: OrderChoice })[]): void {
    for (const { choice, ...moving } of sorted.slice(0, BEST_ROWS)) this.consider(moving, choice);
  }

  /** One change, tried; where nothing better lies near, a few at once off the best. */
  step(): void {
    for (let again = 0; again < AGAIN; again++) {
      let moving = this.changed(this.now.moving);
      if (this.idle > this.stuck) {
        this.idle = 0;
        moving = this.best.moving;
        for (let k = 0; k < KICKS; k++) moving = this.changed(moving);
        this.now = { ...this.now, worth: Number.NEGATIVE_INFINITY };
      }
      const choice = this.untried(moving);
      if (choice) {
        this.consider(moving, choice);
        return;
      }
      this.idle++;
    }
  }
}

/**
 * Searches for a better order: first whole classes of beads in another row, then a class, a bead, a few or a stretch moved, or the same with
 * the tacks behind where the error is closed, or a tack more or less; the first that is better is kept, and one that is as good and sooner done.
 * What does not keep the holds is not looked at.
 * @param start whose welds it begins with. @param worth of an order. @returns the best orders, best first.
 */
export function* searching(
  job: Job,
  start: OrderChoice,
  { trials, mostTurns, seed = 1, enough = () => false }: PlanningWish,
  worth: Worth,
  { rough, after = () => undefined, early = () => undefined }: SearchHow = {},
): Generator<number, Tried[]> {
  const search = new Search(job, start, mostTurns, seed, worth);
  if (search.beads === 0) return [];
  search.begin();
  if (search.beads < 2) return search.found;
  const rows: (Moving & { choice: OrderChoice; worth: number })[] = [];
  const cost = rough ? ROUGH_COST : 1;
  for (const row of search.rows(rough ? ROUGH_ROWS : Math.min(MOST_ROWS, ROWS_SHARE * trials))) {
    if (enough()) break;
    rows.push({ ...row, worth: (rough ?? worth)(row.choice) });
    after();
    yield 0.1;
  }
  search.take(rows.sort((a, b) => b.worth - a.worth));
  const [first] = search.found;
  if (first) early(first.choice);
  for (let t = Math.ceil(cost * rows.length); t < trials && !enough(); t++) {
    search.step();
    after();
    yield 0.1 + (0.6 * t) / trials;
  }
  return search.found;
}

function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const out = [...list];
  for (let i = out.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [out[i], out[j]] = [out[j] as T, out[i] as T];
  }
  return out;
}
