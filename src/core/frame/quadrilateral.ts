import { CORNERS, type Corner, ends, hull, lineCrossing, SIDES, type Side } from "../geometry";
import { add, cross3, dot, dot3, norm, norm3, scale, sub, sub3, unit, type Vec2, type Vec3 } from "../numeric";
import type { EndName } from "./meeting";
import { depthsOf, reachToward } from "./reachToward";
import type { Quadrilateral, Structure, StructureJoint, StructureMember } from "./structure";
import { TOLERANCES } from "./tolerances";
import { FROM_ABOVE, FROM_FRONT, FROM_RIGHT, inSpace, seenAt, type ViewAxes } from "./viewAxes";

/** Where a member of a ring meets the next one: in one joint, or each in its own on a post that runs through there. */
interface Meeting {
  own: StructureJoint;
  next: StructureJoint;
  post: StructureMember | null;
}

/** Four members round an opening. */
interface Ring {
  members: StructureMember[];
  /** `meetings[i]` is where member i meets member i + 1. */
  meetings: Meeting[];
}

const isCorner = (j: StructureJoint): boolean => j.endA !== null && j.endB !== null && j.kind !== "lap";

/** Where one end of a member meets another's. */
interface Step extends Meeting {
  end: EndName;
  other: string;
  otherEnd: EndName;
}

const backwards = (from: string, { own, next, post, end, otherEnd }: Step): Step => ({
  own: next,
  next: own,
  post,
  end: otherEnd,
  other: from,
  otherEnd: end,
});

const isSquareTo = (p: StructureMember, q: StructureMember): boolean =>
  Math.abs(dot3(p.axes[0], q.axes[0])) < TOLERANCES.squareSine;

const isAlong = (p: StructureMember, q: StructureMember): boolean =>
  norm3(cross3(p.axes[0], q.axes[0])) < TOLERANCES.squareSine;

/** An end that lands on a post. */
interface Landing {
  joint: StructureJoint;
  end: EndName;
  branch: StructureMember;
}

/** Whether two ends land on their post from two sides, on one level of it. */
function meetOnPost(p: Landing, q: Landing): boolean {
  const thick = Math.max(
    ...[p, q].map(({ branch: { properties } }) => Math.max(properties.widthMm, properties.heightMm)),
  );
  return !isAlong(p.branch, q.branch) && norm3(sub3(p.joint.at, q.joint.at)) < thick;
}

/** Ends of members that meet, by member: joined to each other, or landing on one post that stands square to both. */
function meetingEnds({ members, joints }: Pick<Structure, "members" | "joints">): Map<string, Step[]> {
  const at = new Map<string, Step[]>();
  const put = (from: string, step: Step): void => {
    at.set(from, [...(at.get(from) ?? []), step]);
    at.set(step.other, [...(at.get(step.other) ?? []), backwards(from, step)]);
  };
  for (const joint of joints) {
    const { a, b, endA, endB } = joint;
    if (isCorner(joint) && endA && endB)
      put(a, { own: joint, next: joint, post: null, end: endA, other: b, otherEnd: endB });
  }
  const byId = new Map(members.map((m) => [m.id, m]));
  for (const post of members) {
    const landing = joints.flatMap((joint): Landing[] => {
      const branch = byId.get(joint.b);
      const { endB, kind } = joint;
      return joint.a === post.id && endB && kind !== "lap" && branch && isSquareTo(post, branch)
        ? [{ joint, end: endB, branch }]
        : [];
    });
    landing.forEach((own, i) => {
      for (const next of landing.slice(i + 1))
        if (meetOnPost(own, next))
          put(own.branch.id, {
            own: own.joint,
            next: next.joint,
            post,
            end: own.end,
            other: next.branch.id,
            otherEnd: next.end,
          });
    });
  }
  return at;
}

