import type { OrderOutlook } from "./orderOutlook";

type Timed = Pick<OrderOutlook, "chance" | "totalS">;

/**
 * Orders that no other beats both ways: none is quicker and likelier to keep every limit. Quickest first.
 * @param outlooks any order; those without a chance are left out. @param equal chances nearer than this are no reason to take longer.
 */
export function frontier<T extends Timed>(outlooks: readonly T[], equal: number): T[] {
  const told = outlooks.filter((o) => o.chance !== null);
  const sorted = [...told].sort((a, b) => a.totalS - b.totalS || (b.chance ?? 0) - (a.chance ?? 0));
  const kept: T[] = [];
  for (const o of sorted) {
    const best = kept.at(-1)?.chance ?? Number.NEGATIVE_INFINITY;
    if ((o.chance ?? 0) >= best + (kept.length > 0 ? equal : 0)) kept.push(o);
  }
  return kept;
}
