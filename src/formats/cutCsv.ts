import Papa from "papaparse";
import type { CutPiece } from "@/core/cut";
import { bareUnit, fixed, type UnitPreference } from "@/core/units";

/**
 * The cut list as CSV, a line a piece kind, lengths in the job's unit.
 * @param sectionWords what a section is called. @returns text with a header; a cell that a table program would take for a
 * formula is quoted as text.
 */
export function cutCsv(
  cut: readonly CutPiece[],
  units: UnitPreference,
  sectionWords: (piece: CutPiece) => string,
): string {
  const unit = bareUnit(units);
  const length = (mm: number): string => (unit === "mm" ? fixed(mm, 1) : fixed(mm / 25.4, 4));
  return Papa.unparse(
    cut.map((p) => ({
      pieces: p.quantity,
      members: p.members.join(" "),
      section: sectionWords(p),
      [`long point, ${unit}`]: length(p.longPointMm),
      [`short point, ${unit}`]: length(p.shortPointMm),
      [`centre, ${unit}`]: length(p.centreMm),
      [`added for shrinkage, ${unit}`]: p.allowanceMm ? length(p.allowanceMm.value) : "",
      [`added to the middle of the limits, ${unit}`]: length(p.aimMm),
      [`cut to long point, ${unit}`]: p.allowanceMm ? length(p.cutLongPointMm) : "",
      ends: p.ends,
      "kg each": fixed(p.massKg, 2),
    })),
    { escapeFormulae: true },
  );
}
