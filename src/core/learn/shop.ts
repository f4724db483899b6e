import { MATERIALS } from "../frame";
import { FACTORS, heatJPerMm } from "../weld";
import { cellOf, type ShopCell } from "./cells";
import { alongAtOneMm, buttAtOneMm } from "./couponFactor";
import { type Belief, learn } from "./learn";
import { BESIDES, FACTOR_PAIRS, LEARNABLE } from "./learnable";
import { scatterOf, tableSds, taughtBy } from "./learnedFactors";
import type { CouponLesson, FrameLesson, Lesson, ShopLearned } from "./lessonSchema";
import { forget, inCell, pooledBelief } from "./pooled";
import { type LearnedScatter, learnScatter } from "./scatter";
import type { Scatter, Teaching } from "./teaching";

/** A lesson with what it did. */
export interface Told {
  lesson: CouponLesson | FrameLesson;
  cell: ShopCell;
  /** Why it does not count; null when it does. */
  leftOut: string | null;
  /** Chance of readings so far from what was believed before them; how much it counted; whether it contradicted. */
  p: number | null;
  weight: number | null;
  contradicts: boolean;
}

/** All that a shop has learned, and from what. */
export interface ShopState {
  learned: ShopLearned;
  lessons: Told[];
  /** Of beads and days, where enough frames told. */
  scatter: LearnedScatter | null;
}

/** Frames from which a shop's own scatter is told. Source: own judgement: fewer leave it where it was. */
const SCATTER_FRAMES = 3;
const DAY_MS = 86_400_000;

/** A piece of tube or two plates as something that teaches. */
export function couponTeaching(coupon: CouponLesson): { factor: "transverse" | "longitudinal" } & Teaching {
  const material = MATERIALS[coupon.material];
  const heat = heatJPerMm(coupon);
  const { coupon: of } = coupon;
  const factor = of.of === "butt" ? "transverse" : "longitudinal";
  const atOne = couponAtOneMm(coupon, heat, material);
  const change = of.of === "butt" ? coupon.beforeMm - coupon.afterMm : coupon.afterMm - coupon.beforeMm;
  return {
    factor,
    sources: [{ bead: coupon.id, factors: [factor], effect: [atOne * FACTORS[factor].value] }],
    change: [change],
    noise: { u: [coupon.uMm] },
  };
}

/** What a coupon would measure at a factor of 1, mm. */
export function couponAtOneMm(
  { coupon: of, wallMm }: Pick<CouponLesson, "coupon" | "wallMm">,
  heat: number,
  material: { alphaPerK: number; heatJPerMm3K: number },
): number {
  if (of.of === "butt") return buttAtOneMm(heat, wallMm, material);
  const { widthMm: w, depthMm: h, beadMm, pieceMm } = of;
  const inside = { w: Math.max(0, w - 2 * wallMm), h: Math.max(0, h - 2 * wallMm) };
  const iMm4 = (w * h ** 3 - inside.w * inside.h ** 3) / 12;
  return alongAtOneMm(heat, { beadMm: Math.min(beadMm, pieceMm), pieceMm, offsetMm: (h - wallMm) / 2, iMm4 }, material);
}

export const cellOfLesson = (lesson: CouponLesson | FrameLesson): ShopCell =>
  lesson.kind === "frame" ? lesson.cell : cellOf(lesson.process, lesson.wallMm, lesson.material);

/** What a lesson teaches, its factors named by their cell. */
function teachingOf(lesson: CouponLesson | FrameLesson): Teaching {
  const cell = cellOfLesson(lesson);
  if (lesson.kind === "coupon") {
    const { sources, change, noise } = couponTeaching(lesson);
    return { sources: sources.map((s) => ({ ...s, factors: s.factors.map((f) => inCell(cell, f)) })), change, noise };
  }
  return taughtBy(lesson.teaching, (f) => inCell(cell, f));
}

/** What stands of a shop's lessons: those before it began anew are gone, and those that were left out say why. */
export function standingLessons(
  lessons: readonly Lesson[],
): { lesson: CouponLesson | FrameLesson; leftOut: string | null }[] {
  const inTime = [...lessons].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : 1));
  const anew = inTime.findLast((l) => l.kind === "begun anew");
  const why = new Map<string, string | null>();
  for (const l of inTime) {
    if (l.kind === "left out") why.set(l.lesson, l.why);
    if (l.kind === "taken back") why.set(l.lesson, null);
  }
  const last = new Map<string, string>();
  for (const l of inTime) if (l.kind === "frame") last.set(l.jobId, l.id);
  return inTime.flatMap((lesson) =>
    lesson.kind !== "coupon" && lesson.kind !== "frame"
      ? []
      : [
          {
            lesson,
            leftOut:
              anew && lesson.at <= anew.at
                ? `The shop began anew since: ${anew.kind === "begun anew" ? anew.why : ""}`
                : lesson.kind === "frame" && last.get(lesson.jobId) !== lesson.id
                  ? "Its job taught again since."
                  : (why.get(lesson.id) ?? null),
          },
        ],
  );
}

