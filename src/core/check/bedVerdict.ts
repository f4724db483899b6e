import {
  COMMON_LEAVES_MM,
  COMMON_THOU_MM,
  type FootTurn,
  footTurn,
  type OnThree,
  type RestPlace,
  risersOver,
  type ShimMode,
  type ShimStack,
  shimStack,
  shims,
} from "../bed";
import { type Flatness, fitPlane, flatness } from "../geometry";
import type { Rows, Vec2 } from "../numeric";
import type { Measured } from "../square";
import { formatSmall, physical, type UnitPreference } from "../units";
import { type Conformity, conformity } from "./conformity";

/** What to do at one rest. */
export interface RestAdvice {
  id: string;
  /** Height above the lowest, mm. Null when it was not read. */
  heightMm: number | null;
  /** Raise by this, mm. */
  raiseMm: number | null;
  stack: ShimStack | null;
  foot: FootTurn | null;
  /** Nothing can be turned here: it stands on no foot. */
  fixed: boolean;
}

type BedWord =
  | "good as it is"
  | "good on three rests"
  | "good with shims"
  | "good once the feet are turned"
  | "too close to call"
  | "not good"
  | "not measured";

export interface BedVerdict {
  word: BedWord;
  why: string;
  missing: string[];
  flatness: Flatness;
  /** What the bed may use of the frame's limit, mm; null without a limit. */
  allowedMm: number | null;
  flat: Conformity | null;
  /** Steepest slope of the bed, mm/m. */
  slopeMmPerM: Measured | null;
  level: Conformity | null;
  rests: RestAdvice[];
  /** Flatness that is left after whole leaves, mm. */
  afterMm: number | null;
}

/** The bed may use half of the frame's flatness; the weld needs the rest (common practice, no source). */
export const BED_SHARE = 0.5;

/** Heights of a bed as they were read. */
export interface BedHeights {
  /** Points in the order of `cov`. */
  points: readonly string[];
  heightsMm: Readonly<Record<string, number>>;
  /** Covariance, mm2. */
  cov: Rows;
  /** Whether they say how the bed slopes. */
  levelKnown: boolean;
}

/** How a bed is brought right. */
interface Adjusting {
  by: "shims" | "feet";
  mode: ShimMode;
  pitchMm: number;
  thread: "right" | "left";
  /** Rests that stand on feet; all of them when left out. */
  feet?: readonly string[];
  /** Leaves at hand, mm; a common set when left out. */
  leavesMm?: readonly number[];
  /** Whether one would rather lay the frame on three rests than shim all. */
  onThree?: boolean;
}

/** Steepest slope with its uncertainty: that of the fitted slope in its own direction. */
function steepest(xy: Vec2[], f: Flatness, cov: Rows): Measured | null {
  if (!f.slopeMmPerM) return null;
  const value = Math.hypot(f.slopeMmPerM.x, f.slopeMmPerM.y);
  const n = value > 0 ? { x: f.slopeMmPerM.x / value, y: f.slopeMmPerM.y / value } : { x: 1, y: 0 };
  // Slope along n of the least-squares plane is linear in z: sum the squares of its weights.
  const weights = xy.map((_, i) => {
    const plane = fitPlane(
      xy,
      xy.map((__, j) => (i === j ? 1 : 0)),
    );
    return plane ? 1000 * (plane.bx * n.x + plane.by * n.y) : 0;
  });
  const variance = weights.reduce(
    (s, a, i) => s + weights.reduce((t, b, j) => t + a * b * ((cov[i] as number[])[j] as number), 0),
    0,
  );
  return { value, u: Math.sqrt(Math.max(0, variance)) };
}

/** Room below the work besides what it sags, mm: a bead and its spatter (common practice, no source). */
const CLEAR_MM = 2;

/** Half of the last digit that is told, mm: less is nothing. */
const SEEN_MM = 0.05;

