import { type StructureMember, tubeBeginsMm } from "../frame";
import { formatLength, type Length, length, stated, type UnitPreference } from "../units";

/** A length so near to a sixty-fourth of an inch was typed as one, mm. */
const ROUNDED_MM = 2e-3;

/** As a person would have typed it: a fraction where one works in them and it is one. */
function saidLength(mm: number, units: UnitPreference): Length {
  if (units === "inch-fraction") {
    const { text, roundingMm } = formatLength(mm, "inch-fraction", { denominator: 64, bare: true });
    if (Math.abs(roundingMm) < ROUNDED_MM) return length(text, "in");
  }
  return stated(mm, units);
}

type Tube = Pick<StructureMember, "begins">;

/** A place along a member's line as it is taped: from the long point of the end that the member begins at. */
export const tapedAlong = (m: Tube, along: Length, units: UnitPreference): Length =>
  tubeBeginsMm(m) === 0 ? along : saidLength(along.mm - tubeBeginsMm(m), units);

/** The place along a member's line of what was taped so. */
export const alongLine = (m: Tube, taped: Length, units: UnitPreference): Length =>
  tubeBeginsMm(m) === 0 ? taped : saidLength(taped.mm + tubeBeginsMm(m), units);
