import {
  type EndName,
  FROM_ABOVE,
  FROM_FRONT,
  FROM_RIGHT,
  fullestLevel,
  outOf,
  type Quadrilateral,
  reachToward,
  type Structure,
  type StructureMember,
  seenAt,
  type ViewAxes,
} from "../frame";
import { CORNERS, ends, nearestOnStretch, SIDES, type Side } from "../geometry";
import {
  add,
  add3,
  cross,
  distance,
  dot,
  dot3,
  Groups,
  norm,
  scale,
  scale3,
  sub,
  type Vec2,
  type Vec3,
} from "../numeric";
import { beyondCorners } from "./beyondCorners";
import { type Feet, feetOf } from "./feet";
import { clean, FREE_ENDS, freeEndOf } from "./freeEnd";

interface Named {
  name: string;
  at: Vec2;
}

/** Places of a frame between which one measures, seen square to its plane. */
export interface Places {
  /** Nominal, mm, from the origin. Named by corner and joint: `A`, `M1AB`. */
  nodes: Record<string, Vec2>;
  /** How a place is marked, by its name. */
  mark: Record<
    string,
    | "outside corner"
    | "on the outside, at the middle of the branch"
    | "where the centre lines cross"
    | "at its free end, on the centre line"
  >;
  /** Joint that a place belongs to. */
  joints: Record<string, string>;
  /** Member whose free end a place is, and which way it points; the others belong to a joint. */
  freeEnds: Record<string, { member: string; end: EndName; way: Vec2 }>;
  /** Of a frame with corners, places that lie well beyond them: the tip of a drawbar. What they are off is told against the corners. */
  beyond: string[];
  /** The two ends of every member as one says them, the way that it is drawn: a place there, or where that end lies in the drawing. */
  endsOf: Record<string, readonly [from: string, to: string]>;
  /** Middles of members, at which a height is read where the other places are too few to tell whether it is flat: any three are. */
  middles: Record<string, { member: string; at: Vec2 }>;
  /** Where legs stand, apart from all that: no place of a plane, but for one that lies in it. */
  feet: Feet;
  /** How much higher than the lowest of them the underside at a place of which a height is read is drawn, mm. */
  heights: Record<string, number>;
  /** Points that are no part of the frame, mm from the same origin: taped to, never moved. */
  points: Record<string, Vec2>;
  /** Pairs that one tape reaches along a member. */
  along: [string, string][];
  /** How it is seen, and where the origin lies then. */
  seen: "from above" | "standing";
  view: ViewAxes;
  origin: Vec2;
}

const AT_FREE_END = "at its free end, on the centre line";
const WHERE_LINES_CROSS = "where the centre lines cross";

/** A branch that leaves the plane by more than this, sine, stands off it. */
const STANDS_OFF = 0.7;

/** A member that runs less to the side than this, cosine, is upright in the drawing. */
const UPRIGHT = 1e-3;

/** An end this many widths of its tube from a place is not called by it: the outside corner lies beside the centre line's end. */
const AT_PLACE_WIDTHS = 1.5;

/** Ends of members by the places that they lie at, where both have one of their own; else by where they lie as the frame is seen. */
function endsOf(structure: Structure, nodes: Places["nodes"], view: ViewAxes, origin: Vec2): Places["endsOf"] {
  return Object.fromEntries(
    structure.members.map((m) => {
      const [from, to] = [m.from, m.to].map((end) => sub(seenAt(end, view), origin)) as [Vec2, Vec2];
      const near = AT_PLACE_WIDTHS * Math.max(m.properties.widthMm, m.properties.heightMm);
      const placeAt = (p: Vec2): string | undefined =>
        Object.entries(nodes)
          .map(([name, at]) => ({ name, far: distance(at, p) }))
          .filter(({ far }) => far < near)
          .sort((a, b) => a.far - b.far)[0]?.name;
      const [first, last] = [placeAt(from), placeAt(to)];
      if (first && last && first !== last) return [m.id, [first, last] as const];
      const along = sub(to, from);
      const words =
        Math.abs(along.x) >= Math.abs(along.y)
          ? ["its left end", "its right end"]
          : ["its lower end in the drawing", "its upper end in the drawing"];
      const isForward = Math.abs(along.x) >= Math.abs(along.y) ? along.x >= 0 : along.y >= 0;
      return [m.id, (isForward ? words : words.reverse()) as [string, string]];
    }),
  );
}

