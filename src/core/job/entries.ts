import type { Gate } from "../plan";
import { plainMm, slantMmPerM } from "../units";
import type { NewEntry, ReadingEntry } from "./entrySchema";
import { isSlant, quantityWords } from "./quantityId";
import type { QuantityId } from "./quantitySchema";

/** Furthest that a reading may lie, mm: 100 m. */
const FAR_MM = 100_000;
/** Steepest slope that a bed or a frame is read with, mm/m: 45 degrees. */
const STEEP_MM_PER_M = 1000;

/** What is wrong with something that was entered, at its field. */
interface EntryProblem {
  path: string;
  message: string;
}

/** The rules of a reading: screen, server and job file go by these alone. */
export function readingProblem({
  what,
  value,
  how,
}: Pick<ReadingEntry, "what" | "value" | "how">): EntryProblem | null {
  const name = quantityWords(what);
  if (how && what.kind !== "rest")
    return { path: "how", message: `${name} is no rest: only a bed is read in several ways.` };
  if (how && "from" in how) {
    const others = "to" in how ? [how.from, how.to] : [how.from];
    if (others.includes(name) || new Set(others).size < others.length)
      return { path: "how.from", message: `From ${name} to itself is no reading: choose another rest.` };
  }
  const places =
    "from" in what ? [what.from, what.to, ...("at" in what ? [what.at] : "of" in what ? [what.of] : [])] : [];
  if (new Set(places).size < places.length)
    return { path: "what", message: `${name} names one place twice: choose another.` };
  if (value === null) return null;
  const slope = how?.by === "slope";
  if ("slant" in value) {
    if (!slope && !isSlant(what))
      return { path: "value", message: `${name} is a length: give it in mm or inches, not as an angle or slope.` };
    if (what.kind === "angle") {
      if (value.slant !== "deg") return { path: "value", message: `${name} is an angle: give it in degrees.` };
      if (value.value <= 0 || value.value >= 180)
        return { path: "value", message: `${value.value}° is no angle of a corner: more than 0, less than 180.` };
    } else if (Math.abs(slantMmPerM(value)) > STEEP_MM_PER_M)
      return { path: "value", message: `${value.text} is steeper than any bed. Check the unit.` };
    return null;
  }
  if (slope || isSlant(what))
    return { path: "value", message: `${name} is a slope or an angle: give it in mm/m, % or degrees.` };
  const { mm } = value;
  if (Math.abs(mm) > FAR_MM)
    return { path: "value", message: `${mm / 1000} m is no reading of a frame. Check the unit.` };
  if ((what.kind === "distance" || what.kind === "piece") && mm <= 0)
    return { path: "value", message: `${name} reads ${plainMm(mm)}: a distance is more than zero.` };
  if ((what.kind === "gap" || what.kind === "rock" || how?.by === "edge") && mm < 0)
    return { path: "value", message: `${name} reads ${plainMm(mm)}: a gap is nought or more.` };
  return null;
}

/** @param entry a new entry. */
export const entryProblem = (entry: NewEntry): EntryProblem | null =>
  entry.kind === "reading" ? readingProblem(entry) : null;

/** Whether a quantity is read at a gate: pieces when cut, rests on the bed, everything else on the frame. */
export function isReadAt(gate: Gate, what: QuantityId): boolean {
  if (gate === "bed") return what.kind === "rest";
  if (gate === "cut") return what.kind === "piece";
  return what.kind !== "rest" && what.kind !== "piece";
}
