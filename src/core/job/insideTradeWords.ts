import { formatSmall, type UnitPreference } from "../units";
import type { InsideTrade, InsideWay } from "./insideTrade";
import { predictedDecimals } from "./words";

/** Less than this share apart, two bands are called alike: they come from so many draws and no more. */
const ALIKE = 0.1;

/** Which way is better for one thing, in words; null where they are alike. */
function better(what: string, last: number, first: number, later: string): string | null {
  if (Math.abs(last - first) < ALIKE * Math.max(last, first)) return null;
  const share = Math.round(100 * (1 - Math.min(last, first) / Math.max(last, first)));
  return `insides ${last < first ? later : "first"} for ${what}, by ${share} %`;
}

/** The comparison in words, with its numbers; what it comes to is said last. */
export function insideTradeWords({ planned, last, first }: InsideTrade, units: UnitPreference): string[] {
  const small = (mm: number): string => formatSmall(mm, units, { decimals: predictedDecimals(units) });
  const way = (name: string, { squareMm, flatMm }: InsideWay): string =>
    `${name}: AC less BD within ± ${small(squareMm)} of what it is set up for, flat within ${small(flatMm)}, in nine frames of ten.`;
  const later = planned === "between" ? "where they stand" : "last";
  const told = [
    better("square", last.squareMm, first.squareMm, later),
    better("flat", last.flatMm, first.flatMm, later),
  ].filter((w) => w !== null);
  return [
    way(
      planned === "between"
        ? "Insides of the corners where this order has them"
        : `Insides of the corners last${planned === "last" ? ", as in this order" : ", all else as it is"}`,
      last,
    ),
    way(`Insides first, ${planned === "first" ? "as in this order" : "all else as it is"}`, first),
    told.length > 0
      ? `On this frame better: ${told.join("; ")}.`
      : "On this frame they are alike: lay them as the arc goes best.",
  ];
}
