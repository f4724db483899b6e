import type { Structure } from "../frame";
import { CORNERS, type Corner, ends, SPANS } from "../geometry";
import { cross, sub, unit, type Vec2 } from "../numeric";
import { mouthsOf, type Places, spanningHeights, walkingSet } from "../square";
import type { Evaluation } from "./evaluate";
import { levelMembers } from "./levelled";
import { distanceId, quantityKey, spanId } from "./quantityId";
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

/** Ways that cross as well as others, sine, to a hundredth: the first of them are taken, so that a hair in the drawing changes nothing. */
const SAME_CROSSING = 0.01;

/**
 * What is taped from the corners of a frame to each place beyond them: the two ways that cross there best, and of the others the one that crosses
 * those best, so that a misread shows.
 */
export function beyondPairs({ nodes, beyond }: Pick<Places, "nodes" | "beyond">): [from: string, to: string][] {
  return beyond.flatMap((place) => {
    const at = nodes[place] as Vec2;
    const way = (corner: Corner): Vec2 => unit(sub(nodes[corner] as Vec2, at));
    const crossing = (p: Corner, q: Corner): number => Math.abs(cross(way(p), way(q)));
    const best = SPANS.map((span) => ends(span)).reduce((a, b) =>
      crossing(b[0], b[1]) > crossing(a[0], a[1]) + SAME_CROSSING ? b : a,
    );
    const least = (c: Corner): number => Math.min(...best.map((b) => crossing(b, c)));
    const spare = CORNERS.filter((c) => !best.includes(c)).reduce((a, b) =>
      least(b) > least(a) + SAME_CROSSING ? b : a,
    );
    return [...best, spare].sort().map((corner): [string, string] => [corner, place]);
  });
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
  const pairs = structure.quad ? beyondPairs(places) : tapedPairs(places);
  const lengths = [...(structure.quad ? SPANS.map(spanId) : []), ...pairs.map(([p, q]) => distanceId(p, q))];
  // Feet that are asked for as a mouth already are not asked for twice.
  const asked = new Set(lengths.map(quantityKey));
  const feet = places.feet.pairs.map(([p, q]) => distanceId(p, q)).filter((q) => !asked.has(quantityKey(q)));
  const heights = structure.quad ? CORNERS : spanningHeights(places, MOST_HEIGHTS);
  const rails = structure.quad ? [] : railsOf(structure);
  const levels = limits.some((l) => l.id === "level") ? levelMembers(structure) : [];
  return [
    ...lengths,
    ...feet,
    ...heights.map((at): QuantityId => ({ kind: "height", at })),
    ...rails.map((at): QuantityId => ({ kind: "straightness", at })),
    ...levels.map((at): QuantityId => ({ kind: "level", at })),
  ];
}
