export const GATES = ["cut", "bed", "dry fit", "tacked", "hot", "cold"] as const;
/** A moment when one must measure before going on. */
export type Gate = (typeof GATES)[number];