/** How far a place lies along a side of a quadrilateral, 0 to 1, and how far off it, mm. */
const alongSide = (p: Vec2, quad: Quadrilateral, side: Side) => {
  const [from, to] = ends(side).map((c) => quad.corners[c]) as [Vec2, Vec2];
  return nearestOnStretch(p, from, to);
};

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

/** Places before their heights are known. */
type FoundPlaces = Omit<Places, "heights" | "feet">;

/** Places of a quadrilateral with its branches: outside corners, and where the branches' middles show on the outside. */
function ofQuadrilateral(structure: Structure, quad: Quadrilateral): FoundPlaces {
  const nodes: Places["nodes"] = { ...quad.corners };
  const mark: Places["mark"] = Object.fromEntries(CORNERS.map((c) => [c, "outside corner"]));
  const joints: Places["joints"] = { ...quad.joints };
  const along: Places["along"] = [];
  const onSide = new Map<Side, (Named & { share: number })[]>();
  const sideOf = new Map(SIDES.map((s) => [quad.sides[s], s]));
  const landings = new Map<string, string[]>();
  for (const joint of structure.joints) {
    const side = sideOf.get(joint.a);
    const name = clean(joint.id);
    const corner = CORNERS.some((c) => quad.joints[c] === joint.id);
    const branch = structure.members.find((m) => m.id === joint.b);
    // What stands off the plane shows no mark that a tape could reach in it.
    const standsOff = branch !== undefined && Math.abs(branch.axes[0][quad.view.depth]) > STANDS_OFF;
    if (corner || standsOff || joint.kind === "lap" || nodes[name]) continue;
    const p = sub(seenAt(joint.at, quad.view), quad.origin);
    if (!side) continue;
    const { share } = alongSide(p, quad, side);
    const [from, to] = ends(side).map((c) => quad.corners[c]) as [Vec2, Vec2];
    const at = add(from, scale(sub(to, from), share));
    // Two that land at one place, a rail and its brace, have one mark; what stands in a corner has that.
    const thick = Math.max(branch?.properties.widthMm ?? 0, branch?.properties.heightMm ?? 0);
    const there =
      CORNERS.find((c) => distance(quad.corners[c], at) < thick) ??
      onSide.get(side)?.find((n) => distance(n.at, at) < thick / 2)?.name;
    if (there) {
      landings.set(joint.b, [...(landings.get(joint.b) ?? []), there]);
      continue;
    }
    nodes[name] = at;
    mark[name] = "on the outside, at the middle of the branch";
    joints[name] = joint.id;
    onSide.set(side, [...(onSide.get(side) ?? []), { name, at, share }]);
    landings.set(joint.b, [...(landings.get(joint.b) ?? []), name]);
  }
  for (const side of SIDES) {
    const found = (onSide.get(side) ?? []).sort((a, b) => a.share - b.share).map((n) => n.name);
    const [p, q] = ends(side);
    const line = [p as string, ...found, q as string];
    if (line.length > 2) for (let i = 1; i < line.length; i++) along.push([line[i - 1], line[i]]);
  }
  for (const names of landings.values()) {
    const [a, b] = [...new Set(names)];
    if (a && b) along.push([a, b]);
  }
  const freeEnds: Places["freeEnds"] = {};
  const beyond: string[] = [];
  for (const { name: usual, at, joint, freeEnd } of beyondCorners(structure, quad)) {
    // The end of P and the joint of P on a member E have one name: whoever comes later takes another.
    let name = usual;
    while (nodes[name]) name += "X";
    beyond.push(name);
    nodes[name] = at;
    mark[name] = freeEnd ? AT_FREE_END : WHERE_LINES_CROSS;
    if (joint) joints[name] = joint;
    if (freeEnd) freeEnds[name] = freeEnd;
  }
  return {
    nodes,
    mark,
    joints,
    freeEnds,
    beyond,
    endsOf: endsOf(structure, nodes, quad.view, quad.origin),
    middles: {},
    points: {},
    along,
    seen: quad.view.depth === 2 ? "from above" : "standing",
    view: quad.view,
    origin: quad.origin,
  };
}

