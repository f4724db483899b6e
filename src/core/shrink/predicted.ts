import type { Estimate } from "../units";
import { type OutcomeId, outcomeKey } from "./outcomeId";
import type { Prediction } from "./prediction";

/** Outcomes with what is told of them. */
export interface Told {
  outcomes: readonly Pick<Prediction["outcomes"][number], "id" | "estimate">[];
}

/** What is predicted of one outcome; null when nothing is. */
export const predicted = ({ outcomes }: Told, id: OutcomeId): Estimate | null =>
  outcomes.find((o) => outcomeKey(o.id) === outcomeKey(id))?.estimate ?? null;

/** A change as a loss: positive when the frame gets smaller. */
export const lossOf = ({ value, low, high }: Estimate): Estimate => ({ value: -value, low: -high, high: -low });
