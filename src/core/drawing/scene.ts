import {
  bodyPoints,
  FROM_ABOVE,
  FROM_FRONT,
  FROM_RIGHT,
  middleOf,
  type Structure,
  type StructureMember,
  seenAt,
  type ViewAxes,
} from "../frame";
import { CORNERS, type Corner, ends, hull, SIDES } from "../geometry";
import { add, distance, scale, sub, unit, type Vec2, type Vec3 } from "../numeric";

/** Outline of a member as it is seen, closed. All places in mm from the scene's origin, up is up. */
export interface SceneOutline {
  kind: "outline";
  member: string;
  points: Vec2[];
}

/** Outline of a plate, foot or cap as it is seen, closed. */
interface ScenePart {
  kind: "part";
  part: string;
  points: Vec2[];
}

export interface SceneLine {
  kind: "line";
  points: Vec2[];
  /** What it stands for. */
  role: "moved";
}

interface SceneText {
  kind: "text";
  text: string;
  at: Vec2;
  role: "member" | "corner";
  /** How long the member is seen, mm: a name that has no room is left out. */
  roomMm: number;
  /** Where a member's name may stand: from one end of it to the other. */
  along?: [Vec2, Vec2];
}

/** A length with the way off which its figure stands. */
interface SceneDimension {
  kind: "dimension";
  from: Vec2;
  to: Vec2;
  away: Vec2;
  lengthMm: number;
}

type SceneItem = SceneOutline | ScenePart | SceneLine | SceneText | SceneDimension;

/** A view of a frame as outlines, lines, texts and dimensions: what every drawing is made from, on screen and on paper. */
export interface Scene {
  view: ViewAxes;
  /** Place of the scene's origin in the view's plane. */
  origin: Vec2;
  low: Vec2;
  high: Vec2;
  /** Corners A to D where the view shows them. */
  corners: Record<Corner, Vec2> | null;
  items: SceneItem[];
}

/** A frame thinner than this share of its smaller extent is flat: it is seen square to its plane. */
const FLAT_SHARE = 0.25;

const extents = ({ low, high }: Structure): [number, number, number] => [
  high[0] - low[0],
  high[1] - low[1],
  high[2] - low[2],
];

/** The view in which a frame shows most of itself: square to its quadrilateral when it is flat, else the broadest. */
function bestView(structure: Structure): ViewAxes {
  const size = extents(structure);
  const { quad } = structure;
  if (quad && size[quad.view.depth] <= FLAT_SHARE * Math.min(size[quad.view.right], size[quad.view.up]))
    return quad.view;
  const area = (v: ViewAxes): number => size[v.right] * size[v.up];
  return [FROM_ABOVE, FROM_FRONT, FROM_RIGHT].reduce((best, v) => (area(v) > 1.05 * area(best) ? v : best));
}

/** Where a view's origin lies by habit: outside corner A's lower left, else the lower left of everything. */
const usualOrigin = (structure: Structure, view: ViewAxes): Vec2 =>
  structure.quad && structure.quad.view.depth === view.depth ? structure.quad.origin : seenAt(structure.low, view);

/** A place of the frame in a scene. */
export const inScene = ({ view, origin }: Pick<Scene, "view" | "origin">, p: Vec3): Vec2 =>
  sub(seenAt(p, view), origin);

/** Outline of a member as it is seen in a view. */
export const outlineIn = (m: StructureMember, view: ViewAxes): Vec2[] =>
  hull(bodyPoints(m).map((p) => seenAt(p, view)));

function cornerDimensions(corners: Record<Corner, Vec2>): SceneDimension[] {
  const centre = scale(
    CORNERS.map((c) => corners[c]).reduce((s, p) => add(s, p), { x: 0, y: 0 }),
    1 / 4,
  );
  return (["AB", "BC"] as const).map((side): SceneDimension => {
    const [from, to] = ends(side).map((c) => corners[c]) as [Vec2, Vec2];
    const along = unit(sub(to, from));
    const middle = scale(add(from, to), 0.5);
    const normal = { x: -along.y, y: along.x };
    const out = normal.x * (middle.x - centre.x) + normal.y * (middle.y - centre.y) > 0;
    return {
      kind: "dimension",
      from,
      to,
      away: out ? normal : scale(normal, -1),
      lengthMm: distance(from, to),
    };
  });
}

const boxDimensions = (low: Vec2, high: Vec2): SceneDimension[] => [
  { kind: "dimension", from: low, to: { x: high.x, y: low.y }, away: { x: 0, y: -1 }, lengthMm: high.x - low.x },
  { kind: "dimension", from: { x: low.x, y: high.y }, to: low, away: { x: -1, y: 0 }, lengthMm: high.y - low.y },
];

/**
 * A structure as it is seen: outlines with the nearest last, names, overall sizes, corner letters.
 * @param seen the view and its origin; the best one when left out.
 */
export function sceneOf(structure: Structure, seen?: { view: ViewAxes; origin?: Vec2 }): Scene {
  const view = seen?.view ?? bestView(structure);
  const origin = seen?.origin ?? usualOrigin(structure, view);
  const { quad } = structure;
  const corners =
    quad && quad.view.depth === view.depth
      ? (Object.fromEntries(CORNERS.map((c) => [c, inScene({ view, origin }, quad.at[c])])) as Record<Corner, Vec2>)
      : null;
  const nearer = view.depth === 1 ? -1 : 1;
  const deep = (m: StructureMember): number => nearer * middleOf(m)[view.depth];
  const members = [...structure.members].sort((a, b) => deep(a) - deep(b));
  const outlines = members.map(
    (m): SceneOutline => ({
      kind: "outline",
      member: m.id,
      points: outlineIn(m, view).map((p) => sub(p, origin)),
    }),
  );
  const parts = structure.parts.map(
    (p): ScenePart => ({
      kind: "part",
      part: p.id,
      points: hull(p.corners.map((c) => inScene({ view, origin }, c))),
    }),
  );
  const all = outlines.flatMap((o) => o.points);
  const [low, high] =
    all.length === 0
      ? [
          { x: 0, y: 0 },
          { x: 0, y: 0 },
        ]
      : [
          { x: Math.min(...all.map((p) => p.x)), y: Math.min(...all.map((p) => p.y)) },
          { x: Math.max(...all.map((p) => p.x)), y: Math.max(...all.map((p) => p.y)) },
        ];
  // A side that is called by its corners is told by their letters.
  const told = new Set(corners && quad ? SIDES.filter((s) => quad.sides[s] === s) : []);
  const names = structure.members
    .filter((m) => !told.has(m.id as never))
    .map((m): SceneText => {
      const [p, q] = [m.ends.from.at, m.ends.to.at].map((x) => inScene({ view, origin }, x)) as [Vec2, Vec2];
      const at = inScene({ view, origin }, middleOf(m));
      return { kind: "text", text: m.id, at, role: "member", roomMm: distance(p, q), along: [p, q] };
    });
  const letters = corners
    ? CORNERS.map((c): SceneText => ({ kind: "text", text: c, at: corners[c], role: "corner", roomMm: Infinity }))
    : [];
  const dimensions = corners ? cornerDimensions(corners) : boxDimensions(low, high);
  return { view, origin, low, high, corners, items: [...parts, ...outlines, ...names, ...letters, ...dimensions] };
}
