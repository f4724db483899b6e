import { SPANS, type Span } from "../geometry";
import { plainLength, type UnitPreference } from "../units";

const TRIANGLES: readonly [Span, Span, Span][] = [
  ["AC", "AB", "BC"],
  ["AC", "CD", "DA"],
  ["BD", "DA", "AB"],
  ["BD", "BC", "CD"],
];

/** Readings that no frame can have together. */
export interface Impossible {
  span: Span;
  message: string;
}

/**
 * Triangle rule over the four triangles of the frame: no side may be as long as the other two together.
 * @param mm what was read, mm. @param slackMm how much the readings may be off. @returns the first breach, or null.
 */
export function impossible(
  mm: Partial<Record<Span, number>>,
  slackMm: number,
  units: UnitPreference = "mm",
): Impossible | null {
  for (const span of SPANS) {
    const value = mm[span];
    if (value !== undefined && value <= 0)
      return { span, message: `${span} reads ${plainLength(value, units)}: a distance is more than zero.` };
  }
  for (const triangle of TRIANGLES) {
    for (const longest of triangle) {
      const [p, q] = triangle.filter((s) => s !== longest) as [Span, Span];
      const a = mm[longest];
      const b = mm[p];
      const c = mm[q];
      if (a === undefined || b === undefined || c === undefined || a <= b + c + slackMm) continue;
      const suspect = triangle[0];
      return {
        span: suspect,
        message: `No frame can have these: ${longest} (${plainLength(a, units)}) is longer than ${p} and ${q} together (${plainLength(b + c, units)}). Read ${suspect} again.`,
      };
    }
  }
  return null;
}
