import {
  FROM_ABOVE,
  FROM_FRONT,
  FROM_RIGHT,
  fullestLevel,
  type Structure,
  type StructureMember,
  seenAt,
  type ViewAxes,
} from "../frame";
import { add3, cross, distance, dot, dot3, Groups, norm, scale3, sub, type Vec2, type Vec3 } from "../numeric";
import { AT_FREE_END, endsOf, type FoundPlaces, type Named, type Places, WHERE_LINES_CROSS } from "./foundPlaces";
import { clean, FREE_ENDS, freeEndOf } from "./freeEnd";

/** A member that runs less to the side than this, cosine, is upright in the drawing. */
const UPRIGHT = 1e-3;

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
export function ofJoints(structure: Structure): FoundPlaces {
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
