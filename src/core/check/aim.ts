import type { Deviation, Limits } from "./limitsSchema";

/** How far from nominal the finished frame is aimed along AB and along BC, mm. */
export interface Aim {
  lengthMm: number;
  widthMm: number;
}

const middle = ({ lower, upper }: Deviation): number => (lower && upper ? (lower.mm + upper.mm) / 2 : 0);

/**
 * Where the finished frame is aimed: the middle of its limits, farthest from both ends of them; the drawing's size where
 * the person said so, or where a side has one limit only.
 */
export const aimOf = (limits: Limits): Aim =>
  limits.kind === "own" && limits.aim !== "drawing"
    ? { lengthMm: middle(limits.length), widthMm: middle(limits.width) }
    : { lengthMm: 0, widthMm: 0 };
