import { CORNERS, SPANS } from "../geometry";
import { walkingSet } from "../square";
import type { Evaluation } from "./evaluate";
import { levelMembers } from "./levelled";
import { distanceId, spanId } from "./quantityId";
import type { QuantityId } from "./quantitySchema";

/** Heights asked for on a frame without corners. */
const MOST_HEIGHTS = 8;

/** What is read of a cold frame, in walking order: on the screen, on a sheet of paper, and as that is typed back in. */
export function coldSet({
  structure,
  places,
  limits,
}: Pick<Evaluation, "structure" | "places" | "limits">): QuantityId[] {
  if (!structure || !places) return [];
  const lengths = structure.quad ? SPANS.map(spanId) : walkingSet(places).map(([p, q]) => distanceId(p, q));
  const heights = structure.quad ? CORNERS : Object.keys(places.nodes).slice(0, MOST_HEIGHTS);
  const levels = limits.some((l) => l.id === "level") ? levelMembers(structure) : [];
  return [
    ...lengths,
    ...heights.map((at): QuantityId => ({ kind: "height", at })),
    ...levels.map((at): QuantityId => ({ kind: "level", at })),
  ];
}
