import type { Limit } from "../check";
import type { Step } from "../plan";
import type { FrameRound } from "./frameRound";

/** Limits that hold before welding as well as after. */
export const AT_ANY_GATE: readonly Limit["kind"][] = ["gap", "flush", "straight"];

/** How a step that asks for readings stands. */
export interface GateReading {
  /** `unread` until the shape is known; `failed` when what was read is outside its limit. */
  state: "unread" | "read" | "failed";
  round: FrameRound | null;
  /** Why it failed, in the verdict's words; empty otherwise. */
  why: string;
}

/**
 * How a measuring step stands by the newest round of its gate: what was nudged is read again in another. The second
 * measuring of a gate counts once everything before it is ticked; until then its rounds belong to the first.
 * @param work the order, with what stands ticked. @param rounds of the frame. @returns null for a step that asks for no readings.
 */
export function gateReading(
  step: Step,
  work: { steps: readonly Step[]; ticked: ReadonlySet<string> },
  rounds: readonly FrameRound[],
): GateReading | null {
  const { id } = step;
  if (id.do !== "measure") return null;
  const before = work.steps.slice(0, Math.max(0, work.steps.indexOf(step)));
  const reached = id.nth === 1 || before.every((s) => s.joint === null || work.ticked.has(s.key));
  const round = (reached && rounds.findLast((r) => r.round.gate === id.gate && r.number >= id.nth)) || null;
  const shape = round?.verdicts.find((v) => ["square", "place"].includes(v.limit.id));
  // Without a limit on its shape a frame is read when its shape is known.
  const isKnown = shape
    ? shape.result !== null
    : Boolean((!round?.square?.bySides && round?.square?.corners) || round?.general?.farthest);
  // Cold, every limit has to be read.
  const known = isKnown && (id.gate !== "cold" || round?.overall !== "not measured");
  const judged = round?.verdicts.filter((v) => id.gate === "cold" || v === shape || AT_ANY_GATE.includes(v.limit.kind));
  const failed = judged?.find((v) => v.result?.verdict === "fail");
  if (failed) return { state: "failed", round, why: `${failed.limit.label}: ${failed.why}` };
  if ((round?.square ?? round?.general)?.fit.agree === false)
    return { state: "failed", round, why: "The readings contradict each other: one is misread. Measure again." };
  return { state: known ? "read" : "unread", round, why: "" };
}
