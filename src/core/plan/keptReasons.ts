import type { Step } from "./step";

/** Steps that change the frame or how it lies; gates, waits and what holds it go by. */
const isWork = ({ id }: Step): boolean => id.do === "tack" || id.do === "bead" || id.do === "flip";

/** How much of the work of a school's order lies before each of its steps, and what of it comes last. */
function beforeEach(steps: readonly Step[]): Map<string, { step: Step; done: number; last: string | null }> {
  let done = 0;
  let last: string | null = null;
  return new Map(
    steps.map((step) => {
      const here = { step, done, last };
      if (isWork(step)) {
        done++;
        last = step.key;
      }
      return [step.key, here] as const;
    }),
  );
}

/**
 * The reasons of the school that an order was begun from, where they are still true of it: a step keeps its own while the frame lies the same
 * way up, just what the school would have done by then has been done, and the same piece of work was the last.
 * @param school the school's whole order. @returns the same steps.
 */
export function keptReasons(steps: readonly Step[], school: readonly Step[]): Step[] {
  const known = beforeEach(school);
  const placeOf = new Map(school.map((s, i) => [s.key, i]));
  let done = 0;
  let last: string | null = null;
  /** Where in the school's order the latest of what was done so far has its place: past its end for what it does not do. */
  let latest = -1;
  return steps.map((step) => {
    const there = known.get(step.key);
    const isAsThere =
      there !== undefined &&
      there.step.up === step.up &&
      there.step.closes === step.closes &&
      there.done === done &&
      there.last === last &&
      latest < (placeOf.get(step.key) ?? -1);
    if (isWork(step)) {
      done++;
      last = step.key;
      latest = Math.max(latest, placeOf.get(step.key) ?? school.length);
    }
    return isAsThere && step.why.kind !== "cut and set" ? { ...step, why: there.step.why } : step;
  });
}
