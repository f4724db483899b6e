import { normalCdf } from "../numeric";

/** One trial: what it was bent over, and what was left, positive the way that the weld pulls, mm. */
export interface Trial {
  presetMm: number;
  resultMm: number;
  /** Standard uncertainty of what was read of it, mm. */
  uMm: number;
}

/** What is believed of a piece that is bent before it is welded. */
export interface Camber {
  /** Bow that the weld makes when nothing bends it, mm. */
  freeMm: number;
  freeCv: number;
  /** Share of the bend that it keeps. */
  keeps: number;
  keepsSd: number;
  /** From one piece to the next, mm. */
  scatterMm: number;
}

/** What to bend the next one over. */
export interface NextPreset {
  presetMm: number;
  /** What it is expected to end at, and its standard deviation, mm. */
  expectedMm: number;
  sdMm: number;
  freeMm: number;
  keeps: number;
  keepsSd: number;
  /** Chance that it ends within 1 mm of what is wanted. */
  within1Mm: number;
}

/**
 * Line result = free - keeps times preset, learned from trials; the preset that is best on average for what is then believed:
 * ((free - wanted) keeps + cov) / (keeps^2 + var keeps). A secant chases the scatter of single pieces; this does not.
 * Source: Bayes' rule for a line with known scatter; Zellner (1971) for the preset (both from memory).
 */
export function nextPreset(wantedMm: number, start: Camber, trials: readonly Trial[]): NextPreset {
  // Precision of (free, keeps), and precision times mean.
  let a = 1 / (start.freeCv * start.freeMm) ** 2;
  let b = 0;
  let c = 1 / start.keepsSd ** 2;
  let u = a * start.freeMm;
  let v = c * start.keeps;
  for (const { presetMm: p, resultMm: y, uMm } of trials) {
    const s2 = start.scatterMm ** 2 + uMm ** 2;
    a += 1 / s2;
    b -= p / s2;
    c += (p * p) / s2;
    u += y / s2;
    v -= (p * y) / s2;
  }
  const det = a * c - b * b;
  const free = (c * u - b * v) / det;
  const keeps = (a * v - b * u) / det;
  const [freeVar, cov, keepsVar] = [c / det, -b / det, a / det];
  const presetMm = ((free - wantedMm) * keeps + cov) / (keeps ** 2 + keepsVar);
  const expectedMm = free - keeps * presetMm;
  const sdMm = Math.sqrt(freeVar - 2 * presetMm * cov + presetMm ** 2 * keepsVar + start.scatterMm ** 2);
  const within1Mm = normalCdf((wantedMm + 1 - expectedMm) / sdMm) - normalCdf((wantedMm - 1 - expectedMm) / sdMm);
  return { presetMm, expectedMm, sdMm, freeMm: free, keeps, keepsSd: Math.sqrt(keepsVar), within1Mm };
}
