import type { CutPiece, Stock } from "@/core/cut";
import { bareUnit, fixed, type UnitPreference } from "@/core/units";
import { csv } from "./csv";

/**
 * The cut list as CSV, a line a piece kind, lengths in the job's unit.
 * @param sectionWords what a section is called. @param also pieces for something else, from the same bars. @returns text with a header; a cell that a table program would take for a
 * formula is quoted as text.
 */
export function cutCsv(
  cut: readonly CutPiece[],
  units: UnitPreference,
  sectionWords: (piece: CutPiece) => string,
  also: NonNullable<Stock["also"]> = [],
): string {
  const unit = bareUnit(units);
  const length = (mm: number): string => (unit === "mm" ? fixed(mm, 1) : fixed(mm / 25.4, 4));
  return csv(
    [
      "pieces",
      "members",
      "section",
      `long point, ${unit}`,
      `short point, ${unit}`,
      `centre, ${unit}`,
      `added for shrinkage, ${unit}`,
      `added to the middle of the limits, ${unit}`,
      `cut to long point, ${unit}`,
      "ends",
      "kg each",
    ],
    [
      ...cut.map((p) => [
        p.quantity,
        p.members.join(" "),
        sectionWords(p),
        length(p.longPointMm),
        length(p.shortPointMm),
        length(p.centreMm),
        p.allowanceMm ? length(p.allowanceMm.value) : "",
        length(p.aimMm),
        p.allowanceMm ? length(p.cutLongPointMm) : "",
        p.ends,
        fixed(p.massKg, 2),
      ]),
      // Nothing is added to what is cut for something else.
      ...also.map((p) => [
        p.quantity,
        p.name === "" ? p.id : `${p.id} ${p.name}`,
        "",
        ...[length(p.length.mm), "", "", "", "", length(p.length.mm)],
        p.ends,
        "",
      ]),
    ],
  );
}
