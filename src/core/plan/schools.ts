import type { ResolvedFrame } from "../frame";
import { acrossAndAround } from "./acrossAndAround";
import { hingeFirst } from "./hingeFirst";
import type { Step } from "./step";

/** An established order, with why it is advised. */
export interface School {
  name: string;
  says: string;
  why: string;
  steps: (frame: ResolvedFrame) => Step[];
}

export const TACK_SCHOOL: School = {
  name: "Hinge first",
  says: "One tack at each inside corner, measure across, close the error, lock on the opposite side.",
  why: "Advised: it is the one school that leaves a cheap correction open after the first tacks have pulled.",
  steps: hingeFirst,
};

export const WELD_SCHOOL: School = {
  name: "Across and around",
  says: "Outside seams, always to the opposite corner, then top and bottom in turn, insides last.",
  why: "Advised for open mitres: the inside bead decides the angle, so it goes in when three faces already hold; one face goes all round before the flip, or the frame twists.",
  steps: acrossAndAround,
};

/** The whole order for a frame: tacking, then welding. */
export const orderOfWork = (frame: ResolvedFrame): Step[] => [...TACK_SCHOOL.steps(frame), ...WELD_SCHOOL.steps(frame)];
