import { CORNERS, type Corner, ends, hull, lineCrossing, SIDES, type Side } from "../geometry";
import { add, norm, scale, sub, unit, type Vec2, type Vec3 } from "../numeric";
import { depthsOf, reachToward } from "./reachToward";
import type { Quadrilateral, Structure, StructureJoint, StructureMember } from "./structure";
import { TOLERANCES } from "./tolerances";
import { FROM_ABOVE, FROM_FRONT, FROM_RIGHT, inSpace, seenAt, type ViewAxes } from "./viewAxes";

/** Four members round an opening, each with the joint to the next one. */
interface Ring {
  members: StructureMember[];
  /** `joints[i]` joins member i and member i + 1. */
  joints: StructureJoint[];
}

const isCorner = (j: StructureJoint): boolean => j.endA !== null && j.endB !== null && j.kind !== "lap";

/** Every ring of four members joined end to end. */
function ringsOf(structure: Pick<Structure, "members" | "joints">): Ring[] {
  const byId = new Map(structure.members.map((m) => [m.id, m]));
  const order = new Map(structure.members.map((m, i) => [m.id, i]));
  const at = new Map<string, { joint: StructureJoint; end: "from" | "to"; other: string; otherEnd: "from" | "to" }[]>();
  const put = (id: string, end: "from" | "to", joint: StructureJoint, other: string, otherEnd: "from" | "to"): void => {
    at.set(id, [...(at.get(id) ?? []), { joint, end, other, otherEnd }]);
  };
  for (const joint of structure.joints) {
    const { a, b, endA, endB } = joint;
    if (!isCorner(joint) || !endA || !endB) continue;
    put(a, endA, joint, b, endB);
    put(b, endB, joint, a, endA);
  }
  const found: Ring[] = [];
  const walk = (ids: string[], joints: StructureJoint[], leaving: "from" | "to"): void => {
    const here = ids.at(-1) as string;
    for (const step of at.get(here) ?? []) {
      if (step.end !== leaving) continue;
      const first = ids[0] as string;
      if (ids.length === 4) {
        if (step.other !== first || step.otherEnd !== "from") continue;
        const members = ids.map((id) => byId.get(id) as StructureMember);
        found.push({ members, joints: [...joints, step.joint] });
        continue;
      }
      // A ring is found once: it starts at its first member, which is left at its far end.
      if (ids.includes(step.other) || (order.get(step.other) as number) < (order.get(first) as number)) continue;
      walk([...ids, step.other], [...joints, step.joint], step.otherEnd === "from" ? "to" : "from");
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

/** Outside corner between each member and the next, as it is seen; null when two run in one line. */
function outsideCorners({ members, joints }: Ring, v: ViewAxes): Vec2[] | null {
  const inner = joints.map((j) => seenAt(j.at, v));
  const turn = Math.sign(twiceArea(inner));
  if (turn === 0) return null;
  const lines = members.map((m, i) => {
    // Member i runs from the joint before it to its own.
    const u = unit(sub(inner[i] as Vec2, inner[(i + 3) % 4] as Vec2));
    const out = { x: turn * u.y, y: -turn * u.x };
    return { p: add(seenAt(m.from, v), scale(out, reachToward(m, inSpace(out, 0, v)))), u };
  });
  const corners = lines.map(({ p, u }, i) => {
    const next = lines[(i + 1) % 4] as { p: Vec2; u: Vec2 };
    return lineCrossing(p, u, next.p, next.u);
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

function viewOf(ring: Ring, view: ViewAxes): Quadrilateral | null {
  const outside = outsideCorners(ring, view);
  const named = outside && lettered(ring, outside);
  if (!outside || !named) return null;
  const pick = (k: number): number => (named.start + named.way * k + 8) % 4;
  const seen = Object.fromEntries(CORNERS.map((c, k) => [c, outside[pick(k)] as Vec2])) as Record<Corner, Vec2>;
  const joints = Object.fromEntries(CORNERS.map((c, k) => [c, (ring.joints[pick(k)] as StructureJoint).id]));
  const between = (p: number, q: number): string => {
    const [i, j] = [ring.joints[pick(p)], ring.joints[pick(q)]] as [StructureJoint, StructureJoint];
    return [i.a, i.b].find((id) => id === j.a || id === j.b) as string;
  };
  const sides = Object.fromEntries(SIDES.map((s, k) => [s, between(k, k + 1)]));
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
  const spanned = hull(at(joints.filter((j) => lying.has(j.a) && lying.has(j.b))));
  return Math.abs(twiceArea(at(ofRing))) >= WHOLE * twiceArea(spanned);
}

/**
 * The quadrilateral of a frame, when it has one: four members joined end to end that lie flat. One of which sides are called AB, BC, CD or DA
 * goes first, and keeps those; else what lies level goes before what stands, and the largest before the smaller. Unnamed corners are lettered
 * anticlockwise from the lower left, unless a member outside the ring has the name of a side.
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
    return q && !isTaken(ring) ? [q] : [];
  });
  const rank = (q: Quadrilateral): number => (named(q) ? 0 : 2) + (q.view.depth === 2 ? 0 : 1);
  const [first] = found.sort(
    (a, b) => rank(a) - rank(b) || area(b) - area(a) || a.at.A[2] - b.at.A[2] || a.at.A[1] - b.at.A[1],
  );
  return first && (named(first) || isWhole(structure, first)) ? first : null;
}

/** Diagonals that differ by less, mm, are alike. */
const ALIKE_MM = 0.05;

/** Whether it leans as it is drawn: its diagonals differ by more than anybody reads, and are compared with the drawing. */
export const leansAsDrawn = ({ corners }: Pick<Quadrilateral, "corners">): boolean =>
  Math.abs(norm(sub(corners.C, corners.A)) - norm(sub(corners.D, corners.B))) > ALIKE_MM;
