import { fitPlane, fourWeights, heightOf, type Plane } from "../geometry";
import { cross, distance, sub, type Vec2 } from "../numeric";

type Triple = readonly [number, number, number];
const at = <T>(list: readonly T[], i: number): T => list[i];

function triples(n: number): Triple[] {
  const found: Triple[] = [];
  for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) for (let k = j + 1; k < n; k++) found.push([i, j, k]);
  return found;
}

/** Signed distance of p from the line through a and b, positive on the side where `inside` lies. */
function fromEdge(p: Vec2, a: Vec2, b: Vec2, inside: Vec2): number {
  const along = sub(b, a);
  const side = Math.sign(cross(along, sub(inside, a))) || 1;
  return (side * cross(along, sub(p, a))) / Math.hypot(along.x, along.y);
}

/** Distances of a point from the three edges of a triangle, positive inside; edge i lies opposite corner i. */
const edgeDistances = (p: Vec2, t: readonly [Vec2, Vec2, Vec2]): [number, number, number] => [
  fromEdge(p, t[1], t[2], t[0]),
  fromEdge(p, t[2], t[0], t[1]),
  fromEdge(p, t[0], t[1], t[2]),
];

/**
 * Downward force at a point that tips work off three rests. Source: moments about each edge.
 * @param centre of weight. @returns N; infinite inside the triangle, nought when it tips by itself.
 */
export function tipForceN(triangle: readonly [Vec2, Vec2, Vec2], centre: Vec2, weightN: number, push: Vec2): number {
  const g = edgeDistances(centre, triangle);
  const p = edgeDistances(push, triangle);
  let least = Number.POSITIVE_INFINITY;
  for (let k = 0; k < 3; k++) if (p[k] < 0) least = Math.min(least, Math.max(0, (weightN * g[k]) / -p[k]));
  return least;
}

/** One way in which rigid work lies on its rests. */
interface RestState {
  /** Rests that carry. */
  contact: number[];
  /** Under each point, mm. */
  gapsMm: number[];
}

export interface Rest {
  status: "steady" | "rocks_freely" | "rocks_when_pushed" | "falls";
  states: RestState[];
  /** Push down at each point that makes it rock, N; infinite where none does. */
  pushToRockN: number[];
}

const TOUCH_MM = 1e-7;

/**
 * How rigid work rests on points of unequal height: where it lies, whether it rocks, and what push it takes.
 * @param xy places of the supports, mm. @param heightMm support height less foot offset at each.
 * @param centre of weight. Source: upper hull of the points; moments.
 */
export function restOn(xy: readonly Vec2[], heightMm: readonly number[], centre: Vec2, weightN: number): Rest {
  const planes: { plane: Plane; triple: Triple }[] = [];
  for (const triple of triples(xy.length)) {
    const plane = fitPlane(
      triple.map((i) => at(xy, i)),
      triple.map((i) => at(heightMm, i)),
    );
    if (plane && xy.every((p, i) => heightOf(plane, p) - at(heightMm, i) >= -TOUCH_MM)) planes.push({ plane, triple });
  }
  const inside = ({ triple }: { triple: Triple }): boolean =>
    edgeDistances(centre, triple.map((i) => at(xy, i)) as [Vec2, Vec2, Vec2]).every((d) => d >= -1e-9);
  const same = (a: Plane, b: Plane): boolean => xy.every((p) => Math.abs(heightOf(a, p) - heightOf(b, p)) < 1e-6);
  const carrying: typeof planes = [];
  for (const facet of planes.filter(inside))
    if (!carrying.some((c) => same(c.plane, facet.plane))) carrying.push(facet);
  const states = carrying.map(({ plane }): RestState => {
    const gapsMm = xy.map((p, i) => {
      const gap = heightOf(plane, p) - at(heightMm, i);
      return Math.abs(gap) < 1e-9 ? 0 : gap;
    });
    return { contact: gapsMm.flatMap((g, i) => (g < TOUCH_MM ? [i] : [])), gapsMm };
  });
  const first = carrying[0];
  const infinite = xy.map(() => Number.POSITIVE_INFINITY);
  if (!first) return { status: "falls", states: [], pushToRockN: infinite };
  const distinct = planes.filter((p, i) => planes.findIndex((o) => same(o.plane, p.plane)) === i).length;
  if (distinct === 1) return { status: "steady", states, pushToRockN: infinite };
  const triangle = first.triple.map((i) => at(xy, i)) as [Vec2, Vec2, Vec2];
  return {
    status: carrying.length > 1 ? "rocks_freely" : "rocks_when_pushed",
    states,
    pushToRockN: xy.map((p) => tipForceN(triangle, centre, weightN, p)),
  };
}

/**
 * Four supports of unequal height: which two corners are light, and the gap at each with the other held down.
 * Source: closed form; the weights are blind to any plane.
 */
export function fourPointRock(
  xy: readonly [Vec2, Vec2, Vec2, Vec2],
  heightMm: readonly [number, number, number, number],
): { light: number[]; gapsMm: number[] } {
  const lam = fourWeights([...xy], [0, 1, 2, 3]);
  const s = lam.reduce((sum, l, i) => sum + l * at(heightMm, i), 0);
  const light = lam.flatMap((l, i) => (l * s < 0 ? [i] : []));
  return { light, gapsMm: lam.map((l, i) => (light.includes(i) ? Math.abs(s / l) : 0)) };
}

/** Three rests out of many. */
type BestThree =
  | { status: "ok"; rests: [number, number, number]; marginMm: number; loadShares: [number, number, number] }
  | { status: "no_stable_triangle" };

