import {
  type EndName,
  fullestLevel,
  outOf,
  type Structure,
  type StructureJoint,
  type StructureMember,
  seenAt,
  type ViewAxes,
} from "../frame";
import { CORNERS, type Corner, SIDES } from "../geometry";
import { type JointPoints, type MechanicalModel, mechanicalKind } from "../mechanics";
import { cross, cross3, distance, dot3, norm, scale3, sub, sub3, unit3, type Vec3 } from "../numeric";
import { laidBy, mouthsOf, type Places, placesOf } from "../square";
import { cornerOutcomes } from "./cornerOutcomes";
import { bow, distanceChange, flatnessOf, type Outcome } from "./outcomes";
import { type OutputPoint, type Outputs, outputsOf } from "./outputs";
import { type FollowedPlace, placeOutcomes } from "./placeOutcomes";

const UP: Vec3 = [0, 0, 1];
/** A member rises by no more than this, sine, when it counts as lying. */
const LIES = 0.02;
/** Members whose ends lie this level with each other count for flatness, mm. */
const LEVEL_MM = 1;
/** Points of a side at which flatness is asked about, besides the corners: enough for its shape, few for the work. */
const FLAT_POINTS = 5;
/** Points off a line by less than this make no area, mm. */
const ROW_MM = 20;

type Joints = ReadonlyMap<string, JointPoints>;

/** Joints at which two ends are mitred or butted straight: their corner moves as the mean of both. */
const sharedCorners = (structure: Structure): StructureJoint[] =>
  structure.joints.filter((j) => ["mitre", "butt"].includes(mechanicalKind(j)));

/**
 * Points to follow: the quadrilateral's outside corners as a tape takes them (on the member that runs through, where one does),
 * then corners that two ends share, then every member along its line.
 */
export const frameOutputs =
  (structure: Structure, joints: Joints) =>
  (model: MechanicalModel): Outputs => {
    const { quad } = structure;
    const taped = quad
      ? CORNERS.map((c) => {
          const id = quad.joints[c];
          const joint = structure.joints.find((j) => j.id === id) as StructureJoint;
          const both = mechanicalKind(joint) === "mitre";
          return {
            id: c,
            point: (joints.get(id) as JointPoints).a,
            at: quad.at[c],
            ...(both ? {} : { member: joint.a }),
          };
        })
      : [];
    const shared = sharedCorners(structure).map((j) => ({
      id: j.id,
      point: (joints.get(j.id) as JointPoints).a,
      at: j.at,
    }));
    return outputsOf(model, [...taped, ...shared]);
  };

/** What a member's end moves with: the corner that it is mitred into, the member that it lands on, or nothing else. */
function endPoint(
  m: StructureMember,
  end: EndName,
  structure: Structure,
  joints: Joints,
  corners: readonly OutputPoint[],
  points: readonly OutputPoint[],
): OutputPoint {
  const mine = points.filter((p) => p.member === m.id);
  const own = (end === "from" ? mine[0] : mine.at(-1)) as OutputPoint;
  const shared = sharedCorners(structure).findIndex(
    (j) => (j.a === m.id && j.endA === end) || (j.b === m.id && j.endB === end),
  );
  if (shared >= 0) return corners[shared] ?? own;
  const landing = structure.joints.find((j) => j.kind !== "lap" && j.b === m.id && j.endB === end);
  if (!landing) return own;
  return points.find((p) => p.member === landing.a && p.point === joints.get(landing.id)?.a) ?? own;
}

/** What a joint's place moves with: the corner that two ends share, or the member that the other lands on. */
function jointPoint(
  id: string | undefined,
  structure: Structure,
  joints: Joints,
  corners: readonly OutputPoint[],
  { points }: Outputs,
): OutputPoint | undefined {
  const joint = structure.joints.find((j) => j.id === id);
  if (!joint) return undefined;
  const corner = sharedCorners(structure).findIndex((j) => j.id === joint.id);
  return corner >= 0
    ? corners[corner]
    : points.find((p) => p.member === joint.a && p.point === joints.get(joint.id)?.a);
}

/** Points of a member that are nodes between its ends. */
const nodesOf = (along: readonly OutputPoint[]): OutputPoint[] => along.filter((_, i) => i % 2 === 0).slice(1, -1);

/** At most so many of a list, evenly. */
function spread(list: readonly OutputPoint[]): OutputPoint[] {
  if (list.length <= FLAT_POINTS) return [...list];
  return Array.from({ length: FLAT_POINTS }, (_, i) => list[Math.round((i * (list.length - 1)) / (FLAT_POINTS - 1))]);
}

/** Whether points span an area as they are seen: a row of them has no flatness. */
function spansArea(points: readonly OutputPoint[], view: ViewAxes): boolean {
  const seen = points.map(({ at }) => seenAt(at, view));
  const [p] = seen;
  if (!p) return false;
  const farthest = seen.reduce((best, q) => (distance(q, p) > distance(best, p) ? q : best), p);
  const way = sub(farthest, p);
  const length = norm(way);
  return length > 1 && seen.some((q) => Math.abs(cross(way, sub(q, p))) / length > ROW_MM);
}

