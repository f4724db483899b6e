import type { Structure } from "../frame";
import type { Vec2 } from "../numeric";
import { formatSmall, physical, type UnitPreference } from "../units";
import { type Footprint, footprint } from "./footprint";
import { GRAVITY_N_PER_KG, sagOnRests } from "./sagOnRests";
import { bestThree, fourFootLoads, fourPointRock, type Rest, restOn, tipForceN } from "./support";

/** How the frame lies on the rests as they are. */
export interface Lying {
  rest: Rest;
  /** What a person sees and does, in sentences. */
  say: string[];
  /** Three rests that carry it most safely. */
  best: string[] | null;
}

/** A rest with its place, mm from the footprint's origin. */
export interface RestPlace extends Vec2 {
  id: string;
}

/** The frame on three of the rests. */
export interface OnThree {
  rests: string[];
  /** How far inside the triangle the weight lies, mm. */
  marginMm: number;
  /** How far the frame then sags out of flat by its own weight, mm. */
  sagMm: number;
}

/** Least that the weight shall lie inside the three rests, as a share of the frame's shorter side (own judgement). */
const MARGIN_SHARE = 0.05;

/** The three of some rests that carry a frame most safely, and how it hangs between them once it holds together. */
export function onThreeRests(rests: readonly RestPlace[], structure: Structure): OnThree | null {
  const over = footprint(structure);
  if (!over) return null;
  const three = bestThree(rests, over.centreOfMass, MARGIN_SHARE * Math.min(over.lengthMm, over.widthMm));
  if (three.status !== "ok") return null;
  const places = three.rests.map((i) => rests[i]);
  const sag = sagOnRests(structure, places, over.origin);
  return sag && { rests: places.map((r) => r.id), marginMm: three.marginMm, sagMm: sag.highMm - sag.lowMm };
}

/** With more rests than this a frame is no rigid thing on a few points. */
const MOST_RESTS = 12;
/** A gap or push below this is not worth a word. */
const SEEN_MM = 0.02;

/**
 * How a straight, rigid frame lies on rests of unequal height, whether it rocks, and what its own weight closes once it is
 * welded. Source: statics of rigid work; see support.ts.
 * @param rests places. @param heightsMm height of every rest. @param twistNPerMm stiffness in twist of the finished frame.
 * @returns null when a height is missing, or there are too few or too many rests.
 */
