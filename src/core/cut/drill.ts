import { isRound, type Structure, type StructureMember } from "../frame";
import { dot3, sub3 } from "../numeric";
import { type Problem, plainLength, rangeWords, type UnitPreference } from "../units";
import type { Drill } from "./drillSchema";

export const DRILL_FOR = ["mounting", "wiring", "anchor", "hanging"] as const;
export const DRILL_FACES = ["top", "underside", "outer side", "inner side"] as const;

/** From this size up a drill wants a pilot, mm (common practice, no source). */
const PILOT_FROM_MM = 12.7;
/** Web of a twist drill as a share of its diameter, at its point (common practice, no source). */
const WEB_SHARE = 0.17;
/** A hole wider than this share of its face leaves too little of it (common practice, no source). */
const FACE_SHARE = 0.4;

/** One line of the drill list. */
interface DrillLine {
  drill: Drill;
  /** Pilot first, mm; null when none is wanted. */
  pilotMm: number | null;
  notes: string[];
}

/** Where a hole lies along the line that joints were found on, mm: it is measured from where the piece is cut. */
export const drillAlongMm = (m: StructureMember, drill: Pick<Drill, "at">): number =>
  dot3(sub3(m.ends.from.at, m.from), m.axes[0]) + drill.at.mm;

/** Pilot for a drill: a little larger than its web, to the next half millimetre. @returns null under 12.7 mm. */
export const pilotMm = (diameterMm: number): number | null =>
  diameterMm >= PILOT_FROM_MM - 1e-9 ? Math.ceil((WEB_SHARE * diameterMm + 0.3) * 2) / 2 : null;

/** Holes as they are drilled, with pilot and what to watch. */
export function drillList(structure: Structure, drills: readonly Drill[], units: UnitPreference = "mm"): DrillLine[] {
  return drills.flatMap((drill): DrillLine[] => {
    const m = structure.members.find((x) => x.id === drill.member);
    if (!m) return [];
    const upright = drill.face === "top" || drill.face === "underside";
    const face = upright ? m.properties.widthMm : m.properties.heightMm;
    const d = drill.diameter.mm;
    const notes: string[] = [];
    if (d > FACE_SHARE * face)
      notes.push(
        `Takes ${Math.round((100 * d) / face)} % of a face of ${plainLength(face, units)}: put it where the member carries least, or take a wider one.`,
      );
    const ends = Math.min(drill.at.mm, m.centreMm - drill.at.mm);
    if (ends < d + face / 2) notes.push("Near a joint: drill it before welding, and keep the bead clear of it.");
    if (drill.for === "wiring") notes.push("Deburr both walls and put a grommet in before the cable.");
    if (isRound(m.shape)) notes.push("On a round: punch and spot it first, or the drill walks.");
    return [{ drill, pilotMm: pilotMm(d), notes }];
  });
}

/** What keeps a hole from being drilled, at its field. */
export function drillProblems(
  structure: Structure | null,
  drills: readonly Drill[],
  units: UnitPreference = "mm",
): Problem[] {
  const found: Problem[] = [];
  drills.forEach((drill, i) => {
    const error = (field: string, message: string) =>
      found.push({ path: `drill.${i}.${field}`, message, severity: "error" });
    const d = drill.diameter.mm;
    if (!(d >= 1 && d <= 100))
      error(
        "diameter",
        `${drill.id}: a drill of ${plainLength(d, units)} is outside ${rangeWords(1, 100, units)}. Check the unit.`,
      );
    if (!structure) return;
    const m = structure.members.find((x) => x.id === drill.member);
    if (!m) {
      found.push({
        path: `drill.${i}.member`,
        message: `${drill.id} is in ${drill.member || "no member"}, which is not in the frame. Choose another.`,
        severity: "warning",
      });
      return;
    }
    const upright = drill.face === "top" || drill.face === "underside";
    const face = upright ? m.properties.widthMm : m.properties.heightMm;
    if (d >= face)
      error(
        "diameter",
        `${drill.id}: a hole of ${plainLength(d, units)} does not fit into a face of ${plainLength(face, units)}.`,
      );
    if (drill.at.mm < d / 2 || drill.at.mm > m.centreMm - d / 2)
      error(
        "at",
        `${drill.id}: ${plainLength(drill.at.mm, units)} is not on ${m.id}, which is ${plainLength(m.centreMm, units)} long.`,
      );
  });
  return found;
}
