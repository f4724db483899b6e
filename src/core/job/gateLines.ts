import { SPANS } from "../geometry";
import { isOfWhole, type PartOfStep, type Step } from "../plan";
import { beyondPairs, coldSet, tapedPairs } from "./coldSet";
import type { Evaluation } from "./evaluate";
import { distanceId, quantityWords } from "./quantityId";

/** What is read at a step that measures, in walking order: a line to write on for each; cold it is what the screen asks for. */
export function gateLines(
  step: Pick<Step, "gate">,
  part: PartOfStep | undefined,
  evaluation: Pick<Evaluation, "structure" | "places" | "limits">,
): string[] {
  const { places } = evaluation;
  if (step.gate === null || !part || !places) return [];
  const isWhole = part.of === null && isOfWhole(part, step);
  if (isWhole && step.gate === "cold") return coldSet(evaluation).map(quantityWords);
  const ways = isWhole ? (part.ring ? beyondPairs(places) : tapedPairs(places)) : [];
  return [...(part.ring ? SPANS : []), ...ways.map(([p, q]) => quantityWords(distanceId(p, q)))];
}
