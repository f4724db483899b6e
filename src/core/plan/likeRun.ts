import type { Step } from "./step";

/** Whether two steps are the same thing done at another joint: tacks or beads on the same face, the frame lying alike. */
const isLike = (a: Step, b: Step): boolean =>
  (a.id.do === "tack" || a.id.do === "bead") && a.id.do === b.id.do && a.line === b.line && a.up === b.up;

/**
 * The run of like steps that a step begins, itself included: they follow each other in the order, none is ticked, and nothing is
 * measured, turned or waited for between them. One may tick them singly or at once.
 */
export function likeRun(steps: readonly Step[], from: Step, ticked: ReadonlySet<string>): Step[] {
  const at = steps.indexOf(from);
  if (at < 0 || ticked.has(from.key)) return [];
  const run: Step[] = [];
  for (const step of steps.slice(at)) {
    if (!isLike(from, step) || ticked.has(step.key)) break;
    run.push(step);
  }
  return run;
}
