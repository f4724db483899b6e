import { overlapMm, partingDirections } from "../geometry";
import { add3, dot3, norm3, scale3, sub3, type Vec3 } from "../numeric";
import { formatSmall, type UnitPreference } from "../units";
import type { DrawnFrame, Obstacle } from "./drawnSchema";
import { directionWord, place } from "./placing";
import { bodyPoints } from "./resolveStructure";
import type { Structure, StructureMember } from "./structure";

/** A box in space: middle, unit axes, half sizes. */
interface Box {
  middle: Vec3;
  axes: readonly [Vec3, Vec3, Vec3];
  half: Vec3;
}

const UNIT: readonly [Vec3, Vec3, Vec3] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** The box round a member as it is cut. */
function memberBox(m: StructureMember): Box {
  const points = bodyPoints(m);
  const span = m.axes.map((d) => {
    const v = points.map((p) => dot3(p, d));
    return [Math.min(...v), Math.max(...v)] as const;
  });
  return {
    middle: m.axes.reduce<Vec3>(
      (s, d, i) => add3(s, scale3(d, ((span[i]?.[0] ?? 0) + (span[i]?.[1] ?? 0)) / 2)),
      [0, 0, 0],
    ),
    axes: m.axes,
    half: span.map(([low, high]) => (high - low) / 2) as unknown as Vec3,
  };
}

/** A box that stands square in the frame. @param low, high opposite corners. */
export const squareBox = (low: Vec3, high: Vec3): Box => ({
  middle: scale3(add3(low, high), 0.5),
  axes: UNIT,
  half: scale3(sub3(high, low), 0.5),
});

export const boxCorners = ({ middle, axes, half }: Box): Vec3[] =>
  [-1, 1].flatMap((i) =>
    [-1, 1].flatMap((j) =>
      [-1, 1].map((k) =>
        add3(
          middle,
          add3(scale3(axes[0], i * half[0]), add3(scale3(axes[1], j * half[1]), scale3(axes[2], k * half[2]))),
        ),
      ),
    ),
  );

/** The point of a box nearest to a point. */
function nearestInBox(box: Box, p: Vec3): Vec3 {
  const r = sub3(p, box.middle);
  return box.axes.reduce<Vec3>((s, d, i) => {
    const h = box.half[i] as number;
    return add3(s, scale3(d, Math.max(-h, Math.min(h, dot3(r, d)))));
  }, box.middle);
}

/** Corner numbers of the twelve edges, by the order of boxCorners. */
const EDGES: readonly (readonly [number, number])[] = [
  [0, 1],
  [2, 3],
  [4, 5],
  [6, 7],
  [0, 2],
  [1, 3],
  [4, 6],
  [5, 7],
  [0, 4],
  [1, 5],
  [2, 6],
  [3, 7],
];

/** The shortest way from one straight edge to another. */
function betweenEdges(p: Vec3, q: Vec3, r: Vec3, s: Vec3): [Vec3, Vec3] {
  const [u, v, w] = [sub3(q, p), sub3(s, r), sub3(p, r)];
  const [a, b, c, d, e] = [dot3(u, u), dot3(u, v), dot3(v, v), dot3(u, w), dot3(v, w)];
  const within = (x: number): number => Math.max(0, Math.min(1, x));
  const det = a * c - b * b;
  let x = det > 1e-12 * a * c ? within((b * e - c * d) / det) : 0;
  const y = within((b * x + e) / (c || 1));
  x = within((b * y - d) / (a || 1));
  return [add3(p, scale3(u, x)), add3(r, scale3(v, y))];
}

/**
 * Gap between two boxes. Exact: the nearest points of two boxes that are apart are a corner and a face or two edges.
 * @returns mm, and the way from the first to the second; negative when they lie in each other, by how deep.
 */
