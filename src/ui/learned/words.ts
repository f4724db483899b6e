import type { FrameTeaching } from "@/core/job";
import type { Learnable, ShopCell } from "@/core/learn";
import { formatSmall, type UnitPreference } from "@/core/units";

/** Factors as one says them. */
export const FACTOR_NAMES: Record<Learnable, string> = {
  transverse: "Across the bead",
  longitudinal: "Along the bead",
  filletClosing: "Closing of a fillet",
  tackHeat: "Heat of a tack",
};

/** How far something would be narrowed, in words. */
export const narrowsWords = (share: number): string =>
  share > 0.985 ? "as wide as before" : `narrowed to ${Math.round(100 * share)} % of its width`;

/** How a frame stands to what was predicted of it, with what it looks like where it does not fit. */
export function misfitWords({ surprise, lesson }: FrameTeaching, units: UnitPreference): string {
  const mm = (x: number): string => formatSmall(x, units, { decimals: units === "mm" ? 2 : 1 });
  const n = lesson.readings.length;
  const chance = surprise.p < 0.001 ? "under 1 in 1000" : `${Math.max(1, Math.round(100 * surprise.p))} in 100`;
  switch (surprise.cause) {
    case "fits":
      return `Its ${n} ${n === 1 ? "change lies" : "changes lie"} within what was predicted: ${chance} such frames lie farther off.`;
    case "all heat by a factor":
      return `Everything moved about ${surprise.heatFactor.toFixed(1)} times as far as predicted. Were the settings those that are written down, was every bead laid, is the wall right? If all is right, this shop differs: let it teach.`;
    case "one reading":
      return `${lesson.readings[surprise.reading]?.what ?? "One reading"} is off by about ${mm(surprise.slipMm)} and nothing else is: read wrong, or moved by hand between the gates? Mend the reading first.`;
    case "unexplained":
      return `It is not as predicted (${chance}), and neither other heat nor one wrong reading explains it: a step not done, another order, a nudge?`;
  }
}

const WALL_ENDS: Record<ShopCell["wall"], { before: string; mm: readonly number[] }> = {
  "under 2.5 mm": { before: "under ", mm: [2.5] },
  "2.5 to 4 mm": { before: "", mm: [2.5, 4] },
  "over 4 mm": { before: "over ", mm: [4] },
};

/** A class of walls in the system that one works in. */
export function wallClassWords(wall: ShopCell["wall"], units: UnitPreference): string {
  const { before, mm } = WALL_ENDS[wall];
  return `${before}${mm.map((x, i) => formatSmall(x, units, { decimals: units === "mm" ? 1 : 0, bare: i + 1 < mm.length })).join(" to ")}`;
}
