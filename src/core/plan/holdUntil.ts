/** Until when a weld waits for another: until that sits, can be touched, is cold, or the frame was measured since. */
export const HOLD_UNTIL = ["laid", "touch", "cold", "measured"] as const;
export type HoldUntil = (typeof HOLD_UNTIL)[number];
