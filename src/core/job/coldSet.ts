import type { Structure } from "../frame";
import { CORNERS, SPANS } from "../geometry";
import { walkingSet } from "../square";
import type { Evaluation } from "./evaluate";
import { levelMembers } from "./levelled";
import { distanceId, spanId } from "./quantityId";
import type { QuantityId } from "./quantitySchema";

/** Heights asked for on a frame without corners. */
const MOST_HEIGHTS = 8;

/** As many branches on one member make a rail of it. */
const RAIL_BRANCHES = 3;

/** Members that carry a row of branches, and bow by them. */
export const railsOf = ({ members, joints }: Structure): string[] =>
  members
    .filter((m) => joints.filter((j) => j.a === m.id && j.kind !== "lap").length >= RAIL_BRANCHES)
    .map((m) => m.id);

/** What is read of a cold frame, in walking order: on the screen, on a sheet of paper, and as that is typed back in. */
export function coldSet({
  structure,
  places,
  limits,
}: Pick<Evaluation, "structure" | "places" | "limits">): QuantityId[] {
  if (!structure || !places) return [];
  const lengths = structure.quad ? SPANS.map(spanId) : walkingSet(places).map(([p, q]) => distanceId(p, q));
  const heights = structure.quad ? CORNERS : Object.keys(places.nodes).slice(0, MOST_HEIGHTS);
  const rails = structure.quad ? [] : railsOf(structure);
  const levels = limits.some((l) => l.id === "level") ? levelMembers(structure) : [];
  return [
    ...lengths,
    ...heights.map((at): QuantityId => ({ kind: "height", at })),
    ...rails.map((at): QuantityId => ({ kind: "straightness", at })),
    ...levels.map((at): QuantityId => ({ kind: "level", at })),
  ];
}