/** A free end nearer to a joint than this share of the frame says little that that one does not. Other free ends gape from it. */
const FREE_END_SHARE = 0.25;

/** Nor is an end left out that is nearly as far from one, where the other end of its member counts: alike ends are alike (own judgement). */
const ALIKE_ENDS = 0.8;

/** Free ends nearer to each other than so many widths of the tube say the same; in a row of joints, to a joint, too. */
const ROW_WIDTHS = 2;

/** Whether places lie in one row, to so many mm. */
function isRow(places: readonly Vec2[], thickMm: number): boolean {
  const [p] = places;
  if (!p) return true;
  const far = places.reduce((best, q) => (distance(p, q) > distance(p, best) ? q : best), p);
  const way = sub(far, p);
  const long = norm(way);
  return long < thickMm || places.every((q) => Math.abs(cross(way, sub(q, p))) / long < thickMm);
}

/** Heights of which at least one is more than it takes to lay a plane through. */
const ENOUGH_HEIGHTS = 4;

/** Middles of the members that lie among the places. */
function middlesOf(
  { members }: Structure,
  nodes: Places["nodes"],
  isAmong: (at: Vec3) => boolean,
  onView: (at: Vec3) => Vec2,
): Places["middles"] {
  return Object.fromEntries(
    members.flatMap((m) => {
      const name = clean(`${m.id}M`);
      const middle = scale3(add3(m.from, m.to), 0.5);
      return nodes[name] || !isAmong(middle) ? [] : [[name, { member: m.id, at: onView(middle) }]];
    }),
  );
}

/** How far the members of a frame reach along that one along which they reach farthest, mm: the same however it is turned. */
function farthestMm({ members }: Structure): number {
  const points = members.flatMap((m) => [m.from, m.to]);
  const reaches = members.map(({ axes: [way] }) => {
    const along = points.map((p) => dot3(p, way));
    return Math.max(...along) - Math.min(...along);
  });
  return Math.max(...reaches);
}

/** Whether members go round between places: more of them than it takes to hang the places together. */
function goesRound({ nodes, along }: Pick<Places, "nodes" | "along">): boolean {
  const hang = new Groups(Object.keys(nodes));
  for (const [p, q] of along) hang.join(p, q);
  const hung = new Set(Object.keys(nodes).map((name) => hang.of(name)));
  return along.length > Object.keys(nodes).length - hung.size;
}

/** Fewer places than this share of those of another plane say less of a frame than those do (own judgement). */
const AS_TELLING = 0.5;

/**
 * Joints and free ends of any frame that lie in its main plane, at the level that holds most of them: the plane of its two longer extents,
 * unless it stands and its rails go round on their posts: then theirs, that of a table's top.
 */
function ofJoints(structure: Structure): FoundPlaces {
  const size = structure.high.map((v, i) => v - structure.low[i]) as [number, number, number];
  // A frame that stands is measured standing; one that lies, from above.
  const lies = size[2] <= Math.max(size[0], size[1]) && size[2] <= 1.001 * Math.min(size[0], size[1]);
  const above = inView(structure, FROM_ABOVE);
  if (lies) return above;
  const standing = inView(structure, size[1] <= size[0] ? FROM_FRONT : FROM_RIGHT);
  const many = ({ nodes }: FoundPlaces): number => Object.keys(nodes).length;
  return goesRound(above) && many(above) >= AS_TELLING * many(standing) ? above : standing;
}

