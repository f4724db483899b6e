import type { Estimate } from "../units";
import { type OutcomeId, outcomeKey } from "./outcomeId";
import type { Prediction } from "./prediction";

/** Outcomes with what is told of them. */
export interface Told {
  outcomes: readonly (Pick<Prediction["outcomes"][number], "id" | "estimate" | "draws" | "drawsFrom"> & {
    from?: Record<string, Estimate>;
  })[];
}

/** What is told of a place of a frame, one way: what it changes by from a gate on, and that in some draws, where they are kept. */
export interface PlaceTold {
  change: Estimate;
  draws: readonly number[];
}

/** What is told of the places of a frame without corners from a gate on, by place and way. */
export function placesTold({ outcomes }: Told, gate: string | null): Map<string, Record<"right" | "up", PlaceTold>> {
  const told = new Map<string, Record<"right" | "up", PlaceTold>>();
  const nothing: PlaceTold = { change: { value: 0, low: 0, high: 0 }, draws: [] };
  for (const { id, estimate, from, draws, drawsFrom } of outcomes) {
    if (id.kind !== "place") continue;
    const here = told.get(id.place) ?? { right: nothing, up: nothing };
    here[id.way] = {
      change: (gate === null ? undefined : from?.[gate]) ?? estimate,
      draws: (gate === null ? undefined : drawsFrom?.[gate]) ?? draws ?? [],
    };
    told.set(id.place, here);
  }
  return told;
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