/**
 * The three supports on which work stands most safely: the weight farthest inside their triangle; among equals the widest
 * spacing, then the largest area.
 * @param marginMm how far inside the weight must be at least.
 */
export function bestThree(points: readonly Vec2[], centre: Vec2, marginMm = 0): BestThree {
  let best: { rests: Triple; margin: number; spacing: number; area: number } | null = null;
  for (const rests of triples(points.length)) {
    const t = rests.map((i) => at(points, i)) as [Vec2, Vec2, Vec2];
    const area = Math.abs(cross(sub(t[1], t[0]), sub(t[2], t[0]))) / 2;
    if (area < 1e-6) continue;
    const margin = Math.min(...edgeDistances(centre, t));
    const spacing = Math.min(distance(t[0], t[1]), distance(t[1], t[2]), distance(t[2], t[0]));
    const better =
      !best ||
      margin > best.margin + 1e-9 ||
      (margin > best.margin - 1e-9 &&
        (spacing > best.spacing + 1e-9 || (spacing > best.spacing - 1e-9 && area > best.area + 1e-9)));
    if (better) best = { rests, margin, spacing, area };
  }
  if (!best || best.margin <= marginMm) return { status: "no_stable_triangle" };
  const t = best.rests.map((i) => at(points, i)) as [Vec2, Vec2, Vec2];
  const own = edgeDistances(centre, t);
  const heights = [0, 1, 2].map((i) => edgeDistances(at(t, i), t)[i]);
  return {
    status: "ok",
    rests: [...best.rests],
    marginMm: best.margin,
    loadShares: own.map((d, i) => d / at(heights, i)) as [number, number, number],
  };
}

/** What four feet that are off do to the work: lift, tilt, and a twist that only shares out load. */
interface FootModes {
  /** At the middle of the feet, mm. */
  heightMm: number;
  slopeMmPerM: { x: number; y: number };
  /** Sum of weights times corrections, weights scaled to a sum of four, the first positive. */
  twistMm: number;
  /** Share of each foot's correction that is twist. */
  twistPartMm: number[];
}

/** Splits corrections of four feet. @returns null for feet on one line. */
export function footModes(xy: readonly [Vec2, Vec2, Vec2, Vec2], correctionsMm: readonly number[]): FootModes | null {
  const plane = fitPlane([...xy], [...correctionsMm]);
  if (!plane) return null;
  const middle = {
    x: xy.reduce((s, p) => s + p.x, 0) / 4,
    y: xy.reduce((s, p) => s + p.y, 0) / 4,
  };
  const raw = fourWeights([...xy], [0, 1, 2, 3]);
  const k = (4 / raw.reduce((s, l) => s + Math.abs(l), 0)) * (raw[0] < 0 ? -1 : 1);
  return {
    heightMm: heightOf(plane, middle),
    slopeMmPerM: { x: 1000 * plane.bx, y: 1000 * plane.by },
    twistMm: raw.reduce((s, l, i) => s + k * l * at(correctionsMm, i), 0),
    twistPartMm: xy.map((p, i) => at(correctionsMm, i) - heightOf(plane, p)),
  };
}

/** Loads of a soft rectangle on four feet. */
interface FourFootLoads {
  /** At A, B, C, D, N. */
  loadsN: [number, number, number, number];
  allTouch: boolean;
  /** Twist of the supports against the free frame that its own weight still closes, mm. */
  largestTwistMm: number;
}

/**
 * A soft, heavy frame closes its own rock gap. Source: statics plus one spring for the twist.
 * @param lengthMm, widthMm distances of the feet. @param centre of weight from A's foot.
 * @param stiffnessNPerMm force that lifts one corner by 1 mm with three held. @param twistMm supports less free frame.
 */
export function fourFootLoads(
  lengthMm: number,
  widthMm: number,
  weightN: number,
  centre: Vec2,
  stiffnessNPerMm: number,
  twistMm: number,
): FourFootLoads {
  const ex = (centre.x - lengthMm / 2) / (lengthMm / 2);
  const ey = (centre.y - widthMm / 2) / (widthMm / 2);
  const signs = [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ] as const;
  const still = signs.map(([sx, sy]) => (weightN / 4) * (1 + sx * ex + sy * ey));
  const loadsN = still.map((r, i) => r + stiffnessNPerMm * twistMm * (i % 2 === 0 ? 1 : -1)) as FourFootLoads["loadsN"];
  const losing = still.filter((_, i) => (i % 2 === 0 ? -twistMm : twistMm) > 0 || twistMm === 0);
  return {
    loadsN,
    allTouch: Math.min(...loadsN) >= 0,
    largestTwistMm: Math.min(...losing) / stiffnessNPerMm,
  };
}

/** Sag of a long tube under its own weight, mm. */
interface Sag {
  centreMm: number;
  endMm: number;
}

/** Rests this share of the length in from the ends leave a tube straightest. */
export const BEST_INSET = 0.223;

/**
 * Sag of a tube on two rests. Source: Euler and Bernoulli, superposition (closed form).
 * @param wNPerMm weight per mm. @param insetMm of the rests from the ends.
 */
export function sagOnTwoRests(wNPerMm: number, lengthMm: number, eMPa: number, iMm4: number, insetMm = 0): Sag {
  const s = lengthMm - 2 * insetMm;
  const a = insetMm;
  const ei = eMPa * iMm4;
  return {
    centreMm: (5 * wNPerMm * s ** 4) / (384 * ei) - (wNPerMm * a ** 2 * s ** 2) / (16 * ei),
    endMm: (wNPerMm * a ** 4) / (8 * ei) - (a * ((wNPerMm * s ** 3) / 24 - (wNPerMm * a ** 2 * s) / 4)) / ei,
  };
}
