import type { SawTestReading, Stock } from "../cut";
import { length, type UnitPreference } from "../units";

/** What a shop has at hand before it says otherwise: whole bars of the trade, a bandsaw's cut. */
export function usualStock(units: UnitPreference): Stock {
  const inch = units !== "mm";
  const l = (mm: string, inches: string) => (inch ? length(inches, "in") : length(mm));
  return {
    bars: [{ id: "B1", length: inch ? length("240", "in") : length("6000"), price: null }],
    offcuts: [],
    kerf: l("2", "1/16"),
    grip: l("50", "2"),
    least: l("300", "12"),
    flip: true,
  };
}

/** A saw test that found nothing, to start from. */
export function cleanSawTest(units: UnitPreference): SawTestReading {
  const inch = units !== "mm";
  return {
    gap: inch ? length("0", "in") : length("0"),
    leg: inch ? length("6", "in") : length("150"),
    placing: "pieces inside square",
    gapAt: "toe",
  };
}