/** Points of the level that most members lie in, the lowest of them when several are alike: both ends and the middle of each. */
function mainLevel(members: StructureMember[], along: (id: string) => OutputPoint[], view: ViewAxes): OutputPoint[] {
  const { depth } = view;
  const lying = members.filter((m) => Math.abs(m.from[depth] - m.to[depth]) <= LEVEL_MM);
  const depths = lying.map((m) => m.from[depth]);
  const isOnLevel = fullestLevel({ members }, view, depths);
  return lying
    .filter((m) => isOnLevel(m.from[depth]))
    .flatMap((m) => {
      const points = along(m.id);
      return [points[0], points[Math.floor(points.length / 2)], points.at(-1)] as OutputPoint[];
    });
}

/** The two ways that a member bows: along the bed, outward from the middle, and up for one that lies; else by its own axes. */
export function bowWays(m: StructureMember, structure: Structure): { out: Vec3; up: Vec3; lies: boolean } {
  const [x, y, z] = m.axes;
  const plane = structure.quad ? outOf(structure.quad.view) : UP;
  if (Math.abs(dot3(x, plane)) > LIES) return { out: y, up: z, lies: false };
  const across = unit3(cross3(plane, x));
  const middle = scale3([0, 1, 2].map((i) => structure.low[i] + structure.high[i]) as never, 0.5);
  const out = dot3(across, sub3(m.from, middle));
  const outward = Math.abs(out) > ROW_MM ? out > 0 : across[0] + across[1] + across[2] > 0;
  return { out: outward ? across : scale3(across, -1), up: plane, lies: true };
}

/** What the places of a frame move with, and what is told between its free ends across from each other, and between its feet. */
function following(
  structure: Structure,
  places: Places,
  joints: Joints,
  outputs: Outputs,
  shared: readonly OutputPoint[],
): { follow: (name: string) => FollowedPlace[]; between: Outcome[] } {
  const endIn = (ends: Record<string, { member: string; end: EndName }>, name: string): OutputPoint | undefined => {
    const { member, end } = ends[name] ?? {};
    const points = outputs.points.filter((p) => p.member === member);
    return end === "from" ? points[0] : points.at(-1);
  };
  const endOf = (name: string): OutputPoint | undefined => endIn(places.freeEnds, name);
  const waysOf = (kind: "mouth" | "feet", pairs: [string, string][], ends: Places["feet"]["ends"]): Outcome[] =>
    pairs.flatMap(([from, to]) => {
      const [p, q] = [endIn(ends, from), endIn(ends, to)];
      return p && q ? [distanceChange({ kind, from, to }, p, q)] : [];
    });
  return {
    follow: (name) => {
      const at = places.nodes[name];
      const point = places.freeEnds[name]
        ? endOf(name)
        : jointPoint(places.joints[name], structure, joints, shared, outputs);
      return at && point ? [{ name, at, point }] : [];
    },
    between: [
      ...waysOf("mouth", mouthsOf(places), places.freeEnds),
      ...waysOf("feet", places.feet.pairs, places.feet.ends),
    ],
  };
}

/** What is reported of any frame: how its ends draw together, its bows, its flatness, and the shape of its quadrilateral. */
export const frameOutcomes =
  (structure: Structure, joints: Joints) =>
  (model: MechanicalModel, outputs: Outputs): Outcome[] => {
    const { quad } = structure;
    const along = (id: string): OutputPoint[] => outputs.points.filter((p) => p.member === id);
    const members = structure.members.filter((m) => model.members.has(m.id));
    const free = outputs.points.filter((p) => p.member === null);
    const shared = free.slice(quad ? CORNERS.length : 0);
    const lengths = members.map((m) => {
      const [p, q] = (["from", "to"] as const).map((end) =>
        endPoint(m, end, structure, joints, shared, outputs.points),
      );
      return distanceChange({ kind: "length", member: m.id }, p, q);
    });
    const bows = members.flatMap((m) => {
      const points = along(m.id);
      const { out, up } = bowWays(m, structure);
      return points.length < 3
        ? []
        : [bow({ kind: "bow", member: m.id }, points, out), bow({ kind: "lift", member: m.id }, points, up)];
    });
    const places = placesOf(structure);
    const { follow, between } = following(structure, places, joints, outputs, shared);
    if (quad) {
      const up = outOf(quad.view);
      const corner = Object.fromEntries(CORNERS.map((c, i) => [c, free[i]])) as Record<Corner, OutputPoint>;
      const shape = cornerOutcomes(corner, up);
      const flat = [...free.slice(0, CORNERS.length), ...SIDES.flatMap((s) => spread(nodesOf(along(quad.sides[s]))))];
      // What lies beyond the corners, and those, for it is against them that it is off.
      const own = CORNERS.map((c): FollowedPlace => ({ name: c, at: quad.corners[c], point: corner[c] }));
      const { beyond } = places;
      const placed =
        beyond.length > 0 ? placeOutcomes([...own, ...beyond.flatMap(follow)], quad.view, laidBy(beyond)) : [];
      const flatness = flatnessOf({ kind: "flat" }, flat, up);
      return [...shape.plan, ...between, ...lengths, flatness, shape.twist, ...placed, ...bows];
    }
    // In the plane in which its places are: there heights are read.
    const level = mainLevel(members, along, places.view);
    const flat =
      level.length >= 4 && spansArea(level, places.view)
        ? [flatnessOf({ kind: "flat" }, level, outOf(places.view))]
        : [];
    const followed = Object.keys(places.nodes).flatMap(follow);
    return [...between, ...lengths, ...flat, ...placeOutcomes(followed, places.view), ...bows];
  };