/** Every ring of four members that meet end to end. */
function ringsOf(structure: Pick<Structure, "members" | "joints">): Ring[] {
  const byId = new Map(structure.members.map((m) => [m.id, m]));
  const order = new Map(structure.members.map((m, i) => [m.id, i]));
  const at = meetingEnds(structure);
  const found: Ring[] = [];
  const walk = (ids: string[], meetings: Meeting[], leaving: EndName): void => {
    const here = ids.at(-1) as string;
    for (const step of at.get(here) ?? []) {
      if (step.end !== leaving) continue;
      const first = ids[0] as string;
      if (ids.length === 4) {
        if (step.other !== first || step.otherEnd !== "from") continue;
        const members = ids.map((id) => byId.get(id) as StructureMember);
        found.push({ members, meetings: [...meetings, step] });
        continue;
      }
      // A ring is found once: it starts at its first member, which is left at its far end.
      if (ids.includes(step.other) || (order.get(step.other) as number) < (order.get(first) as number)) continue;
      walk([...ids, step.other], [...meetings, step], step.otherEnd === "from" ? "to" : "from");
    }
  };
  for (const m of structure.members) walk([m.id], [], "to");
  return found;
}

/** Between which depths all members of a ring that lies flat have a piece of themselves, and the height of the lowest of them, mm. */
function commonDepths({ members }: Pick<Ring, "members">, v: ViewAxes): { low: number; high: number; leastMm: number } {
  const all = members.map((m) => depthsOf(m, v));
  return {
    low: Math.max(...all.map(([low]) => low)),
    high: Math.min(...all.map(([, high]) => high)),
    leastMm: Math.min(...all.map(([low, high]) => high - low)),
  };
}

const isLevelIn = (m: StructureMember, v: ViewAxes): boolean => Math.abs(m.axes[0][v.depth]) < TOLERANCES.squareSine;

/** The view in which a ring lies flat, or null when it lies flat in none: tubes of unlike height lie in one plane flush, or inside each other's. */
function planeOf(ring: Ring): ViewAxes | null {
  const lies = (v: ViewAxes): boolean => {
    const { low, high, leastMm } = commonDepths(ring, v);
    return ring.members.every((m) => isLevelIn(m, v)) && high - low > leastMm / 2;
  };
  return [FROM_ABOVE, FROM_FRONT, FROM_RIGHT].find(lies) ?? null;
}

/** Twice the area that points go round, anticlockwise positive. */
const twiceArea = (list: readonly Vec2[]): number =>
  list.reduce((s, p, i) => {
    const q = list[(i + 1) % list.length] as Vec2;
    return s + p.x * q.y - q.x * p.y;
  }, 0);

/** Outside corner between each member and the next, as it is seen, of a post where that stands out; null when two run in one line. */
function outsideCorners({ members, meetings }: Ring, v: ViewAxes): Vec2[] | null {
  const inner = meetings.map(({ own }) => seenAt(own.at, v));
  const turn = Math.sign(twiceArea(inner));
  if (turn === 0) return null;
  const ways = members.map((_, i) => unit(sub(inner[i] as Vec2, inner[(i + 3) % 4] as Vec2)));
  /** A side's outer line at one of its corners. */
  const lineOf = (side: number, { post }: Meeting): { p: Vec2; u: Vec2 } => {
    const u = ways[side % 4] as Vec2;
    const out = { x: turn * u.y, y: -turn * u.x };
    const edge = (m: StructureMember): Vec2 => add(seenAt(m.from, v), scale(out, reachToward(m, inSpace(out, 0, v))));
    const own = edge(members[side % 4] as StructureMember);
    const others = post ? edge(post) : own;
    return { p: dot(others, out) > dot(own, out) ? others : own, u };
  };
  const corners = meetings.map((meeting, i) => {
    const [own, next] = [lineOf(i, meeting), lineOf(i + 1, meeting)];
    return lineCrossing(own.p, own.u, next.p, next.u);
  });
  return corners.every((c): c is Vec2 => c !== null) ? corners : null;
}

