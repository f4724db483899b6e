import { straightness } from "./flatness";

/** A level read twice at one place, turned end for end between. Same unit in and out. */
export interface Reversal {
  zeroError: number;
  slope: number;
  u: number;
}

/**
 * Reversal test. Source: closed form.
 * @param signFrom `level`: each reading's sign is that of the level itself; `world`: signs were noted as the slope lies.
 * @param u standard uncertainty of one reading.
 */
export function levelReversal(first: number, second: number, u: number, signFrom: "level" | "world"): Reversal {
  const [sum, difference] = [(first + second) / 2, (first - second) / 2];
  return signFrom === "level"
    ? { zeroError: sum, slope: difference, u: u / Math.SQRT2 }
    : { zeroError: difference, slope: sum, u: u / Math.SQRT2 };
}

export const SLOPE_UNITS = ["mm/m", "deg", "%"] as const;
export type SlopeUnit = (typeof SLOPE_UNITS)[number];

/** Height gained over a step, mm. */
const rise = (slope: number, stepMm: number, unit: SlopeUnit): number =>
  unit === "mm/m"
    ? (slope * stepMm) / 1000
    : unit === "%"
      ? (slope * stepMm) / 100
      : stepMm * Math.tan((slope * Math.PI) / 180);

/** Heights along one line, stepped with a level. */
export interface SlopeChain {
  zMm: number[];
  /** Standard uncertainty of each height against the first. */
  uMm: number[];
  straightnessMm: number;
}

/**
 * A level stepped along a line, each step where the last one ended. The level's own zero error tilts the whole line and
 * drops out of its straightness. Source: sums; covariance min(i,j)(k u)^2 + i j (k u0)^2.
 * @param slopes readings. @param stepMm spacing of its feet. @param zero zero error and its uncertainty, same unit.
 */
export function slopeChain(
  slopes: readonly number[],
  stepMm: number,
  unit: SlopeUnit,
  uSlope: number,
  zero: { error: number; u: number },
): SlopeChain {
  const zMm = [0];
  for (const s of slopes) zMm.push((zMm.at(-1) as number) + rise(s - zero.error, stepMm, unit));
  const k = unit === "mm/m" ? stepMm / 1000 : unit === "%" ? stepMm / 100 : (stepMm * Math.PI) / 180;
  return {
    zMm,
    uMm: zMm.map((_, i) => Math.sqrt(i * (k * uSlope) ** 2 + (i * k * zero.u) ** 2)),
    straightnessMm: straightness(
      zMm.map((_, i) => i * stepMm),
      zMm,
    ),
  };
}
