import type { Estimate } from "../units";
import { FACTORS, type FactorName } from "./constants";

/** A part of a prediction: its size, the factors it is proportional to, and over how many beads its own scatter averages. */
export interface Part {
  mm: number;
  factors: FactorName[];
  beads: number;
}

/** 90 % of a normal distribution lies within this many sigma. */
const NINETY = 1.645;

/**
 * Adds parts up, with the band that holds about nine in ten. A factor that parts share moves them together; per-bead
 * scatter averages out. Lognormal. Source: JCGM 100:2008, 5.2 (correlated inputs), from memory.
 */
export function estimate(parts: Part[]): Estimate {
  const value = parts.reduce((s, p) => s + p.mm, 0);
  if (value <= 0) return { value: 0, low: 0, high: 0 };
  const names = [...new Set(parts.flatMap((p) => p.factors))];
  const shared = names.map((n) => FACTORS[n].cv * parts.reduce((s, p) => s + (p.factors.includes(n) ? p.mm : 0), 0));
  const own = parts.map((p) => (p.mm * FACTORS.perBead.cv) / Math.sqrt(Math.max(1, p.beads)));
  const cv = Math.hypot(...shared, ...own) / value;
  const sigma = Math.sqrt(Math.log(1 + cv * cv));
  return { value, low: value * Math.exp(-NINETY * sigma), high: value * Math.exp(NINETY * sigma) };
}
