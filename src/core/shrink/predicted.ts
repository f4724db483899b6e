import type { Estimate } from "../units";
import { type OutcomeId, outcomeKey } from "./outcomeId";
import type { Prediction } from "./prediction";

/** Outcomes with what is told of them. */
export interface Told {
  outcomes: readonly (Pick<Prediction["outcomes"][number], "id" | "estimate" | "draws" | "drawsFrom"> & {
    from?: Record<string, Estimate>;
  })[];
}

/** What an outcome comes to in some draws, by the same gate as its estimate; null where no draws are kept of it. */
export function drawsOf({ outcomes }: Told, id: OutcomeId, gate: string | null = null): readonly number[] | null {
  const found = outcomes.find((o) => outcomeKey(o.id) === outcomeKey(id));
  return (gate === null ? undefined : found?.drawsFrom?.[gate]) ?? found?.draws ?? null;
}

/**
 * What is predicted of one outcome; null when nothing is.
 * @param gate step from which on the change is asked about; of the whole order without one, or where nothing is told of it.
 */
export function predicted({ outcomes }: Told, id: OutcomeId, gate: string | null = null): Estimate | null {
  const found = outcomes.find((o) => outcomeKey(o.id) === outcomeKey(id));
  return (gate === null ? undefined : found?.from?.[gate]) ?? found?.estimate ?? null;
}

/** A change as a loss: positive when the frame gets smaller. */
export const lossOf = ({ value, low, high }: Estimate): Estimate => ({ value: -value, low: -high, high: -low });
