import type { FaceLine, MitreFace, TeeFace } from "../frame";

export const GATES = ["cut", "bed", "dry fit", "tacked", "hot", "cold"] as const;
/** A moment when one must measure before going on. */
export type Gate = (typeof GATES)[number];

/** One thing to do, in its place in the order. */
export interface Step {
  /** Lasting name: stays the same when the order changes, so that ticks stay with it. */
  key: string;
  kind: "hold" | "tack" | "bead" | "measure" | "flip" | "wait" | "release";
  part: "tack" | "weld";
  /** `A` or `M1/AB`; null for steps of the whole frame. */
  joint: string | null;
  face: MitreFace | TeeFace | FaceLine | null;
  /** Which face of the frame is up while this is done. */
  up: "top" | "bottom";
  /** Gate to measure at, for a measure step. */
  gate: Gate | null;
  /** A measure step at which the error is closed while the joints still turn. */
  closes?: boolean;
  /** Imperative, short. */
  say: string;
  why: string;
  /** Shown once, where it belongs. */
  caution: string | null;
}
