import { type NextPreset, nextPreset } from "../learn";

/** A piece that was bent over a shim and welded: what it kept, the way it was bent above nought, mm. */
export interface ShimTrial {
  shimMm: number;
  leftMm: number;
}

/** From one piece to the next, what a shim leaves differs by, and what is read of it, mm. Source: own judgement. */
const SCATTER_MM = 1;
const READ_MM = 0.3;
/** How well the free bow and the kept share are known before any trial, as coefficients of variation. Source: own judgement. */
const FREE_CV = 0.3;
const KEEPS_CV = 0.25;
/** From so many trials on a line through all of them is better than one through the last two, which chases the scatter of single pieces. */
export const SERIES_FROM = 3;

/** The next shim by a whole series of trials. @param freeMm bow that the weld makes alone. @param keeps share of the bend that is kept. */
export const nextInSeries = (freeMm: number, keeps: number, trials: readonly ShimTrial[]): NextPreset =>
  nextPreset(
    0,
    { freeMm, freeCv: FREE_CV, keeps, keepsSd: KEEPS_CV * keeps, scatterMm: SCATTER_MM },
    // The other way round: what the weld pulls is positive there.
    trials.map((t) => ({ presetMm: t.shimMm, resultMm: -t.leftMm, uMm: READ_MM })),
  );

/** How likely the next one ends within a millimetre, in words. */
export const seriesWords = (
  { within1Mm, sdMm }: Pick<NextPreset, "within1Mm" | "sdMm">,
  size: (mm: number) => string,
): string =>
  `By the whole series; it ends within ${size(1)} of straight in ${Math.round(100 * within1Mm)} of 100, for pieces differ by ${size(2 * sdMm)} (95 %).`;
