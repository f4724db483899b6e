import type { Estimate } from "../units";
import { type OutcomeId, outcomeKey } from "./outcomeId";
import type { Prediction } from "./prediction";

/** What is predicted of one outcome; null when nothing is. */
export const predicted = ({ outcomes }: Pick<Prediction, "outcomes">, id: OutcomeId): Estimate | null =>
  outcomes.find((o) => outcomeKey(o.id) === outcomeKey(id))?.estimate ?? null;

/** A change as a loss: positive when the frame gets smaller. */
export const lossOf = ({ value, low, high }: Estimate): Estimate => ({ value: -value, low: -high, high: -low });
