import type { Gate } from "../plan";
import { farLength, fixed, type Length, plainLength, rangeWords, slantMmPerM, type UnitPreference } from "../units";
import { bubbleMmPerM, packerMmPerM } from "./bubble";
import type { CorrectedEntry, NewEntry, ReadingEntry, Taken } from "./entrySchema";
import { isSlant, quantityWords, spanOf } from "./quantityId";
import type { QuantityId } from "./quantitySchema";

/** Furthest that a reading may lie, mm: 100 m. */
const FAR_MM = 100_000;
/** Steepest slope that a bed or a frame is read with, mm/m: 45 degrees. */
const STEEP_MM_PER_M = 1000;

/** The system that a length was typed in. */
const unitsOf = (l: Pick<Length, "unit">): UnitPreference => (l.unit === "in" ? "inch-fraction" : "mm");

/** What is wrong with something that was entered, at its field. */
interface EntryProblem {
  path: string;
  message: string;
}

/** Furthest that a frame is pushed past where it lies, mm. */
const PUSHED_MM = 500;

/** Furthest inside its corner that a mark lies, mm: one measures a frame by it, not a piece of it. */
const SET_IN_MM = 1000;

/** What a bubble says and what is kept of it differ by no more, mm/m. */
const SAID_MM_PER_M = 0.001;

/** Kinds that are read by what goes under an edge or into a gap, and what does not. */
export const hasLeaves = (what: QuantityId): boolean =>
  ["gap", "flush", "straightness", "edge", "height", "rock", "rest"].includes(what.kind);

/** The rules of what was done besides reading. */
function takenProblem(
  { plus, setIn, notAt, bubble, packer }: Taken,
  what: QuantityId,
  value: NonNullable<ReadingEntry["value"]>,
): EntryProblem | null {
  const name = quantityWords(what);
  if ("slant" in value) {
    if (plus || setIn || notAt)
      return { path: "taken", message: `${name} is a slope or an angle: no block, mark or leaf goes with it.` };
    if (packer && (packer.thick.mm < 0 || packer.base.mm <= 0))
      return { path: "taken.packer", message: "Packers and the level's length are more than nothing." };
    const says = bubble ? bubbleMmPerM(bubble) : packer ? packerMmPerM(packer) : null;
    return says === null || Math.abs(says - slantMmPerM(value)) < SAID_MM_PER_M
      ? null
      : { path: "value", message: `The bubble says ${fixed(says, 2)} mm/m, the reading ${value.text}.` };
  }
  if (bubble || packer) return { path: "taken", message: `${name} is a length: no bubble goes with it.` };
  if (setIn && spanOf(what) === null)
    return { path: "taken.setIn", message: `${name} is not read between corners: no marks set in from them.` };
  if (setIn && (setIn.mm < 0 || setIn.mm > SET_IN_MM))
    return {
      path: "taken.setIn",
      message: `Marks lie inside their corner by ${rangeWords(0, SET_IN_MM, unitsOf(setIn))}.`,
    };
  if (plus && Math.abs(plus.mm) > SET_IN_MM)
    return {
      path: "taken.plus",
      message: `${plainLength(plus.mm, unitsOf(plus))} is more than any block: at most ${plainLength(SET_IN_MM, unitsOf(plus))}.`,
    };
  if (notAt && !hasLeaves(what))
    return { path: "taken.notAt", message: `${name} is not read with leaves: give one reading.` };
  if (notAt && notAt.mm <= value.mm)
    return {
      path: "taken.notAt",
      message: `What no longer goes (${plainLength(notAt.mm, unitsOf(notAt))}) must be thicker than what goes (${plainLength(value.mm, unitsOf(value))}).`,
    };
  return null;
}

/** The rules of a reading: screen, server and job file go by these alone. */
export function readingProblem({
  what,
  value,
  how,
  taken,
}: Pick<ReadingEntry, "what" | "value" | "how" | "taken">): EntryProblem | null {
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
  const wrong = taken && takenProblem(taken, what, value);
  if (wrong) return wrong;
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
    return { path: "value", message: `${farLength(mm, unitsOf(value))} is no reading of a frame. Check the unit.` };
  if ((what.kind === "distance" || what.kind === "piece") && mm <= 0)
    return {
      path: "value",
      message: `${name} reads ${plainLength(mm, unitsOf(value))}: a distance is more than zero.`,
    };
  if ((what.kind === "gap" || what.kind === "rock" || how?.by === "edge") && mm < 0)
    return { path: "value", message: `${name} reads ${plainLength(mm, unitsOf(value))}: a gap is nought or more.` };
  return null;
}

/** @param entry a new entry. */
export const entryProblem = (entry: NewEntry): EntryProblem | null =>
  entry.kind === "reading" ? readingProblem(entry) : entry.kind === "corrected" ? correctedProblem(entry) : null;

/** A frame is pushed by something, and not by half a metre. */
const correctedProblem = ({ amount }: CorrectedEntry): EntryProblem | null =>
  typeof amount === "object" && !(amount.mm > 0 && amount.mm <= PUSHED_MM)
    ? {
        path: "amount",
        message: `A frame is pushed by up to ${plainLength(PUSHED_MM, unitsOf(amount))}, and by something.`,
      }
    : null;

/** Whether a quantity is read at a gate: pieces when cut, rests on the bed, everything else on the frame. */
export function isReadAt(gate: Gate, what: QuantityId): boolean {
  if (gate === "bed") return what.kind === "rest";
  if (gate === "cut") return what.kind === "piece";
  return what.kind !== "rest" && what.kind !== "piece";
}
