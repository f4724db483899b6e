/**
 * General tolerances for welded constructions, ISO 13920.
 * The whole table is from memory: confirm against the text before relying on it.
 */
export const LINEAR_CLASSES = ["A", "B", "C", "D"] as const;
export type LinearClass = (typeof LINEAR_CLASSES)[number];
export const FLAT_CLASSES = ["E", "F", "G", "H"] as const;
export type FlatClass = (typeof FLAT_CLASSES)[number];

const END = Number.POSITIVE_INFINITY;
/** Ranges "over .. up to and including", upper ends, mm. */
const LINEAR_UP_TO = [30, 120, 400, 1000, 2000, 4000, 8000, 12_000, 16_000, 20_000, END];
const LINEAR: Record<LinearClass, number[]> = {
  A: [1, 1, 1, 2, 3, 4, 5, 6, 7, 8, 9],
  B: [1, 2, 2, 3, 4, 6, 8, 10, 12, 14, 16],
  C: [1, 3, 4, 6, 8, 11, 14, 18, 21, 24, 27],
  D: [1, 4, 7, 9, 12, 16, 21, 27, 32, 36, 40],
};
const FLAT_UP_TO = [120, 400, 1000, 2000, 4000, 8000, 12_000, 16_000, 20_000, END];
const FLAT: Record<FlatClass, number[]> = {
  E: [0.5, 1, 1.5, 2, 3, 4, 5, 6, 7, 8],
  F: [1, 1.5, 3, 4.5, 6, 8, 10, 12, 14, 16],
  G: [1.5, 3, 5.5, 9, 11, 16, 20, 22, 25, 25],
  H: [2.5, 5, 9, 14, 18, 26, 32, 36, 40, 40],
};
const ANGLE_UP_TO = [400, 1000, END];
const ANGLE_MINUTES: Record<LinearClass, number[]> = {
  A: [20, 15, 10],
  B: [45, 30, 20],
  C: [60, 45, 30],
  D: [90, 75, 60],
};
const ANGLE_MM_PER_M: Record<LinearClass, number[]> = {
  A: [6, 4.5, 3],
  B: [13, 9, 6],
  C: [18, 13, 9],
  D: [26, 22, 18],
};

function look(upTo: number[], row: number[], mm: number): number {
  const value = row[upTo.findIndex((end) => mm <= end)];
  if (value === undefined) throw new Error(`ISO 13920: no range for ${mm} mm`);
  return value;
}

/** +- limit on a length, mm. */
export const linearLimitMm = (cls: LinearClass, lengthMm: number): number => look(LINEAR_UP_TO, LINEAR[cls], lengthMm);
/** Limit on straightness, flatness and parallelism, mm, by the longer side. */
export const flatLimitMm = (cls: FlatClass, longerMm: number): number => look(FLAT_UP_TO, FLAT[cls], longerMm);
/** +- limit on an angle, by its shorter leg. */
export const angleLimit = (cls: LinearClass, shorterLegMm: number): { minutes: number; mmPerM: number } => ({
  minutes: look(ANGLE_UP_TO, ANGLE_MINUTES[cls], shorterLegMm),
  mmPerM: look(ANGLE_UP_TO, ANGLE_MM_PER_M[cls], shorterLegMm),
});
