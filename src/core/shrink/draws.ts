import type { Draws } from "../mechanics";
import { normalDraw, seeded } from "../numeric";
import type { FactorName, ShrinkFactors } from "../weld";

const HEAT_FACTORS = ["transverse", "longitudinal", "filletClosing", "tackHeat", "day", "otherMaterial"] as const;

/** Lognormal with mean-free logarithm: half of the draws lie above 1. */
const lognormal = (cv: number, z: number): number => Math.exp(Math.sqrt(Math.log(1 + cv * cv)) * z);

function hash(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h >>> 0;
}

/**
 * Fixed draws from the stated scatters.
 * @param factors with their coefficients of variation. @param count how many, draw 0 being nominal. @param seed any integer.
 */
export function drawsOf(factors: ShrinkFactors, count: number, seed: number): Draws {
  const column = (name: string, cv: number): Float64Array => {
    const random = seeded(seed ^ hash(name));
    return Float64Array.from({ length: count }, (_, d) => {
      const z = normalDraw(random);
      return d === 0 ? 1 : lognormal(cv, z);
    });
  };
  const of = Object.fromEntries(HEAT_FACTORS.map((f) => [f, column(f, factors[f].cv)])) as Partial<
    Record<FactorName, Float64Array>
  >;
  const products = new Map<string, Float64Array>();
  const own = new Map<string, Float64Array>();
  const cached = (id: string, cv: number): Float64Array => {
    const known = own.get(id) ?? column(id, cv);
    own.set(id, known);
    return known;
  };
  return {
    count,
    shared: (names) => {
      const key = names.join();
      const known =
        products.get(key) ??
        Float64Array.from({ length: count }, (_, d) => names.reduce((p, n) => p * (of[n as FactorName]?.[d] ?? 1), 1));
      products.set(key, known);
      return known;
    },
    bead: (id, besides) => cached(`bead ${id}`, Math.hypot(factors.perBead.cv, factors.fit.cv, besides)),
    gap: (joint) => cached(`gap ${joint}`, factors.gap.cv),
    joint: (id) => cached(`joint ${id}`, factors.unfitted.cv),
  };
}
