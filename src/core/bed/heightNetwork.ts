import {
  chiSquareTail,
  conditionRatio,
  inverseSpd,
  multiply,
  multiplyColumn,
  type Rows,
  transpose,
  type Vec2,
  zeros,
} from "../numeric";
import { type Flatness, flatness } from "./flatness";

/** One reading between two points of a bed: a height difference, or a level's slope over a length. */
export interface HeightReading {
  from: string;
  to: string;
  /** Height of `to` above `from`, mm. */
  dzMm: number;
  /** Standard uncertainty of that, mm. */
  uMm: number;
  /** Slope readings: length over which the level's zero error counts, mm; negative when its arrow points back. */
  zeroOverMm?: number;
}

/** A slope as a height reading. @param slopeMmPerM, @param uMmPerM of the level. @param direction +1 when its arrow points from -> to. */
export const slopeReading = (
  from: string,
  to: string,
  slopeMmPerM: number,
  lengthMm: number,
  uMmPerM: number,
  direction: 1 | -1 = 1,
): HeightReading => ({
  from,
  to,
  dzMm: (slopeMmPerM * lengthMm) / 1000,
  uMm: (uMmPerM * lengthMm) / 1000,
  zeroOverMm: direction * lengthMm,
});

/** One reading after adjustment. */
export interface AdjustedHeight {
  /** Adjusted less read, mm. */
  residualMm: number;
  /** Residual against its own scatter; over 3.29 it looks wrong. Nought when nothing checks it. */
  w: number;
  redundancy: number;
  /** Smallest slip that would show, mm; infinite when nothing checks the reading. */
  detectableMm: number;
}

export type HeightNetwork =
  | { status: "disconnected"; unreached: string[] }
  /** The level's zero error cannot be told from the readings: no loop, or its arrows cancel. */
  | { status: "undetermined" }
  | {
      status: "ok" | "ok_no_check";
      /** Height of each point above the first, mm. */
      zMm: Record<string, number>;
      cov: Rows;
      freedom: number;
      chi2: number;
      pValue: number;
      readings: AdjustedHeight[];
      /** Zero error of the level, mm/m, when it was asked for. */
      zeroErrorMmPerM: number | null;
    };

/** Detectable with 80 % power at one false alarm in a thousand. */
const DETECT = 4.13;

/**
 * Least-squares heights of a bed from readings in any order and mixture, with a check on each.
 * Source: weighted normal equations; Baarda's tests (from memory).
 * @param points names; the first is height nought. @param readings each between two of them.
 * @param withZero whether the level's zero error is unknown too.
 */
export function heightNetwork(
  points: readonly string[],
  readings: readonly HeightReading[],
  withZero = false,
): HeightNetwork {
  const reached = new Set(points.slice(0, 1));
  for (let grew = true; grew; ) {
    grew = false;
    for (const r of readings)
      if (reached.has(r.from) !== reached.has(r.to)) {
        reached.add(r.from).add(r.to);
        grew = true;
      }
  }
  const unreached = points.filter((p) => !reached.has(p));
  if (unreached.length > 0) return { status: "disconnected", unreached };

  const unknowns = points.length - 1 + (withZero ? 1 : 0);
  const column = (name: string): number => points.indexOf(name) - 1;
  const a = readings.map((r) => {
    const row = new Array<number>(unknowns).fill(0);
    if (column(r.to) >= 0) row[column(r.to)] = 1;
    if (column(r.from) >= 0) row[column(r.from)] = -1;
    if (withZero) row[unknowns - 1] = (r.zeroOverMm ?? 0) / 1000;
    return row;
  });
  const weighted = a.map((row, i) => row.map((v) => v / (readings[i]?.uMm ?? 1)));
  if (readings.length < unknowns || conditionRatio(weighted) < 1e-9) return { status: "undetermined" };
  const normal = multiply(transpose(weighted), weighted);
  const q = inverseSpd(normal);
  if (!q) return { status: "undetermined" };
  const right = multiplyColumn(
    transpose(weighted),
    readings.map((r) => r.dzMm / r.uMm),
  );
  const x = multiplyColumn(q, right);
  const fitted = multiplyColumn(a, x);
  const spread = multiply(multiply(a, q), transpose(a));
  const adjusted = readings.map((r, i): AdjustedHeight => {
    const residualMm = (fitted[i] as number) - r.dzMm;
    const redundancy = Math.max(0, 1 - (spread[i]?.[i] ?? 0) / r.uMm ** 2);
    const checked = redundancy > 1e-7;
    return {
      residualMm,
      w: checked ? residualMm / (r.uMm * Math.sqrt(redundancy)) : 0,
      redundancy,
      detectableMm: checked ? (DETECT * r.uMm) / Math.sqrt(redundancy) : Number.POSITIVE_INFINITY,
    };
  });
  const chi2 = adjusted.reduce((s, v, i) => s + (v.residualMm / (readings[i]?.uMm ?? 1)) ** 2, 0);
  const freedom = readings.length - unknowns;
  const n = points.length;
  const cov = zeros(n, n).map((row, i) => row.map((_, j) => (i > 0 && j > 0 ? (q[i - 1]?.[j - 1] ?? 0) : 0)));
  return {
    status: freedom > 0 ? "ok" : "ok_no_check",
    zMm: Object.fromEntries(points.map((p, i) => [p, i === 0 ? 0 : (x[i - 1] as number)])),
    cov,
    freedom,
    chi2,
    pValue: freedom > 0 ? chiSquareTail(chi2, freedom) : 1,
    readings: adjusted,
    zeroErrorMmPerM: withZero ? (x[unknowns - 1] as number) : null,
  };
}

/** Flatness of an adjusted bed. @param places of the points, mm, in the order of the network's. */
export const flatnessOfNetwork = (network: Extract<HeightNetwork, { cov: Rows }>, places: readonly Vec2[]): Flatness =>
  flatness([...places], Object.values(network.zMm), network.cov);
