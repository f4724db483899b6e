import type { Structure } from "../frame";
import { CORNERS, SPANS } from "../geometry";
import { mouthsOf, type Places, spanningHeights, walkingSet } from "../square";
import type { Evaluation } from "./evaluate";
import { levelMembers } from "./levelled";
import { distanceId, spanId } from "./quantityId";
import type { QuantityId } from "./quantitySchema";

/** Heights asked for on a frame without corners. */
const MOST_HEIGHTS = 8;

/** What is taped of a frame without corners, in walking order: its places one from the other, and across its mouth where it is open in one place. */
export function tapedPairs(places: Places): [from: string, to: string][] {
  const walked = walkingSet(places);
  const [mouth, ...others] = mouthsOf(places);
  const isWalked = mouth && walked.some((w) => mouth.every((place) => w.includes(place)));
  return mouth && others.length === 0 && !isWalked ? [...walked, mouth] : walked;
}

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
  const lengths = structure.quad ? SPANS.map(spanId) : tapedPairs(places).map(([p, q]) => distanceId(p, q));
  const heights = structure.quad ? CORNERS : spanningHeights(places, MOST_HEIGHTS);
  const rails = structure.quad ? [] : railsOf(structure);
  const levels = limits.some((l) => l.id === "level") ? levelMembers(structure) : [];
  return [
    ...lengths,
    ...heights.map((at): QuantityId => ({ kind: "height", at })),
    ...rails.map((at): QuantityId => ({ kind: "straightness", at })),
    ...levels.map((at): QuantityId => ({ kind: "level", at })),
  ];
}