/** Member of a ring that is its k-th side, when corner `start` is A and it goes round that way: corner i lies between members i and i + 1. */
const sideAt = ({ members }: Ring, start: number, way: 1 | -1, k: number): string =>
  (members[(start + way * k + (way === 1 ? 1 : 0) + 8) % 4] as StructureMember).id;

/**
 * Which corner of a ring is A, and whether it goes round the ring's own way: so that sides which have the names of sides are those; else from
 * the lower left, anticlockwise. Null where its names are not in turn.
 */
function lettered(ring: Ring, corners: readonly Vec2[]): { start: number; way: 1 | -1 } | null {
  const way = twiceArea(corners) > 0 ? 1 : -1;
  const names = new Set<string>(SIDES);
  const isNamed = ring.members.some((m) => names.has(m.id));
  if (isNamed) {
    // A person's own letters may go round either way.
    const fits = ([way, -way] as (1 | -1)[]).flatMap((round) =>
      [0, 1, 2, 3]
        .map((start) => ({ start, way: round }))
        .filter((x) =>
          SIDES.every((side, k) => {
            const id = sideAt(ring, x.start, round, k);
            return id === side || !names.has(id);
          }),
        ),
    );
    return fits[0] ?? null;
  }
  const nearest = corners.reduce((best, c, i) => {
    const b = corners[best] as Vec2;
    return c.x + c.y < b.x + b.y - 1e-6 ? i : best;
  }, 0);
  return { start: nearest, way };
}

/** How far a ring lies from the nearest end of its posts, mm: a table's top at their end, its shelf between. Nought without posts. */
function fromPostEndsMm({ meetings }: Ring): number {
  const from = meetings.flatMap(({ own, post }) =>
    post ? [norm3(sub3(own.at, post.from)), norm3(sub3(own.at, post.to))] : [],
  );
  return from.length > 0 ? Math.min(...from) : 0;
}

function viewOf(ring: Ring, view: ViewAxes): Quadrilateral | null {
  const outside = outsideCorners(ring, view);
  const named = outside && lettered(ring, outside);
  if (!outside || !named) return null;
  const pick = (k: number): number => (named.start + named.way * k + 8) % 4;
  const seen = Object.fromEntries(CORNERS.map((c, k) => [c, outside[pick(k)] as Vec2])) as Record<Corner, Vec2>;
  const sides = Object.fromEntries(SIDES.map((s, k) => [s, sideAt(ring, named.start, named.way, k)]));
  const meetings = CORNERS.map((_, k) => ring.meetings[pick(k)] as Meeting);
  // Round its own way a side begins where the one before it meets it.
  const joints = Object.fromEntries(
    CORNERS.map((c, k) => [c, (meetings[k] as Meeting)[named.way === 1 ? "next" : "own"].id]),
  );
  const posts = Object.fromEntries(CORNERS.flatMap((c, k) => (meetings[k]?.post ? [[c, meetings[k].post.id]] : [])));
  const origin = {
    x: Math.min(...CORNERS.map((c) => seen[c].x)),
    y: Math.min(...CORNERS.map((c) => seen[c].y)),
  };
  const { low, high } = commonDepths(ring, view);
  const corners = Object.fromEntries(CORNERS.map((c) => [c, sub(seen[c], origin)])) as Record<Corner, Vec2>;
  const far = (span: string): number => {
    const [p, q] = ends(span);
    return norm(sub(corners[q], corners[p]));
  };
  return {
    sides: sides as Record<Side, string>,
    joints: joints as Record<Corner, string>,
    posts,
    view,
    origin,
    corners,
    at: Object.fromEntries(CORNERS.map((c) => [c, inSpace(seen[c], (low + high) / 2, view)])) as Record<Corner, Vec3>,
    lengthMm: far("AB"),
    widthMm: far("BC"),
    squareDifferenceMm2: far("AC") ** 2 - far("BD") ** 2,
  };
}

