import { timeWords } from "@/core/plan";

/** Less than this is not told: it is over before it is read, s. */
const SOON_S = 20;
/** Before this it cannot be told, s. */
const EARLY_S = 8;

/** A moment in a piece of work. */
export interface Moment {
  atMs: number;
  /** Share that was done by then, 0 to 1. */
  share: number;
}

/**
 * How long a piece of work will go on, in words, if it goes on as it went.
 * @returns null where it cannot be told yet, or is over soon.
 */
export function timeLeft(begun: Moment, now: Moment): string | null {
  const done = now.share - begun.share;
  if (!(done > 0) || now.atMs - begun.atMs < 1000 * EARLY_S) return null;
  const leftS = (((1 - now.share) / done) * (now.atMs - begun.atMs)) / 1000;
  if (leftS < SOON_S) return null;
  return `about ${timeWords(leftS)} left`;
}