/** Joints and free ends as they are seen in one view, at the level that holds most of them. */
function inView(structure: Structure, view: ViewAxes): FoundPlaces {
  const origin = seenAt(structure.low, view);
  const thick = Math.max(...structure.members.map((m) => Math.max(m.properties.widthMm, m.properties.heightMm)), 1);
  const isLevel = fullestLevel(
    structure,
    view,
    structure.joints.map((j) => j.at[view.depth]),
  );
  const isOnLevel = (at: Vec3): boolean => isLevel(at[view.depth]);
  const nodes: Places["nodes"] = {};
  const joints: Places["joints"] = {};
  const onMember = new Map<string, Named[]>();
  for (const j of structure.joints) {
    const name = clean(j.id);
    if (!isOnLevel(j.at) || nodes[name] || !/^[A-Z]/.test(name)) continue;
    const seen = sub(seenAt(j.at, view), origin);
    // Two rails that land on one post, or a rail and its brace, have one place.
    const there = Object.entries(nodes).find(([, n]) => distance(n, seen) < thick / 2);
    const [place, at] = there ?? [name, seen];
    if (!there) {
      nodes[place] = at;
      joints[place] = j.id;
    }
    for (const m of [j.a, j.b]) {
      const own = onMember.get(m) ?? [];
      if (own.every((n) => n.name !== place)) onMember.set(m, [...own, { name: place, at }]);
    }
  }
  // What stands free is where an open frame gapes: as good a place as a joint, unless one is hard by. Where all joints lie in one row, a
  // comb's, it alone tells whether its teeth stand square.
  const freeEnds: Places["freeEnds"] = {};
  const addFreeEnd = (m: StructureMember, [end, letter]: (typeof FREE_ENDS)[number], hardBy: number): boolean => {
    const { at: end3, joints: meets } = m.ends[end];
    const name = clean(`${m.id}${letter}`);
    if (meets.length > 0 || !isOnLevel(end3) || nodes[name]) return false;
    const { at, place } = freeEndOf(m, end, view, origin);
    const isNear = (n: string): boolean =>
      distance(nodes[n] as Vec2, at) < (freeEnds[n] ? Math.min(hardBy, ROW_WIDTHS * thick) : hardBy);
    if (Object.keys(nodes).some(isNear)) return false;
    nodes[name] = at;
    freeEnds[name] = place;
    onMember.set(m.id, [...(onMember.get(m.id) ?? []), { name, at }]);
    return true;
  };
  const addFreeEnds = (hardBy: number, members: readonly StructureMember[]): void => {
    for (const m of members) {
      const [first, last] = FREE_ENDS;
      const begins = addFreeEnd(m, first, hardBy);
      const finishes = addFreeEnd(m, last, begins ? ALIKE_ENDS * hardBy : hardBy);
      if (finishes && !begins) addFreeEnd(m, first, ALIKE_ENDS * hardBy);
    }
  };
  addFreeEnds(FREE_END_SHARE * farthestMm(structure), structure.members);
  if (isRow(Object.values(nodes), thick)) addFreeEnds(ROW_WIDTHS * thick, structure.members);
  const along: Places["along"] = [];
  for (const [id, list] of onMember) {
    const way = seenAt(structure.members.find((m) => m.id === id)?.axes[0] ?? [1, 0, 0], view);
    // From the left, and upright ones from below.
    const onward = Math.abs(way.x) > UPRIGHT ? Math.sign(way.x) : Math.sign(way.y);
    const sorted = [...list].sort((a, b) => onward * dot(sub(a.at, b.at), way));
    for (let i = 1; i < sorted.length; i++) along.push([sorted[i - 1].name, sorted[i].name]);
  }
  return {
    nodes,
    mark: Object.fromEntries(Object.keys(nodes).map((n) => [n, freeEnds[n] ? AT_FREE_END : WHERE_LINES_CROSS])),
    joints,
    freeEnds,
    beyond: [],
    endsOf: endsOf(structure, nodes, view, origin),
    middles:
      Object.keys(nodes).length < ENOUGH_HEIGHTS
        ? middlesOf(structure, nodes, isOnLevel, (at) => sub(seenAt(at, view), origin))
        : {},
    points: {},
    along,
    seen: view.depth === 2 ? "from above" : "standing",
    view,
    origin,
  };
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
