import { MATERIALS } from "../frame";
import { chiSquareTail, cholesky, solveCholesky } from "../numeric";
import { FACTORS, heatJPerMm } from "../weld";
import { type Coverage, calibration, coverage, type Drift, drift, framesNeeded, TOO_FEW } from "./calibration";
import type { ShopCell } from "./cells";
import { type Hand, handsOf, type OwnTime, ownTimes } from "./hands";
import { information } from "./learn";
import { LEARNABLE, type Learnable } from "./learnable";
import { beliefIn, scatterOf } from "./learnedFactors";
import type { CouponLesson, FrameLesson, ShopLearned } from "./lessonSchema";
import type { LearnedScatter } from "./scatter";
import { couponAtOneMm, couponTeaching, type ShopState, type Told } from "./shop";
import { noiseOf, sumOf } from "./teaching";

/** One reading of a frame against what was predicted of it before it was welded. */
export interface ScoredReading {
  what: string;
  from: string;
  to: string;
  measured: number;
  u: number;
  mean: number;
  sd: number;
}

/** A lesson in a line, without what it was worked out from. */
export type LessonLine = Pick<Told, "cell" | "leftOut" | "p" | "weight" | "contradicts"> & {
  id: string;
  at: string;
  origin: string;
} & (
    | { kind: "coupon"; of: "butt" | "along"; factor: Learnable; changeMm: number; uMm: number; measured: number }
    | { kind: "frame"; jobId: string; name: string; readings: ScoredReading[]; doubts: string[] }
  );

/** What a shop has learned, for its page. */
export interface Book {
  learned: ShopLearned;
  scatter: LearnedScatter | null;
  lessons: LessonLine[];
  right: Rightness;
}

/** Readings of one sort, over all frames. */
interface Sort {
  sort: string;
  readings: number;
  /** Mean of the standardised differences: more than told is positive. */
  meanZ: number;
}

/** Whether what the tool says is so. */
export interface Rightness {
  frames: number;
  /** Of frames, one number each, since their readings share factors; null without any. */
  coverage: Coverage | null;
  drift: Drift;
  /** Even spread of what was read within what was told; null below ten frames. */
  bins: number[] | null;
  sorts: Sort[];
  /** Who welds shrinks how much, and how long things take here. */
  hands: Hand[];
  times: OwnTime[];
  /** Frames that it takes to find bands that hold three times in four only. */
  framesNeeded: number;
}

/** Share of frames that lie within their bands when these are true. */
const NOMINAL = 0.9;

const lineOf = ({ lesson, cell, leftOut, p, weight, contradicts }: Told): LessonLine => {
  const { id, at, origin } = lesson;
  const base = { id, at, origin, cell, leftOut, p, weight, contradicts };
  if (lesson.kind === "frame") {
    const noise = lesson.teaching.cov;
    return {
      ...base,
      kind: "frame",
      jobId: lesson.jobId,
      name: lesson.name,
      doubts: lesson.doubts,
      readings: lesson.readings.map((r, i) => ({
        ...r,
        measured: lesson.teaching.change[i],
        u: Math.sqrt(noise[i][i]),
        mean: lesson.told.mean[i],
        sd: Math.sqrt(lesson.told.cov[i][i]),
      })),
    };
  }
  const { factor, change, sources } = couponTeaching(lesson);
  const [atTable] = sources[0]?.effect ?? [];
  return {
    ...base,
    kind: "coupon",
    of: lesson.coupon.of,
    factor,
    changeMm: change[0],
    uMm: lesson.uMm,
    measured: (FACTORS[factor].value * change[0]) / (atTable ?? Number.NaN),
  };
};

/** How a frame stands to what was told of it: as a whole, and along more or less heat. */
function frameScore(lesson: FrameLesson): { p: number; z: number } {
  const l = cholesky(sumOf(lesson.told.cov, noiseOf({ cov: lesson.teaching.cov })));
  if (!l) return { p: 1, z: 0 };
  const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((s, v, i) => s + v * b[i], 0);
  const off = lesson.teaching.change.map((c, i) => c - lesson.told.mean[i]);
  const solved = solveCholesky(l, off);
  const heat = dot(lesson.told.mean, solveCholesky(l, lesson.told.mean));
  return {
    p: chiSquareTail(dot(off, solved), off.length),
    z: heat > 0 ? dot(lesson.told.mean, solved) / Math.sqrt(heat) : 0,
  };
}

