import { stepKey } from "./step";
import type { StepId } from "./stepSchema";

/** Steps that change the frame or how it lies: the order in which they were done is the order that it was worked in. */
const isWork = (id: StepId): boolean => id.do === "tack" || id.do === "bead" || id.do === "flip";

/**
 * An order as it was worked: what is ticked first, as it was ticked, then the rest as planned. What was passed by (a gate, a wait) stays
 * among the rest.
 * @param ticked keys of ticked steps, in the order in which they were ticked. @returns null where it was worked as planned.
 */
export function asWorked(steps: readonly StepId[], ticked: readonly string[]): StepId[] | null {
  const byKey = new Map(steps.map((s) => [stepKey(s), s]));
  const done = [...new Set(ticked)].flatMap((k) => byKey.get(k) ?? []);
  const isDone = new Set(done.map(stepKey));
  const planned = steps.filter(isWork).map(stepKey);
  const worked = done.filter(isWork).map(stepKey);
  if (worked.every((k, i) => k === planned[i])) return null;
  return [...done, ...steps.filter((s) => !isDone.has(stepKey(s)))];
}

/** The same steps with a tack or bead laid once more, right after it. @returns null for a step that is no weld, or not there. */
export function withRepeat(
  steps: readonly StepId[],
  id: StepId,
): { steps: StepId[]; added: Extract<StepId, { joint: string }> } | null {
  const at = steps.findIndex((s) => stepKey(s) === stepKey(id));
  if (at < 0 || (id.do !== "tack" && id.do !== "bead")) return null;
  const nths = steps.flatMap((s) => (s.do === id.do && s.joint === id.joint && s.line === id.line ? [s.nth ?? 1] : []));
  const added = { do: id.do, joint: id.joint, line: id.line, nth: 1 + Math.max(...nths) };
  return { steps: [...steps.slice(0, at + 1), added, ...steps.slice(at + 1)], added };
}

/** The same steps without one. */
export const without = (steps: readonly StepId[], id: StepId): StepId[] =>
  steps.filter((s) => stepKey(s) !== stepKey(id));
