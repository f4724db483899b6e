import { outOf, reachToward, type Structure, type StructureMember } from "../frame";
import { CORNERS } from "../geometry";
import { add, add3, distance, dot, dot3, scale, scale3, type Vec2, type Vec3 } from "../numeric";
import { ofQuadrilateral } from "./cornerPlaces";
import { feetOf } from "./feet";
import { type FoundPlaces, type Places, STANDS_OFF } from "./foundPlaces";
import { ofJoints } from "./jointPlaces";

/** The undersides at which heights are read: of what runs through at a joint, unless that stands up; of the lower of two that are mitred, of the member itself elsewhere. */
function drawnHeights(
  { members, joints }: Structure,
  { view, joints: jointOf, freeEnds, middles }: FoundPlaces,
): Places["heights"] {
  const up = outOf(view);
  const down = scale3(up, -1);
  const undersideMm = (id: string, at: Vec3 | undefined): number[] => {
    const m = members.find((x) => x.id === id);
    return m && at ? [dot3(at, up) - reachToward(m, down)] : [];
  };
  const memberOf = (id: string): StructureMember | undefined => members.find((m) => m.id === id);
  const standsUp = (id: string): boolean => Math.abs(memberOf(id)?.axes[0][view.depth] ?? 0) > STANDS_OFF;
  const all: [string, number[]][] = [
    ...Object.entries(jointOf).map(([name, id]): [string, number[]] => {
      const j = joints.find((x) => x.id === id);
      if (!j) return [name, []];
      // A post has no underside there: of what lands on it.
      if (standsUp(j.a)) return [name, undersideMm(j.b, j.atB)];
      return [name, [...undersideMm(j.a, j.at), ...(j.kind === "mitre" ? undersideMm(j.b, j.atB) : [])]];
    }),
    ...Object.entries(freeEnds).map(([name, { member, end }]): [string, number[]] => [
      name,
      undersideMm(member, memberOf(member)?.ends[end].at),
    ]),
    ...Object.entries(middles).map(([name, { member }]): [string, number[]] => {
      const m = memberOf(member);
      return [name, undersideMm(member, m && scale3(add3(m.from, m.to), 0.5))];
    }),
  ];
  const under = all.map(([name, mm]) => [name, Math.min(...mm)] as const).filter(([, mm]) => Number.isFinite(mm));
  const lowest = Math.min(...under.map(([, mm]) => mm));
  return Object.fromEntries(under.map(([name, mm]) => [name, mm - lowest]));
}

/**
 * Places of what is built.
 * @param points besides it, mm from corner A or the origin; one that is named like a place of the frame is left out.
 */
export function placesOf(structure: Structure, points: Readonly<Record<string, Vec2>> = {}): Places {
  const places = structure.quad ? ofQuadrilateral(structure, structure.quad) : ofJoints(structure);
  return {
    ...places,
    feet: feetOf(structure, places),
    heights: drawnHeights(structure, places),
    points: Object.fromEntries(Object.entries(points).filter(([name]) => !places.nodes[name])),
  };
}

/** Ends that point within sixty degrees of each other point the same way. */
const SAME_WAY = 0.5;

/**
 * Free ends across from each other where a frame is open: each with the nearest of another member, each pair once. One whose nearest has a
 * nearer itself only counts where both point the same way: the end of a comb's rail gapes from no tooth.
 */
export function mouthsOf({ freeEnds, nodes }: Places): [from: string, to: string][] {
  const names = Object.keys(freeEnds);
  const nearest = new Map(
    names.map((name) => {
      const others = names.filter((n) => freeEnds[n]?.member !== freeEnds[name]?.member);
      const far = (n: string): number => distance(nodes[n] as Vec2, nodes[name] as Vec2);
      return [name, others.sort((a, b) => far(a) - far(b))[0]] as const;
    }),
  );
  const pairs = names.flatMap((name): [string, string][] => {
    const other = nearest.get(name);
    const [p, q] = [freeEnds[name], freeEnds[other ?? ""]];
    if (other === undefined || !p || !q) return [];
    const isMouth = nearest.get(other) === name || dot(p.way, q.way) > SAME_WAY;
    return isMouth ? [[name, other].sort() as [string, string]] : [];
  });
  return [...new Map(pairs.map((p) => [p.join(), p])).values()];
}

/** Everything of which a height is read: places, but for those beyond the corners of a frame that has such; middles where they are too few. */
export const heightPlaces = ({ nodes, middles, beyond }: Places): Record<string, Vec2> => ({
  ...Object.fromEntries(Object.entries(nodes).filter(([name]) => !beyond.includes(name))),
  ...Object.fromEntries(Object.entries(middles).map(([name, { at }]) => [name, at])),
});

/**
 * Of many heights so many as span the frame: the farthest out first, then always the one that is farthest from those taken; in the order in
 * which the places are.
 */
export function spanningHeights(places: Places, most: number): string[] {
  const all = heightPlaces(places);
  const names = Object.keys(all);
  const at = (name: string): Vec2 => all[name] as Vec2;
  const middle = scale(
    names.reduce<Vec2>((sum, n) => add(sum, at(n)), { x: 0, y: 0 }),
    1 / Math.max(1, names.length),
  );
  const taken = new Set<string>();
  while (taken.size < Math.min(most, names.length)) {
    const from = taken.size > 0 ? [...taken].map(at) : [middle];
    const far = (n: string): number => Math.min(...from.map((p) => distance(p, at(n))));
    const [next] = names.filter((n) => !taken.has(n)).sort((p, q) => far(q) - far(p));
    if (next === undefined) break;
    taken.add(next);
  }
  return names.filter((n) => taken.has(n));
}

/** The places by which a frame is laid over its drawing: its corners where something lies well beyond them; else all. */
export const laidBy = (beyond: readonly string[]): readonly string[] => (beyond.length > 0 ? CORNERS : []);

/** Everything that can be taped to: the places of a frame and the points beside it. */
export const tapedTo = ({ nodes, points }: Places): Record<string, Vec2> => ({ ...nodes, ...points });
