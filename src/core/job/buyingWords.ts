import type { Nesting, Stock } from "../cut";
import { fixed, formatLength, type UnitPreference } from "../units";

/** What to buy of one section, and how good the plan is. */
export function buyingWords(
  nesting: Nesting,
  stock: Stock | null,
  units: UnitPreference,
): { say: string; why: string | null } {
  const length = (mm: number): string => formatLength(mm, units, { trim: true }).text;
  if (nesting.missing.length > 0)
    return {
      say: `What is at hand does not yield ${nesting.missing.join(", ")}: add a length to buy.`,
      why: null,
    };
  const say =
    nesting.buy.length === 0
      ? "Nothing to buy: the offcuts do."
      : `Buy ${nesting.buy.map((b) => `${b.count} × ${length(b.lengthMm)}`).join(" and ")}${nesting.price === null ? "" : `, ${fixed(nesting.price, 2)} in all`}.`;
  const proof = nesting.proven
    ? `Proven: no other way of cutting ${nesting.price === null ? "needs" : "costs"} less.`
    : `The best found in the time; at most ${fixed(100 * (1 - nesting.bound), 0)} % could be saved.`;
  const share = (100 * nesting.piecesMm) / nesting.bars.reduce((s, b) => s + b.lengthMm, 0);
  const into = stock?.also && stock.also.length > 0 ? "pieces" : "the frame";
  return {
    say,
    why:
      nesting.boughtMm > 0
        ? `${proof} ${fixed(share, 0)} % of the bars ends in ${into}, measured by long points.`
        : proof,
  };
}
