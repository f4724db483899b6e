import { chiSquareTail, entry } from "../numeric";

/** Several readings of one quantity, made into one. */
export interface Combined {
  mean: number;
  u: number;
  /** Weighted sum of squares about the mean. */
  chi2: number;
  /** Chance of so much disagreement when every stated uncertainty is right; 1 for a single reading. */
  pValue: number;
  consistent: boolean;
  /** How many times larger the uncertainties would have to be. */
  birge: number;
  /** Uncertainty with that taken into account. */
  uInflated: number;
  /** Largest disagreement of a pair against twice its uncertainty, and the pair. Over 1: they disagree. */
  worstPair: { en: number; pair: [number, number] } | null;
}

/** Readings disagree when chance alone would do so in less than one case in twenty. */
const AGREE = 0.05;

/**
 * Weighted mean of readings of the same quantity by different instruments, and whether they agree. A mislabelled feeler
 * or a worn calliper shows here. Source: JCGM 100 and Birge (1932), from memory.
 * @param values readings, any unit. @param u standard uncertainty of each, same unit, > 0.
 */
export function combine(values: readonly number[], u: readonly number[]): Combined {
  const w = u.map((x) => 1 / x ** 2);
  const sum = w.reduce((a, b) => a + b, 0);
  const mean = values.reduce((s, v, i) => s + v * entry(w, i), 0) / sum;
  const chi2 = values.reduce((s, v, i) => s + entry(w, i) * (v - mean) ** 2, 0);
  const freedom = values.length - 1;
  const pValue = freedom > 0 ? chiSquareTail(chi2, freedom) : 1;
  const birge = freedom > 0 ? Math.sqrt(chi2 / freedom) : 0;
  let worstPair: Combined["worstPair"] = null;
  for (let i = 0; i < values.length; i++)
    for (let j = i + 1; j < values.length; j++) {
      const en = Math.abs(entry(values, i) - entry(values, j)) / (2 * Math.hypot(entry(u, i), entry(u, j)));
      if (!worstPair || en > worstPair.en) worstPair = { en, pair: [i, j] };
    }
  return {
    mean,
    u: 1 / Math.sqrt(sum),
    chi2,
    pValue,
    consistent: pValue >= AGREE,
    birge,
    uInflated: Math.max(1, birge) / Math.sqrt(sum),
    worstPair,
  };
}
