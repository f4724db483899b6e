import type { Step } from "./step";

export const GATES = ["cut", "bed", "dry fit", "tacked", "hot", "cold"] as const;
/** A moment when one must measure before going on. */
export type Gate = (typeof GATES)[number];

/**
 * Gates of an order, by their steps' keys, at which a frame is read that has moved since its error was closed, or since it was laid down:
 * from there on less is to come than from the whole order.
 */
export function laterGates(steps: readonly Step[]): string[] {
  const bead = steps.findIndex((s) => s.id.do === "bead");
  const before = bead < 0 ? steps : steps.slice(0, bead);
  const closed = before.findLastIndex((s) => s.closes);
  const moved = before.findIndex((s, i) => i > closed && s.id.do === "tack");
  return moved < 0 ? [] : before.flatMap((s, i) => (i > moved && s.id.do === "measure" ? [s.key] : []));
}