export function gapBetween(a: Box, b: Box): { mm: number; way: Vec3 } {
  const [ca, cb] = [boxCorners(a), boxCorners(b)];
  const directions = partingDirections(a.axes, b.axes);
  const deep = overlapMm(ca, cb, directions);
  if (deep > 0) return { mm: -deep, way: sub3(b.middle, a.middle) };
  let best: Vec3 = sub3(b.middle, a.middle);
  const take = (from: Vec3, to: Vec3) => {
    const way = sub3(to, from);
    if (norm3(way) < norm3(best)) best = way;
  };
  for (const p of ca) take(p, nearestInBox(b, p));
  for (const p of cb) take(nearestInBox(a, p), p);
  for (const [i, j] of EDGES)
    for (const [k, l] of EDGES) take(...betweenEdges(ca[i] as Vec3, ca[j] as Vec3, cb[k] as Vec3, cb[l] as Vec3));
  return { mm: norm3(best), way: best };
}

/** What stands too near to an object, or to the floor. */
interface Clearance {
  /** Object or `floor`. */
  of: string;
  name: string;
  /** Nearest member or part. */
  nearest: string;
  gapMm: number;
  leastMm: number;
  ok: boolean;
  why: string;
}

function ofObstacle(o: Obstacle, boxes: readonly { id: string; box: Box }[], units: UnitPreference): Clearance[] {
  const low = place(o.at);
  const own = squareBox(low, add3(low, place(o.size)));
  let best: { id: string; mm: number; way: Vec3 } | null = null;
  for (const { id, box } of boxes) {
    const gap = gapBetween(box, own);
    if (!best || gap.mm < best.mm) best = { id, ...gap };
  }
  if (!best) return [];
  const ok = best.mm >= o.least.mm - 1e-9;
  const name = o.name || o.id;
  const where = directionWord(best.way);
  const say = (mm: number): string => formatSmall(mm, units);
  const short = say(o.least.mm - best.mm);
  return [
    {
      of: o.id,
      name,
      nearest: best.id,
      gapMm: best.mm,
      leastMm: o.least.mm,
      ok,
      why: ok
        ? `Nearest is ${best.id}.`
        : best.mm < 0
          ? `${best.id} runs through ${name}. Move one of them by ${short} or more, ${name} to the ${where} or ${best.id} the other way.`
          : `${best.id} stands ${say(best.mm)} from ${name}, ${short} too near. Move ${name} to the ${where} or ${best.id} the other way.`,
    },
  ];
}

/** Every gap that a frame is asked to keep: to its objects and to the floor. Members count with the box round them. */
export function clearances(frame: DrawnFrame, structure: Structure, units: UnitPreference = "mm"): Clearance[] {
  const boxes = [
    ...structure.members.map((m) => ({ id: m.id, box: memberBox(m) })),
    ...structure.parts.map((p) => ({ id: p.id, box: squareBox(p.low, p.high) })),
  ];
  const out = frame.obstacles.flatMap((o) => ofObstacle(o, boxes, units));
  if (frame.floor && boxes.length > 0) {
    // Feet stand on the floor by right.
    const hanging = [
      ...structure.members.map((m) => ({ id: m.id, low: Math.min(...bodyPoints(m).map((p) => p[2])) })),
      ...structure.parts
        .filter((p) => frame.parts.find((x) => x.id === p.id)?.kind !== "foot")
        .map((p) => ({ id: p.id, low: p.low[2] })),
    ].sort((a, b) => a.low - b.low)[0];
    if (hanging) {
      const gap = hanging.low - frame.floor.at.mm;
      const ok = gap >= frame.floor.least.mm - 1e-9;
      out.push({
        of: "floor",
        name: "the floor",
        nearest: hanging.id,
        gapMm: gap,
        leastMm: frame.floor.least.mm,
        ok,
        why: ok
          ? `Lowest is ${hanging.id}.`
          : `${hanging.id} hangs ${formatSmall(frame.floor.least.mm - gap, units)} too low. Raise it or the frame.`,
      });
    }
  }
  return out;
}
