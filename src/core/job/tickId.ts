import { type StepId, stepKey } from "../plan";

/** What is done after the cold check, in its order. */
export const FINISH_STEPS = [
  "spatter",
  "soft",
  "align",
  "harden",
  "proof",
  "grind",
  "read again",
  "leave",
  "tank",
  "marks",
  "vents",
  "clean",
  "paint",
  "powder",
  "dip",
  "after dip",
  "parts",
  "caps",
  "holes",
  "stand",
] as const;
export type FinishStepName = (typeof FINISH_STEPS)[number];

/** What is ticked off: a step of the order, pieces of one line of the cut list, a step of finishing, or the whole job. */
export type TickId = StepId | { do: "cut"; member: string } | { do: "finish"; step: FinishStepName } | { do: "close" };

/** The tick that closes a job. */
export const CLOSE: TickId = { do: "close" };
/** The tick that pieces are cut. @param member the first of them. */
export const cutTick = (member: string): TickId => ({ do: "cut", member });

/** One word for a tick, to look it up by; nothing reads it back. */
export function tickKey(id: TickId): string {
  if (id.do === "cut") return `cut/${id.member}`;
  if (id.do === "finish") return `finish/${id.step}`;
  return id.do === "close" ? "close" : stepKey(id);
}
