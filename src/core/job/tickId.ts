import { type StepId, stepKey } from "../plan";

/** What is ticked off: a step of the order, pieces of one line of the cut list, or the whole job. */
export type TickId = StepId | { do: "cut"; member: string } | { do: "close" };

/** The tick that closes a job. */
export const CLOSE: TickId = { do: "close" };
/** The tick that pieces are cut. @param member the first of them. */
export const cutTick = (member: string): TickId => ({ do: "cut", member });

/** One word for a tick, to look it up by; nothing reads it back. */
export function tickKey(id: TickId): string {
  if (id.do === "cut") return `cut/${id.member}`;
  return id.do === "close" ? "close" : stepKey(id);
}
