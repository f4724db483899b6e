import { type Problem, plainLength, rangeWords, type UnitPreference } from "../units";
import type { Stock } from "./stockSchema";

/** Where a stock list is wrong, each at its field. */
export function stockProblems(stock: Stock, units: UnitPreference = "mm"): Problem[] {
  const found: Problem[] = [];
  const range = (path: string, label: string, mm: number, min: number, max: number) => {
    if (mm < min || mm > max)
      found.push({
        path: `stock.${path}`,
        message: `${label} is ${plainLength(mm, units)}: outside ${rangeWords(min, max, units)}. Check the unit.`,
        severity: "error",
      });
  };
  stock.bars.forEach((b, i) => {
    range(`bars.${i}.length`, `Bar ${b.id}`, b.length.mm, 200, 20_000);
  });
  stock.offcuts.forEach((o, i) => {
    range(`offcuts.${i}.length`, `Offcut ${o.id}`, o.length.mm, 20, 20_000);
  });
  (stock.also ?? []).forEach((p, i) => {
    range(`also.${i}.length`, `Piece ${p.id}`, p.length.mm, 5, 20_000);
  });
  range("kerf", "The saw cut", stock.kerf.mm, 0, 12);
  range("grip", "The end for the vice", stock.grip.mm, 0, 1000);
  range("least", "The shortest offcut worth keeping", stock.least.mm, 0, 20_000);
  return found;
}