const sortOf = (r: ScoredReading): string => {
  const by = r.to === "cold" ? "by beads" : "by tacks";
  const what = /twist/i.test(r.what) ? "twist" : /^(AC|BD)$/.test(r.what) ? "diagonals" : "sizes";
  return `${what}, ${by}`;
};

/** Predicted against measured over all frames that count: each by what was known before it was welded. */
function rightness(state: ShopState): Rightness {
  const frames = state.lessons.flatMap((t) => (t.lesson.kind === "frame" && t.leftOut === null ? [t] : []));
  const scores = frames.map((t) => frameScore(t.lesson as FrameLesson));
  const inside = scores.filter((s) => s.p >= 1 - NOMINAL).length;
  const lines = frames.map(lineOf);
  const all = lines.flatMap((l) => (l.kind === "frame" ? l.readings : []));
  const sorts = new Map<string, number[]>();
  for (const r of all) {
    const sign = Math.sign(r.mean) || 1;
    const z = (sign * (r.measured - r.mean)) / Math.hypot(r.sd, r.u);
    sorts.set(sortOf(r), [...(sorts.get(sortOf(r)) ?? []), z]);
  }
  return {
    frames: frames.length,
    coverage: frames.length > 0 ? coverage(inside, frames.length) : null,
    drift: drift(scores.map((s) => s.z)),
    bins: frames.length >= TOO_FEW ? calibration(all).bins : null,
    sorts: [...sorts].map(([sort, z]) => ({
      sort,
      readings: z.length,
      meanZ: z.reduce((s, v) => s + v, 0) / z.length,
    })),
    hands: handsOf(frames.map((t) => t.lesson as FrameLesson)),
    times: ownTimes(frames.map((t) => t.lesson as FrameLesson)),
    framesNeeded: framesNeeded(NOMINAL, 0.75).frames,
  };
}

/** The page of a shop's lessons. */
export const bookOf = (state: ShopState): Book => ({
  learned: state.learned,
  scatter: state.scatter,
  lessons: state.lessons.map(lineOf).reverse(),
  right: rightness(state),
});

/** A factor in one cell: what the tables say, and what the shop knows, with nine in ten. */
export interface FactorLine {
  factor: Learnable;
  table: { value: number; low: number; high: number };
  now: { value: number; low: number; high: number };
  /** How wide it is now, as a share of the table's. */
  narrowedTo: number;
}

const HALF_BAND = 1.6448536269514722;

/** Factors of a cell by the tables and by what was learned. */
export function factorLines(learned: ShopLearned, cell: ShopCell): FactorLine[] {
  const now = beliefIn(learned, cell);
  const table = beliefIn(undefined, cell);
  return LEARNABLE.map((factor) => {
    const i = now.names.indexOf(factor);
    const band = (mean: number, sd: number) => ({
      value: FACTORS[factor].value * Math.exp(mean),
      low: FACTORS[factor].value * Math.exp(mean - HALF_BAND * sd),
      high: FACTORS[factor].value * Math.exp(mean + HALF_BAND * sd),
    });
    const [sd, was] = [Math.sqrt(now.cov[i][i]), Math.sqrt(table.cov[i][i])];
    return { factor, table: band(0, was), now: band(now.mean[i], sd), narrowedTo: sd / was };
  });
}

/** What one more coupon would narrow, before it is made: its factor's width as a share of what it is now. */
export function couponPower(
  learned: ShopLearned,
  cell: ShopCell,
  coupon: Pick<CouponLesson, "coupon" | "material" | "wallMm" | "uMm" | "process" | "volts" | "amps" | "travelMmPerS">,
): { factor: Learnable; narrowedTo: number; expectedMm: number } {
  const heat = heatJPerMm(coupon);
  const material = MATERIALS[coupon.material];
  const factor = coupon.coupon.of === "butt" ? "transverse" : "longitudinal";
  const atOne = couponAtOneMm(coupon, heat, material);
  const belief = beliefIn(learned, cell);
  const effect = [atOne * FACTORS[factor].value];
  const told = information(
    belief,
    { sources: [{ bead: "coupon", factors: [factor], effect }], noise: { u: [coupon.uMm] } },
    scatterOf(),
  );
  const i = belief.names.indexOf(factor);
  return {
    factor,
    narrowedTo: told.narrowedTo[factor] ?? 1,
    expectedMm: effect[0] * Math.exp(belief.mean[i]),
  };
}
