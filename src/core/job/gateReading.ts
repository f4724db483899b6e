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

/** @returns null for a step that asks for no readings. @param rounds of the frame. */
export function gateReading({ id }: Step, rounds: readonly FrameRound[]): GateReading | null {
  if (id.do !== "measure") return null;
  const round = rounds.find((r) => r.round.gate === id.gate && r.number === id.nth) ?? null;
  const shape = round?.verdicts.find((v) => ["square", "place"].includes(v.limit.id));
  // Without a limit on its shape a frame is read when its shape is known.
  const known = shape ? shape.result !== null : Boolean(round?.square?.corners ?? round?.general?.farthest);
  const judged = round?.verdicts.filter((v) => id.gate === "cold" || v === shape || AT_ANY_GATE.includes(v.limit.kind));
  const failed = judged?.find((v) => v.result?.verdict === "fail");
  return {
    state: failed ? "failed" : known ? "read" : "unread",
    round,
    why: failed ? `${failed.limit.label}: ${failed.why}` : "",
  };
}