/** What goes under three rests where the bed stands too high between them, in words; empty where it does not. */
function riserWords(
  rests: readonly RestPlace[],
  { heightsMm }: BedHeights,
  three: OnThree,
  level: boolean,
  units: UnitPreference,
): string {
  const read = rests.flatMap((r) => {
    const z = heightsMm[r.id];
    return z === undefined ? [] : [{ id: r.id, x: r.x, y: r.y, z }];
  });
  const under = three.rests.flatMap((id) => read.find((r) => r.id === id) ?? []);
  const spots = read.filter((r) => !three.rests.includes(r.id));
  if (under.length < 3) return "";
  if (spots.length === 0)
    return " Between them nothing was read: see that the bed does not touch the frame there, or lay it on risers.";
  const risers = risersOver(spots, under, three.sagMm + CLEAR_MM, level);
  const most = Math.max(0, ...(risers?.mm ?? []));
  if (!risers || most === 0 || risers.proudMm + three.sagMm + CLEAR_MM <= 0) return "";
  const mm = (x: number): string => formatSmall(x, units, { decimals: 1 });
  const raised = under.flatMap((r, i) => {
    const by = risers.mm[i] ?? 0;
    return by > SEEN_MM ? [{ id: r.id, by }] : [];
  });
  const alike = raised.length > 1 && raised.every(({ by }) => Math.abs(by - most) < SEEN_MM);
  const where = alike
    ? `${mm(most)} under each of ${raised.map((r) => r.id).join(", ")}`
    : raised.map(({ id, by }) => `${mm(by)} under ${id}`).join(", ");
  const spot = spots[risers.highest]?.id;
  return ` ${spot} stands ${mm(Math.abs(risers.proudMm))} ${risers.proudMm >= 0 ? "above" : "below"} their plane: risers of ${where} or more clear it${level ? " and lie level" : ""}, with room for a bead.`;
}

/**
 * Is the bed good enough for these limits, and what to do at each rest.
 * @param rests places. @param heights of the rests that were read. @param flatLimitMm flatness limit of the frame.
 * @param levelMmPerM limit on slope, null when level does not matter. @param adjust shims, or feet with their thread.
 * @param units for the reasons. @param three how the frame would lie on three of them; null when it cannot.
 */
