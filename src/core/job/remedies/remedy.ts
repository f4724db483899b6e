import type { BentSection, RemedyId, RemedyOption, Stands } from "../../check";
import type { Structure, StructureMember } from "../../frame";
import type { StructureMechanics } from "../../mechanics";
import type { UnitEffects } from "../../shrink";
import type { ShrinkFactors } from "../../weld";
import type { Plan } from "../planSchema";
import type { BeadDeed } from "./beadDeeds";

/** One remedy with all that is said of it. */
export interface Remedy {
  id: RemedyId;
  option: RemedyOption;
  /** What its amount is: how far it is pushed, or so many beads or places of heat. */
  counts: "mm" | "pieces";
  /**
   * For a push past yield: what comes back, mm, and the force, N; how much of what stays a mm of the quantity is on what is pushed; and which
   * quantity that is, where it moves several.
   */
  push: { springbackMm: number; forceN: number; mmPerUnit: number; of?: string | undefined } | null;
  /** For what is spread over several places: how much of the amount goes to each. */
  places?: { at: string; share: number }[];
  /** What to look out for. */
  cautions: string[];
}

/** A remedy as its kind makes it: its word is given to it. */
export type Offer = Omit<Remedy, "option"> & { option: Omit<RemedyOption, "id"> };

/** What a kind of remedy offers for a frame, and why it does not. */
export interface Offered {
  offers: Offer[];
  refused: string[];
}

/** What a kind of remedy starts from that neither heats nor bends. */
export interface ColdContext {
  plan: Plan;
  structure: Structure;
  /** What is judged, and how it stands. */
  quantities: Readonly<Record<string, Stands>>;
}

/** What every other kind starts from. */
export interface RemedyContext extends ColdContext {
  mechanics: StructureMechanics;
  factors: ShrinkFactors;
  beads: readonly BeadDeed[];
  /** Members whose bow is judged, of rectangular tube. */
  bowed: readonly StructureMember[];
  /** Elastic effects of beads, kinks (`AB bow`) and pulls (`AC`). */
  elastic: UnitEffects;
  /** Effects of one more bead from where the order ended. */
  more: UnitEffects;
}

/** What a remedy changes by less is not told, mm. */
export const LEAST_EFFECT = 1e-4;
/** A wall or seam that may give way before the tube turns. Source: own judgement. */
export const SLENDER_RISK = 0.05;
/** Yield that a piece is likely to have over what is stated. Source: own judgement (real yield is 1 to 1.4 times nominal, from memory). */
export const LIKELY_YIELD = 1.15;
/** No more of it than brings a quantity past nought by a fifth. */
export const mostOf = (value: number): number => 1.2 * Math.abs(value);

/** Sizes of a rectangular tube. */
export interface Tube {
  widthMm: number;
  heightMm: number;
  wallMm: number;
}
export const tubeOf = (m: StructureMember | undefined): Tube | null => (m?.shape.shape === "tube" ? m.shape : null);
/** A tube as it is bent in the frame's plane, and out of it. */
export const inPlane = (t: Tube): BentSection => ({ widthMm: t.heightMm, depthMm: t.widthMm, wallMm: t.wallMm });
export const outOfPlane = (t: Tube): BentSection => ({ widthMm: t.widthMm, depthMm: t.heightMm, wallMm: t.wallMm });

/** Of an effect on everything, what is judged. @param times so often. */
export const onJudged = (
  { quantities }: RemedyContext,
  effect: Readonly<Record<string, number>> | undefined,
  times = 1,
): Record<string, number> =>
  Object.fromEntries(
    Object.keys(quantities).flatMap((k) => {
      const v = times * (effect?.[k] ?? 0);
      return Math.abs(v) > LEAST_EFFECT ? [[k, v] as const] : [];
    }),
  );
