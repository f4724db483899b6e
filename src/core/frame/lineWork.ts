import { entry, type Vec3 } from "../numeric";

/** Units that a drawing may be in, mm each. */
export const DRAWING_UNITS = { mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8 } as const;
export type DrawingUnit = keyof typeof DRAWING_UNITS;

/** A straight line of a drawing, in the drawing's own unit. */
export interface WorkLine {
  layer: string;
  from: Vec3;
  to: Vec3;
  /** Lines of one closed figure share a number. */
  ring?: number;
}

/** What was read of a drawing that another program made. */
export interface LineWork {
  lines: WorkLine[];
  /** As the file says; null where it says nothing. */
  unit: DrawingUnit | null;
  /** Whether the file counts in inches by habit, where it does not say its unit. */
  isInchHabit: boolean;
  /** What is in the file and was not taken, or not as it is. */
  unread: string[];
}

/** More lines than these are no frame. */
export const MOST_LINES = 20_000;

/** Sizes between which a frame lies that somebody builds, mm (own judgement). */
const SMALLEST_MM = 250;
const LARGEST_MM = 16_000;

/** Extent of lines along each axis, in their own unit. */
export function extentOf(lines: readonly Pick<WorkLine, "from" | "to">[]): Vec3 {
  const low = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  const high = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const { from, to } of lines)
    for (const p of [from, to])
      for (let k = 0; k < 3; k++) {
        low[k] = Math.min(entry(low, k), entry(p, k));
        high[k] = Math.max(entry(high, k), entry(p, k));
      }
  return lines.length === 0 ? [0, 0, 0] : (high.map((v, k) => v - entry(low, k)) as unknown as Vec3);
}

/**
 * The unit that a drawing is likely in: the one that it names where its size is then one of a frame, else the first that makes it
 * one. It is asked all the same.
 */
export function likelyUnit(work: LineWork): { unit: DrawingUnit; why: "said" | "said, but odd" | "by its size" } {
  const size = Math.max(...extentOf(work.lines));
  const fits = (u: DrawingUnit): boolean => {
    const mm = size * DRAWING_UNITS[u];
    return mm >= SMALLEST_MM && mm <= LARGEST_MM;
  };
  if (work.unit && fits(work.unit)) return { unit: work.unit, why: "said" };
  const usual: readonly DrawingUnit[] = work.isInchHabit
    ? ["in", "ft", "mm", "m", "cm"]
    : ["mm", "in", "m", "cm", "ft"];
  const found = usual.find(fits);
  if (work.unit) return found ? { unit: found, why: "said, but odd" } : { unit: work.unit, why: "said" };
  return { unit: found ?? usual[0] ?? "mm", why: "by its size" };
}