export function bedVerdict(
  rests: RestPlace[],
  heights: BedHeights,
  flatLimitMm: number | null,
  levelMmPerM: number | null,
  adjust: Adjusting,
  units: UnitPreference = "mm",
  three: OnThree | null = null,
): BedVerdict {
  const clear = three ? riserWords(rests, heights, three, levelMmPerM !== null, units) : "";
  const { heightsMm } = heights;
  const slope = (mmPerM: number): string => physical("slope", mmPerM, units);
  const say = (mm: number): string => formatSmall(mm, units, { decimals: 2 });
  const plain = (mm: number): string => formatSmall(mm, units, { decimals: 2, bare: true });
  const read = rests.filter((r) => heightsMm[r.id] !== undefined);
  const missing = rests.filter((r) => heightsMm[r.id] === undefined).map((r) => r.id);
  const lowest = Math.min(...read.map((r) => heightsMm[r.id] ?? 0));
  const z = read.map((r) => (heightsMm[r.id] ?? 0) - lowest);
  const at = read.map((r) => heights.points.indexOf(r.id));
  const cov = at.map((i) => at.map((j) => (heights.cov[i] as number[])[j] as number));
  const found = flatness(read, z, cov);
  const moves = shims(read, z, adjust.mode);
  const canMove = (id: string): boolean => adjust.by === "shims" || !adjust.feet || adjust.feet.includes(id);
  const advice = rests.map((r): RestAdvice => {
    const i = read.indexOf(r);
    const fixed = !canMove(r.id);
    const raiseMm = moves && i >= 0 && !fixed ? (moves.shimsMm[i] ?? 0) : null;
    return {
      id: r.id,
      heightMm: i >= 0 ? (z[i] ?? 0) : null,
      raiseMm,
      stack:
        raiseMm !== null && adjust.by === "shims"
          ? shimStack(raiseMm, adjust.leavesMm ?? (units === "mm" ? COMMON_LEAVES_MM : COMMON_THOU_MM))
          : null,
      foot: raiseMm !== null && adjust.by === "feet" ? footTurn(raiseMm, adjust.pitchMm, adjust.thread) : null,
      fixed,
    };
  });
  const allowedMm = flatLimitMm === null ? null : flatLimitMm * BED_SHARE;
  const slopeMmPerM = heights.levelKnown ? steepest(read, found, cov) : null;
  const base = { missing, flatness: found, allowedMm, slopeMmPerM, rests: advice };
  if (found.status === "three_points" && missing.length === 0 && three) {
    // Nothing rocks on three and no flat is asked of them: what counts is how it hangs between, and level where it is asked.
    const level =
      levelMmPerM !== null && slopeMmPerM
        ? conformity(slopeMmPerM.value, slopeMmPerM.u, null, levelMmPerM, true)
        : null;
    const sags = allowedMm !== null && three.sagMm > allowedMm;
    const slopes =
      level && slopeMmPerM ? ` It slopes ${slope(slopeMmPerM.value)} of ${slope(levelMmPerM ?? 0)} allowed.` : "";
    const word =
      sags || level?.verdict === "fail"
        ? "not good"
        : level?.verdict === "too close to call"
          ? level.verdict
          : "good on three rests";
    return {
      ...base,
      word,
      why: `Three rests need no flat bed and never rock. The frame sags ${say(three.sagMm)} between them${sags ? `, more than the ${say(allowedMm)} that may be used` : ""}; its weight lies ${say(three.marginMm)} inside.${slopes}${clear}`,
      flat: null,
      level,
      afterMm: null,
    };
  }
  if (found.status !== "ok" || found.zoneMm === null || found.uZoneMm === null) {
    const why =
      found.status === "too_few"
        ? "Read three rests or more."
        : found.status === "three_points"
          ? "Three rests always lie in one plane: they say how level the bed is, not how flat. Read a fourth."
          : "The rests that were read lie on one line: only straightness along it is known. Read one to the side.";
    return { ...base, word: "not measured", why, flat: null, level: null, afterMm: null };
  }
  const after = read.map(
    (_, i) =>
      (z[i] ?? 0) +
      (moves
        ? adjust.by === "shims"
          ? (advice.find((a) => a.id === read[i]?.id)?.stack?.totalMm ?? 0)
          : canMove(read[i]?.id ?? "")
            ? (moves.shimsMm[i] ?? 0)
            : 0
        : 0),
  );
  const left = flatness(read, after, cov);
  const afterMm = left.zoneMm;
  const level =
    levelMmPerM !== null && slopeMmPerM ? conformity(slopeMmPerM.value, slopeMmPerM.u, null, levelMmPerM, true) : null;
  const leftSlope = heights.levelKnown ? steepest(read, left, cov) : null;
  const levelAfter =
    levelMmPerM !== null && leftSlope ? conformity(leftSlope.value, leftSlope.u, null, levelMmPerM, true) : null;
  const flat = allowedMm === null ? null : conformity(found.zoneMm, found.uZoneMm, null, allowedMm, true);
  const flatAfter =
    allowedMm === null || afterMm === null
      ? null
      : conformity(afterMm, left.uZoneMm ?? found.uZoneMm, null, allowedMm, true);
  const levelUnknown = levelMmPerM !== null && !heights.levelKnown && missing.length === 0;
  const measured = `Out of flat ${plain(found.zoneMm)} ± ${say(2 * found.uZoneMm)}`;
  const slopeSaid =
    level && slopeMmPerM ? `, slope ${slope(slopeMmPerM.value)} of ${slope(levelMmPerM ?? 0)} allowed` : "";
  const done = { ...base, flat, level, afterMm };
  if (missing.length > 0)
    return {
      ...done,
      word: "not measured",
      why: `${measured} so far${slopeSaid}. Still to read: ${missing.join(", ")}.`,
    };
  if (allowedMm === null && level === null)
    return {
      ...done,
      word: "not measured",
      why: `${measured}. There is no flatness or level limit to hold it against.`,
    };
  if (levelUnknown)
    return {
      ...done,
      word: "not measured",
      why: `${measured}. How level it is these readings cannot say: gaps under an edge see flat alone. Add a level, a rod or heights.`,
    };
  const against =
    allowedMm === null ? "" : `; the bed may use ${say(allowedMm)}, half of the frame's ${say(flatLimitMm ?? 0)}`;
  const words = [flat?.verdict, level?.verdict].filter((w) => w !== undefined);
  const wordsAfter = [flatAfter?.verdict, levelAfter?.verdict].filter((w) => w !== undefined);
  const why = `${measured}${against}${slopeSaid}.`;
  if (words.every((w) => w === "pass")) return { ...done, word: "good as it is", why };
  // Three rests never rock and need no flat bed; what is left is how the frame hangs between them.
  const threeDo =
    three !== null && (allowedMm === null || three.sagMm <= allowedMm) && (level === null || level.verdict === "pass");
  const onThree = (): BedVerdict => ({
    ...done,
    word: "good on three rests",
    why: `${why} On ${three?.rests.join(", ")} alone the bed's flatness does not matter: the frame sags ${say(three?.sagMm ?? 0)} between them, its weight lies ${say(three?.marginMm ?? 0)} inside.${clear}`,
  });
  if (adjust.onThree && threeDo) return onThree();
  if ((flat?.acceptanceZoneEmpty ?? false) || (level?.acceptanceZoneEmpty ?? false))
    return {
      ...done,
      word: "too close to call",
      why: `${why} This instrument cannot prove a bed for these limits: use a finer one, ± ${say((2 * (allowedMm ?? 0)) / (read.length > 4 ? 5.4 : 3.6))} or so.`,
    };
  if (moves && moves.negative.length === 0 && wordsAfter.every((w) => w === "pass"))
    return {
      ...done,
      word: adjust.by === "shims" ? "good with shims" : "good once the feet are turned",
      why: `${why} ${adjust.by === "shims" ? "With the shims below" : "After the turns below"} about ${say(afterMm ?? 0)} is left.`,
    };
  if (threeDo) return onThree();
  if (words.includes("fail")) return { ...done, word: "not good", why };
  return { ...done, word: "too close to call", why: `${why} The difference is smaller than the readings can show.` };
}
