import type { FaceLine } from "../frame";
import type { Gate } from "./gates";
import type { Reason } from "./reason";
import type { StepId } from "./stepSchema";

/** Which face of the frame looks up while something is done. */
export type Up = "top" | "bottom";

export const turned = (up: Up): Up => (up === "top" ? "bottom" : "top");

/** One thing to do, in its place in the order. Data alone: sentences are made of it in one place (see stepWords). */
export interface Step {
  id: StepId;
  /** The id as one word, to look it up by. */
  key: string;
  part: "tack" | "weld";
  /** Joint that it is done at; null for steps of the whole frame. */
  joint: string | null;
  line: FaceLine | null;
  up: Up;
  /** Gate to measure at. */
  gate: Gate | null;
  /** What must be so before the next step. */
  waitsFor: "touch" | "cold" | null;
  /** A measure step at which the error is closed while the joints still turn. */
  closes: boolean;
  why: Reason;
  /** What the frame lies on: a surface that it is clamped to, or three rests. */
  on: LiesOn;
}

/** What a frame is built on. */
export type LiesOn = "surface" | "three rests";

const again = (nth = 1): string => (nth === 1 ? "" : `-${nth}`);

/** One word for a step, to look it up by and for addresses; nothing reads it back. */
export function stepKey(id: StepId): string {
  switch (id.do) {
    case "tack":
      return `tack/${id.joint}/${id.line}${again(id.nth)}`;
    case "bead":
      return `bead/${id.joint}/${id.line}${again(id.nth)}`;
    case "measure":
      return id.nth === 1 ? `measure/${id.gate}` : `measure/${id.gate}-${id.nth}`;
    case "flip":
      return `flip/${id.part}-${id.nth}`;
    case "wait":
      return `wait/${id.until}${again(id.nth)}`;
    case "brace":
    case "unbrace":
      return `${id.do}/${id.bar}`;
    default:
      return id.do;
  }
}