/**
 * A ring is the quadrilateral of a frame when it takes up this share at least of what all joints in its plane span: with an A-shaped drawbar half
 * as long again as it is wide a square deck takes up 0.57, half a hexagon 0.5 (own judgement).
 */
const WHOLE = 0.55;

/** Whether a ring is what the frame is as it is seen, with what is put in and a drawbar before it, and not a bay of it, or half of a hexagon. */
function isWhole(
  { members, joints }: Pick<Structure, "members" | "joints">,
  { sides, joints: own, view }: Quadrilateral,
): boolean {
  const ringIds = new Set(Object.values(sides));
  const { low, high, leastMm } = commonDepths({ members: members.filter((m) => ringIds.has(m.id)) }, view);
  const lying = new Set(
    members
      .filter((m) => {
        const [from, to] = depthsOf(m, view);
        return isLevelIn(m, view) && Math.min(high, to) - Math.max(low, from) > leastMm / 2;
      })
      .map((m) => m.id),
  );
  const at = (list: readonly StructureJoint[]): Vec2[] => list.map((j) => seenAt(j.at, view));
  const ofRing = CORNERS.flatMap((c) => joints.find((j) => j.id === own[c]) ?? []);
  const isUpright = (id: string): boolean =>
    members.some((m) => m.id === id && Math.hypot(m.axes[0][view.right], m.axes[0][view.up]) < TOLERANCES.squareSine);
  const spanned = hull(at(joints.filter((j) => lying.has(j.b) && (lying.has(j.a) || isUpright(j.a)))));
  return Math.abs(twiceArea(at(ofRing))) >= WHOLE * twiceArea(spanned);
}

/**
 * The quadrilateral of a frame, when it has one: four members joined end to end, or to posts that run through, that lie flat. One of which
 * sides are called AB, BC, CD or DA goes first, and keeps those; else what lies level goes before what stands, the largest before the
 * smaller, and a table's top before its shelf. Unnamed corners are lettered anticlockwise from the lower left, unless a member outside the ring has the name of a side.
 * @returns null for a frame without such four members, or of which they are a part and no more.
 */
export function quadrilateralOf(structure: Pick<Structure, "members" | "joints">): Quadrilateral | null {
  const named = (q: Quadrilateral): boolean => SIDES.some((s) => q.sides[s] === s);
  // Names of sides that other members have are not given away again.
  const isTaken = (ring: Ring): boolean =>
    structure.members.some((m) => SIDES.some((s) => s === m.id) && !ring.members.includes(m));
  const area = (q: Quadrilateral): number => Math.abs(twiceArea(CORNERS.map((c) => q.corners[c])));
  const found = ringsOf(structure).flatMap((ring) => {
    const view = planeOf(ring);
    const q = view && viewOf(ring, view);
    return q && !isTaken(ring) ? [{ q, endMm: fromPostEndsMm(ring) }] : [];
  });
  const rank = (q: Quadrilateral): number => (named(q) ? 0 : 2) + (q.view.depth === 2 ? 0 : 1);
  const differ = (p: number, q: number): number => (Math.abs(p - q) < TOLERANCES.samePieceMm ? 0 : p - q);
  const [first] = found
    .sort(
      (a, b) =>
        rank(a.q) - rank(b.q) ||
        area(b.q) - area(a.q) ||
        differ(a.endMm, b.endMm) ||
        a.q.at.A[2] - b.q.at.A[2] ||
        a.q.at.A[1] - b.q.at.A[1],
    )
    .map(({ q }) => q);
  return first && (named(first) || isWhole(structure, first)) ? first : null;
}

/** Diagonals that differ by less, mm, are alike. */
const ALIKE_MM = 0.05;

/** Whether it leans as it is drawn: its diagonals differ by more than anybody reads, and are compared with the drawing. */
export const leansAsDrawn = ({ corners }: Pick<Quadrilateral, "corners">): boolean =>
  Math.abs(norm(sub(corners.C, corners.A)) - norm(sub(corners.D, corners.B))) > ALIKE_MM;
