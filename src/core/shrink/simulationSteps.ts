import type { FaceLine } from "../frame";
import type { Vec3 } from "../numeric";

/** Heat of a bead or tack, or its free closing when that is what is known (or measured). */
type Heat = { heatJPerMm: number; closingMm?: undefined } | { closingMm: number; heatJPerMm?: undefined };

/** Where something touches a frame. */
export interface ContactPlace {
  member: string;
  point: string;
  /** The way in which it pushes the member, of length 1. */
  push: Vec3;
  /** What it pushes the other way; what the frame stands on when left out. */
  against?: [member: string, point: string];
}

/** A force (N) and moment (N mm) on a node. */
export interface OnNode {
  member: string;
  point: string;
  wrench: readonly [number, number, number, number, number, number];
}

/** One event that moves, holds or lets go of the frame. `id` names it in attributions. */
export type SimulationStep = { id: string } & (
  | ({ do: "tack"; joint: string; line: FaceLine; lengthMm: number } & Heat)
  /** `share`: how much of its line a bead lies along, above 0 to 1; all of it where left out. */
  | ({ do: "bead"; joint: string; line: FaceLine; share?: number } & Heat)
  /** Contracted volume in the chord at a line, without a bead. */
  | { do: "chord"; joint: string; line: FaceLine; volumeMm3: number }
  | {
      do: "clamp";
      clamp: string;
      member: string;
      point: string;
      direction: Vec3;
      stiffnessNPerMm: number;
      /** Where the clamp pulls the point to, along its direction, mm from nominal; as it lies when left out. */
      toMm?: number;
      /** How far the clamp moves the point from where it lies, mm: a back-bow over a shim. */
      byMm?: number;
    }
  | { do: "unclamp"; clamp: string }
  /** Scrap tacked across from one point to another; holds all six ways. */
  | {
      do: "strongback on";
      strongback: string;
      from: [member: string, point: string];
      to: [member: string, point: string];
      section: { widthMm: number; heightMm: number; wallMm: number };
      /** How it is tacked: over the members or between them, by tacks so long and so hot. As fast as the members when left out. */
      tacks?: { lies: "over" | "between"; lengthMm: number; heatJPerMm: number };
    }
  | { do: "strongback off"; strongback: string }
  /** Something that a member, or two, may touch: it pushes that way and never pulls. */
  | ({ do: "stop on"; stop: string; gapMm?: number; givesMmPerN?: number } & ContactPlace)
  | { do: "stop off"; stop: string }
  /** The frame's own weight comes on what it lies on, N per mm of each member; or is taken up. */
  | { do: "weight on"; nPerMm: Readonly<Record<string, number>> }
  | { do: "weight off" }
  /** Put back into shape while the joints still turn; what is left of the error, 0 to 1. */
  /** `holds`: by cutting a corner, while all other joints stay as they stand; else every joint still turns. */
  /** `members`: a part of the frame that hangs on nothing else yet; left out where all of it is put back. */
  | { do: "square up"; residualShare: number; holds?: boolean; members?: readonly string[] }
  /** Clamps come off, the frame is turned, the same clamps go on again. */
  | { do: "flip" }
  | { do: "wait" }
  /** A force (N) and moment (N mm) on a node, and where they come in pairs on a second, kept from here on. */
  | ({ do: "load"; and?: OnNode } & OnNode)
);
