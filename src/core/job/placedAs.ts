import type { Prediction } from "../shrink";
import type { Plan } from "./planSchema";
import { canPredict } from "./predictable";

/** What the places of a frame on the bed are taken from, and where it is the drawing, why. */
export type PlacedAs = "set up" | "drawn" | "not yet predicted" | "beyond prediction" | "not predicted";

/**
 * What places are taken from.
 * @param prediction of the plan as it is; null while there is none.
 */
export function placedAs(plan: Plan, prediction: Prediction | null): PlacedAs {
  if (plan.aim !== "set-up") return "drawn";
  if (prediction) return prediction.setUp.beyondMm === null ? "set up" : "beyond prediction";
  return canPredict(plan) ? "not yet predicted" : "not predicted";
}

/** That in words, after "placed" or "places are". */
export const PLACED_AS_WORDS: Record<PlacedAs, string> = {
  "set up": "as the frame is set up, off nominal for what the weld will take",
  drawn: "as drawn",
  "not yet predicted": "as drawn until the prediction is there, which moves them",
  "beyond prediction": "as drawn: the weld moves a corner by more than this model can say",
  "not predicted": "as drawn: what the weld takes is not predicted",
};

/** Whether a frame that is placed so comes free of what stands about it once it has shrunk, where nothing of it is trapped. */
export const COMES_FREE_WORDS: Record<PlacedAs, string> = {
  "set up": "When it has shrunk it comes free of every stop.",
  drawn: "Comes free as drawn; what it shrinks by is not counted in.",
  "not yet predicted": "Comes free as drawn; what it shrinks by is not worked out yet.",
  "beyond prediction": "Comes free as drawn; what it shrinks by is more than this model can say.",
  "not predicted": "Comes free as drawn; what it shrinks by is not predicted.",
};
