import type { Gate } from "../plan";
import { plainMm, slantMmPerM } from "../units";
import type { NewEntry } from "./entrySchema";
import { isSlant, quantityOf } from "./quantityId";

/** Step name of the tick that closes a job. */
export const CLOSE_STEP = "job/closed";
/** Step name of the tick that pieces are cut. @param member the first of them. */
export const cutStep = (member: string): string => `cut/${member}`;
/** Furthest that a reading may lie, mm: 100 m. */
const FAR_MM = 100_000;
/** Steepest slope that a bed or a frame is read with, mm/m: 45 degrees. */
const STEEP_MM_PER_M = 1000;

const isRest = (what: string): boolean => /^R[1-9]\d?$/.test(what);

/** @param entry a new entry. @param gate that it is read at, where known: a rest and a piece may share a name. */
export function entryProblem(entry: NewEntry, gate?: Gate): { path: string; message: string } | null {
  if (entry.kind !== "reading") return null;
  const { what, value, how } = entry;
  if (how && !isRest(what)) return { path: "how", message: `${what} is no rest: only a bed is read in several ways.` };
  if (how && "from" in how) {
    const others = "to" in how ? [how.from, how.to] : [how.from];
    if (others.includes(what) || new Set(others).size < others.length)
      return { path: "how.from", message: `From ${what} to itself is no reading: choose another rest.` };
  }
  if (value === null) return null;
  const slope = how?.by === "slope";
  if ("slant" in value) {
    if (!slope && !isSlant(what))
      return { path: "value", message: `${what} is a length: give it in mm or inches, not as an angle or slope.` };
    if (quantityOf(what).kind === "angle") {
      if (value.slant !== "deg") return { path: "value", message: `${what} is an angle: give it in degrees.` };
      if (value.value <= 0 || value.value >= 180)
        return { path: "value", message: `${value.value}° is no angle of a corner: more than 0, less than 180.` };
    } else if (Math.abs(slantMmPerM(value)) > STEEP_MM_PER_M)
      return { path: "value", message: `${value.text} is steeper than any bed. Check the unit.` };
    return null;
  }
  if (slope || (isSlant(what) && !isRest(what)))
    return { path: "value", message: `${what} is a slope or an angle: give it in mm/m, % or degrees.` };
  const { mm } = value;
  if (Math.abs(mm) > FAR_MM)
    return { path: "value", message: `${mm / 1000} m is no reading of a frame. Check the unit.` };
  const kind = quantityOf(what).kind;
  const taped = gate === "cut" || kind === "distance" || (kind === "name" && !isRest(what));
  if (taped && mm <= 0)
    return { path: "value", message: `${what} reads ${plainMm(mm)}: a distance is more than zero.` };
  if ((kind === "gap" || kind === "rock" || how?.by === "edge") && mm < 0)
    return { path: "value", message: `${what} reads ${plainMm(mm)}: a gap is nought or more.` };
  return null;
}

/** Whether a quantity is read at a gate: pieces when cut, rests on the bed, everything else on the frame. */
export function isReadAt(gate: Gate, what: string): boolean {
  if (gate === "bed") return isRest(what);
  if (gate === "cut") return /^[A-Z][A-Z0-9]{0,5}$/.test(what) && what !== "AC" && what !== "BD";
  return quantityOf(what).kind !== "name" || /^(AB|BC|CD|DA|AC|BD)$/.test(what);
}
