import {
  COMMON_LEAVES_MM,
  type Flatness,
  type FootTurn,
  fitPlane,
  flatness,
  footTurn,
  type ShimMode,
  type ShimStack,
  shimStack,
  shims,
} from "../bed";
import type { Vec2 } from "../numeric";
import type { Measured } from "../square";
import { fixed, formatSmall, type UnitPreference } from "../units";
import { type Conformity, conformity } from "./conformity";

/** A rest with its place, mm. */
export interface RestPlace extends Vec2 {
  id: string;
}

/** What to do at one rest. */
export interface RestAdvice {
  id: string;
  /** Height above the lowest, mm. Null when it was not read. */
  heightMm: number | null;
  /** Raise by this, mm. */
  raiseMm: number | null;
  stack: ShimStack | null;
  foot: FootTurn | null;
}

export type BedWord =
  | "good as it is"
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

/** Steepest slope with its uncertainty: that of the fitted slope in its own direction. */
function steepest(xy: Vec2[], f: Flatness, uMm: number): Measured | null {
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
  return { value, u: uMm * Math.hypot(...weights) };
}

/**
 * Is the bed good enough for these limits, and what to do at each rest.
 * @param rests places. @param heightsMm height of each rest that was read. @param uMm standard uncertainty of a height.
 * @param flatLimitMm flatness limit of the frame. @param levelMmPerM limit on slope, null when level does not matter.
 * @param adjust shims, or feet with their thread. @param units for the reasons.
 */
export function bedVerdict(
  rests: RestPlace[],
  heightsMm: Record<string, number>,
  uMm: number,
  flatLimitMm: number | null,
  levelMmPerM: number | null,
  adjust: { by: "shims" | "feet"; mode: ShimMode; pitchMm: number; thread: "right" | "left" },
  units: UnitPreference = "mm",
): BedVerdict {
  const say = (mm: number): string => formatSmall(mm, units, { decimals: 2 });
  const plain = (mm: number): string => formatSmall(mm, units, { decimals: 2, bare: true });
  const read = rests.filter((r) => heightsMm[r.id] !== undefined);
  const missing = rests.filter((r) => heightsMm[r.id] === undefined).map((r) => r.id);
  const lowest = Math.min(...read.map((r) => heightsMm[r.id] ?? 0));
  const z = read.map((r) => (heightsMm[r.id] ?? 0) - lowest);
  const found = flatness(read, z, uMm);
  const moves = shims(read, z, adjust.mode);
  const advice = rests.map((r): RestAdvice => {
    const i = read.indexOf(r);
    const raiseMm = moves && i >= 0 ? (moves.shimsMm[i] ?? 0) : null;
    return {
      id: r.id,
      heightMm: i >= 0 ? (z[i] ?? 0) : null,
      raiseMm,
      stack: raiseMm !== null && adjust.by === "shims" ? shimStack(raiseMm, COMMON_LEAVES_MM) : null,
      foot: raiseMm !== null && adjust.by === "feet" ? footTurn(raiseMm, adjust.pitchMm, adjust.thread) : null,
    };
  });
  const allowedMm = flatLimitMm === null ? null : flatLimitMm * BED_SHARE;
  const slopeMmPerM = steepest(read, found, uMm);
  const base = { missing, flatness: found, allowedMm, slopeMmPerM, rests: advice };
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
          : (moves.shimsMm[i] ?? 0)
        : 0),
  );
  const left = flatness(read, after, uMm);
  const afterMm = left.zoneMm;
  const level =
    levelMmPerM !== null && slopeMmPerM ? conformity(slopeMmPerM.value, slopeMmPerM.u, null, levelMmPerM, true) : null;
  const leftSlope = steepest(read, left, uMm);
  const levelAfter =
    levelMmPerM !== null && leftSlope ? conformity(leftSlope.value, leftSlope.u, null, levelMmPerM, true) : null;
  const flat = allowedMm === null ? null : conformity(found.zoneMm, found.uZoneMm, null, allowedMm, true);
  const flatAfter =
    allowedMm === null || afterMm === null ? null : conformity(afterMm, left.uZoneMm ?? uMm, null, allowedMm, true);
  const measured = `Out of flat ${plain(found.zoneMm)} ± ${say(2 * found.uZoneMm)}`;
  const slopeSaid = level && slopeMmPerM ? `, slope ${fixed(slopeMmPerM.value, 2)} mm/m of ${levelMmPerM} allowed` : "";
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
  const against =
    allowedMm === null ? "" : `; the bed may use ${say(allowedMm)}, half of the frame's ${say(flatLimitMm ?? 0)}`;
  const words = [flat?.verdict, level?.verdict].filter((w) => w !== undefined);
  const wordsAfter = [flatAfter?.verdict, levelAfter?.verdict].filter((w) => w !== undefined);
  const why = `${measured}${against}${slopeSaid}.`;
  if (words.every((w) => w === "pass")) return { ...done, word: "good as it is", why };
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
  if (words.includes("fail")) return { ...done, word: "not good", why };
  return { ...done, word: "too close to call", why: `${why} The difference is smaller than the readings can show.` };
}
