import { SIDES } from "../geometry";
import { type OutcomeId, outcomeKey } from "./outcomeId";

/** Members told of a frame without sides: those that change most. */
const MOST_TOLD = 6;

/**
 * Outcomes that are told step by step: sides, squareness and twist of a frame that has them; of others their mouths, the
 * lengths that change most, and flatness.
 * @param size of an outcome in the end, mm.
 */
export function toldOutcomes(ids: readonly OutcomeId[], size: (id: OutcomeId) => number): OutcomeId[] {
  const wanted: OutcomeId[] = [
    ...SIDES.map((span): OutcomeId => ({ kind: "span", span })),
    { kind: "square" },
    { kind: "twist" },
  ];
  const keys = new Set(ids.map(outcomeKey));
  if (wanted.every((id) => keys.has(outcomeKey(id)))) return wanted;
  const lengths = ids.filter((id) => id.kind === "length").sort((a, b) => Math.abs(size(b)) - Math.abs(size(a)));
  return [
    ...ids.filter((id) => id.kind === "mouth" || id.kind === "feet"),
    ...lengths.slice(0, MOST_TOLD),
    ...ids.filter((id) => id.kind === "flat"),
  ];
}