/** Cells that lessons are of, each once. */
function cellsOf(lessons: readonly (CouponLesson | FrameLesson)[]): ShopCell[] {
  const cells = new Map(lessons.map((l) => [inCell(cellOfLesson(l), ""), cellOfLesson(l)]));
  return [...cells.values()];
}

/** What is believed of all cells before anything was learned, with what differs from frame to frame. */
function before(cells: readonly ShopCell[]): Belief {
  const sds = tableSds();
  const own = pooledBelief(cells, Object.fromEntries(LEARNABLE.map((f) => [f, sds[f]])));
  const n = own.names.length;
  const names = [...own.names, ...BESIDES];
  return {
    names,
    mean: names.map(() => 0),
    cov: names.map((_, i) =>
      names.map((__, j) => (i < n && j < n ? own.cov[i][j] : i === j ? sds[BESIDES[i - n] ?? "gap"] ** 2 : 0)),
    ),
  };
}

/**
 * What a shop has learned by a moment: lesson after lesson in time, what is older counting less, cells pooled. Each job is weighed by how
 * well it fits, and what contradicts narrows nothing.
 * @param now moment that it is asked for, ISO 8601; lessons after it are left out.
 */
export function learnShop(lessons: readonly Lesson[], now: string): ShopState {
  const standing = standingLessons(lessons.filter((l) => l.at <= now));
  const counted = standing.flatMap((s) => (s.leftOut === null ? [s.lesson] : []));
  const cells = cellsOf(counted);
  const prior = before(cells);
  const teachings = new Map(counted.map((l) => [l.id, teachingOf(l)]));
  const frames = counted.filter((l) => l.kind === "frame");
  const usual = scatterOf();
  const found =
    frames.length >= SCATTER_FRAMES
      ? learnScatter(
          prior,
          frames.flatMap((l) => teachings.get(l.id) ?? []),
          usual,
        )
      : null;
  const scatter: Scatter = found ? { ...usual, beadCv: found.beadCv, dayCv: found.dayCv } : usual;
  let belief: Belief = prior;
  let at: string | null = null;
  const did = new Map<string, { p: number; weight: number; contradicts: boolean }>();
  for (const lesson of counted) {
    belief = aged(belief, prior, at, lesson.at);
    at = lesson.at;
    const taught = learn(belief, [teachings.get(lesson.id) as Teaching], scatter);
    did.set(lesson.id, { p: taught.p, weight: taught.weights[0] ?? 1, contradicts: taught.contradicts });
    belief = taught;
  }
  belief = aged(belief, prior, at, now);
  return {
    learned: {
      asOf: now,
      frames: frames.length,
      coupons: counted.length - frames.length,
      cells,
      factors: Object.fromEntries(
        LEARNABLE.map((f) => {
          const places = cells.map((c) => belief.names.indexOf(inCell(c, f)));
          return [
            f,
            { mean: places.map((i) => belief.mean[i]), cov: places.map((i) => places.map((j) => belief.cov[i][j])) },
          ];
        }),
      ) as ShopLearned["factors"],
      together: cells.map((c) => {
        const places = LEARNABLE.map((f) => belief.names.indexOf(inCell(c, f)));
        return FACTOR_PAIRS.map(([i, j]) => belief.cov[places[i]][places[j]]);
      }),
      scatter: found && { beadCv: found.beadCv, dayCv: found.dayCv },
    },
    lessons: standing.map(({ lesson, leftOut }) => ({
      lesson,
      cell: cellOfLesson(lesson),
      leftOut,
      p: did.get(lesson.id)?.p ?? null,
      weight: did.get(lesson.id)?.weight ?? null,
      contradicts: did.get(lesson.id)?.contradicts ?? false,
    })),
    scatter: found,
  };
}

/** Drifts back for the days that went by. */
function aged(belief: Belief, prior: Belief, from: string | null, to: string): Belief {
  if (from === null) return belief;
  // biome-ignore lint/style/noRestrictedGlobals: reads times that are written down, asks no clock
  return forget(belief, prior, (Date.parse(to) - Date.parse(from)) / DAY_MS);
}
