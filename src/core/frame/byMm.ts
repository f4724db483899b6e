/** Places, and sizes, that differ by less count as alike, mm: how exactly something was drawn decides nothing. */
const ALIKE_MM = 0.5;

/** One after the other where they differ; nought where they are as good as alike. */
export const byMm = (p: number, q: number): number => (Math.abs(p - q) < ALIKE_MM ? 0 : p - q);