export function lying(
  rests: readonly RestPlace[],
  heightsMm: Readonly<Record<string, number>>,
  frame: Footprint,
  twistNPerMm: number | null,
  units: UnitPreference,
): Lying | null {
  if (rests.length < 3 || rests.length > MOST_RESTS || rests.some((r) => heightsMm[r.id] === undefined)) return null;
  const heights = rests.map((r) => heightsMm[r.id]);
  const weightN = frame.massKg * GRAVITY_N_PER_KG;
  const rest = restOn(rests, heights, frame.centreOfMass, weightN);
  const name = (i: number): string => rests[i]?.id ?? "";
  const small = (mm: number): string => formatSmall(mm, units, { decimals: 2 });
  const say: string[] = [];
  const [first, second] = rest.states;
  const list = (ids: number[]): string => ids.map(name).join(", ");
  if (rest.status === "falls" || !first)
    say.push("Its weight lies outside the rests: move one out before laying it on.");
  else if (rest.status === "steady") say.push("It stands on all rests at once: it does not rock.");
  else if (rest.status === "rocks_freely" && second)
    say.push(`It rocks by itself between ${list(first.contact)} and ${list(second.contact)}.`);
  else {
    const gaps = first.gapsMm.flatMap((g, i) => (g >= SEEN_MM ? [`${name(i)} ${small(g)}`] : []));
    say.push(
      gaps.length > 0
        ? `It stands on ${list(first.contact)}; gaps: ${gaps.join(", ")}.`
        : `It stands on ${list(first.contact)}; the others are within ${small(SEEN_MM)}.`,
    );
    const pushes = rest.pushToRockN.flatMap((n, i) => (Number.isFinite(n) ? [{ i, n }] : []));
    const easiest = pushes.sort((a, b) => a.n - b.n)[0];
    if (easiest && gaps.length > 0)
      say.push(`A push of ${physical("mass", easiest.n / GRAVITY_N_PER_KG, units, 0)} on ${name(easiest.i)} rocks it.`);
  }
  if (twistNPerMm && rests.length >= 4 && rest.status !== "falls")
    say.push(
      `Welded, it is soft enough to close a rock gap of ${small(weightN / (4 * twistNPerMm))} by its own ${physical("mass", frame.massKg, units, 0)}.`,
    );
  const four = rests.length === 4 ? (rests as unknown as [Vec2, Vec2, Vec2, Vec2]) : null;
  if (four && twistNPerMm && rest.status !== "falls") {
    const rock = fourPointRock(around(four).map((i) => four[i]) as never, around(four).map((i) => heights[i]) as never);
    const light = rock.light.map((k) => around(four)[k]);
    const gap = Math.max(...rock.gapsMm);
    if (gap >= SEEN_MM)
      say.push(`Light corners: ${list(light)}. With one of them held down the gap at the other is ${small(gap)}.`);
    say.push(...loadWords(four, heights, frame, weightN, twistNPerMm, name, units));
  }
  const three = bestThree(rests, frame.centreOfMass);
  const carrying = three.status === "ok" ? (three.rests.map((i) => rests[i]) as unknown as [Vec2, Vec2, Vec2]) : null;
  if (carrying && three.status === "ok") {
    const pushed = frame.corners
      ? Object.entries(frame.corners).map(([corner, at]) => ({ at, where: `on corner ${corner}` }))
      : frame.hull.map((at) => ({ at, where: "where it reaches out farthest" }));
    const easiest = pushed
      .map(({ at, where }) => ({ where, n: tipForceN(carrying, frame.centreOfMass, weightN, at) }))
      .reduce((a, b) => (b.n < a.n ? b : a));
    say.push(
      `On ${three.rests.map(name).join(", ")} alone its weight lies ${formatSmall(three.marginMm, units)} inside${
        Number.isFinite(easiest.n)
          ? `; ${physical("mass", easiest.n / GRAVITY_N_PER_KG, units, 0)} ${easiest.where} would tip it`
          : ""
      }.`,
    );
  }
  return { rest, say, best: three.status === "ok" ? three.rests.map(name) : null };
}

/** Four places in the order round their middle, anticlockwise. */
function around(four: readonly Vec2[]): number[] {
  const cx = four.reduce((s, p) => s + p.x, 0) / 4;
  const cy = four.reduce((s, p) => s + p.y, 0) / 4;
  return [0, 1, 2, 3].sort(
    (a, b) => Math.atan2(four[a].y - cy, four[a].x - cx) - Math.atan2(four[b].y - cy, four[b].x - cx),
  );
}

/** Load on each of four feet under a welded frame that gives, when they stand in a rectangle. */
function loadWords(
  four: readonly Vec2[],
  heights: readonly number[],
  frame: Footprint,
  weightN: number,
  stiffness: number,
  name: (i: number) => string,
  units: UnitPreference,
): string[] {
  const xs = four.map((p) => p.x);
  const ys = four.map((p) => p.y);
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)];
  const [length, width] = [Math.max(...xs) - x0, Math.max(...ys) - y0];
  const order = around(four);
  const rectangle = four.every(
    (p) => Math.min(p.x - x0, x0 + length - p.x) < 0.02 * length && Math.min(p.y - y0, y0 + width - p.y) < 0.02 * width,
  );
  if (!rectangle || length <= 0 || width <= 0) return [];
  const z = order.map((i) => heights[i]) as [number, number, number, number];
  const loads = fourFootLoads(
    length,
    width,
    weightN,
    { x: frame.centreOfMass.x - x0, y: frame.centreOfMass.y - y0 },
    stiffness,
    z[0] - z[1] + z[2] - z[3],
  );
  return loads.allTouch
    ? [
        `Welded, it touches all four: ${order.map((i, k) => `${name(i)} carries ${physical("mass", loads.loadsN[k] / GRAVITY_N_PER_KG, units, 0)}`).join(", ")}.`,
      ]
    : [];
}
