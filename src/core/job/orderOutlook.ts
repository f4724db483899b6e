import type { Limit } from "../check";
import { type Hands, type OrderChoice, type Timeline, timelineOf } from "../plan";
import type { OutcomeId } from "../shrink";
import type { Estimate } from "../units";
import { builtOf } from "./built";
import type { Job } from "./jobSchema";
import { paceOf } from "./pace";
import { weldOf } from "./settings";

/** How an order is likely to end, by draws that nobody searched with. */
export interface OrderOutlook {
  choice: OrderChoice;
  /** Chance that every limit of which something is predicted is kept; null where nothing is predicted of any. */
  chance: number | null;
  /** Chance of each of these limits by itself. */
  limits: { limit: Limit; chance: number }[];
  /** Limits of which nothing is predicted. */
  untold: Limit[];
  /** How often the frame is turned over. */
  turns: number;
  /** How long it takes, cooling and handling included, s. */
  totalS: number;
  /** Of that, all welders together: arc, cooling, measuring. */
  parts: Pick<Timeline, "arcS" | "waitS" | "measureS">;
  /**
   * The limit that is kept most seldom, and how far outside of it the band of nine in ten ends, in its unit; the place that lies too far off,
   * where it is about one. Null where nothing is predicted.
   */
  worst: { limit: Limit; chance: number; outside: number; place?: string } | null;
  /** The welds that move most of what that limit is about: how much of it is left when cold, mm, along with the sign of the outcome. */
  most: { say: string; by: number }[];
  /** Whether every weld waits for what it must. */
  keeps: boolean;
  /** What each clamp or stop holds at most, N; nought where nothing is clamped. */
  holdN: number;
  /** The hardest that is let go, and of bars the hardest, nineteen in twenty stay under it, N, and the energy of all that is, J. */
  letGo: { highN: number; barN: number; energyJ: number };
  /** What is predicted of its shape: squareness, flatness, mouths. */
  shape: { id: OutcomeId; estimate: Estimate }[];
}

/** Draws behind a chance that a person reads: so many leave it off by two points or so. */
export const OUTLOOK_DRAWS = 400;
/** Chances nearer than this are called equal. */
export const EQUAL = 0.02;

/** A job in another order. */
export const inOrder = (job: Job, choice: OrderChoice): Job => ({ ...job, plan: { ...job.plan, order: choice } });

/** How often an order turns the frame over. */
export const turnsOf = (job: Job): number =>
  builtOf(job.plan).order?.steps.filter((s) => s.id.do === "flip").length ?? 0;

/** Who works on a job, and how fast. */
const handsOf = (job: Job): Hands => ({
  handling: paceOf(job).handling,
  welders: job.plan.hands?.two ? 2 : 1,
});

/** How long jobs take that were asked about. */
const TIMES = new WeakMap<Job, Timeline | null>();

/** How long a job's order takes, worked out once; null while its frame has errors. */
export function timeOf(job: Job): Timeline | null {
  const known = TIMES.get(job);
  if (known !== undefined) return known;
  const { structure, order } = builtOf(job.plan);
  const time = structure && order ? timelineOf(structure, weldOf(job.plan), order.steps, handsOf(job)) : null;
  TIMES.set(job, time);
  return time;
}
