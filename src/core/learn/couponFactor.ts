import { logSd, USUAL_SCATTER } from "./teaching";

/** A plain coupon: two plates with a seam between marks, or one bead along a piece of tube. */
export type CouponKind = "butt" | "along";

/** What a coupon's reading comes to by itself. */
export type CouponResult =
  | { status: "no shrink" }
  | {
      status: "ok";
      /** Factor that the reading alone gives. */
      measured: number;
      /** With what was believed of it before, and where nine in ten such factors lie. */
      factor: number;
      low: number;
      high: number;
      sdLog: number;
      /** How far it is from what was believed, in standard deviations of both. */
      surprise: number;
    };

const HALF_BAND = 1.6448536269514722;

/**
 * Factor by one coupon: normal in the logarithm, what was believed and what was read weighed by their variances.
 * @param changeMm shrinkage between the marks, or the bow that the bead made; both positive the way that heat moves them.
 * @param atOneMm the same at a factor of 1. @param uMm standard uncertainty of the change.
 * @param believed factor and coefficient of variation from the tables, or learned so far.
 */
export function couponFactor(
  changeMm: number,
  atOneMm: number,
  uMm: number,
  believed: { value: number; cv: number },
  beadCv: number = USUAL_SCATTER.beadCv,
): CouponResult {
  if (!(changeMm > 0)) return { status: "no shrink" };
  const measured = changeMm / atOneMm;
  const priorVar = logSd(believed.cv) ** 2;
  const ownVar = logSd(uMm / changeMm) ** 2 + logSd(beadCv) ** 2;
  const cov = 1 / (1 / priorVar + 1 / ownVar);
  const log = cov * (Math.log(believed.value) / priorVar + Math.log(measured) / ownVar);
  const sdLog = Math.sqrt(cov);
  return {
    status: "ok",
    measured,
    factor: Math.exp(log),
    low: Math.exp(log - HALF_BAND * sdLog),
    high: Math.exp(log + HALF_BAND * sdLog),
    sdLog,
    surprise: (Math.log(measured) - Math.log(believed.value)) / Math.sqrt(priorVar + ownVar),
  };
}

/**
 * Shrinkage between marks across a butt seam at a factor of 1, mm: alpha Q / (c t).
 * Source: one-dimensional heat balance (from memory).
 */
export const buttAtOneMm = (
  heatJPerMm: number,
  wallMm: number,
  { alphaPerK, heatJPerMm3K }: { alphaPerK: number; heatJPerMm3K: number },
): number => (alphaPerK * heatJPerMm) / (heatJPerMm3K * wallMm);

/**
 * Bow of a piece by a bead along it at a factor of 1, mm: the kink s Q l y / I, half of a bead's length lost at its ends.
 * Source: Okerblom's contraction force as an eccentric pull (from memory).
 */
export const alongAtOneMm = (
  heatJPerMm: number,
  { beadMm, pieceMm, offsetMm, iMm4 }: { beadMm: number; pieceMm: number; offsetMm: number; iMm4: number },
  { alphaPerK, heatJPerMm3K }: { alphaPerK: number; heatJPerMm3K: number },
): number => ((((alphaPerK / heatJPerMm3K) * heatJPerMm * beadMm * offsetMm) / iMm4) * (pieceMm - beadMm / 2)) / 4;
