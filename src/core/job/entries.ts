import type { Gate } from "../plan";
import { plainMm } from "../units";
import type { NewEntry } from "./entrySchema";

/** Step name of the tick that closes a job. */
export const CLOSE_STEP = "job/closed";
/** Step name of the tick that pieces are cut. @param member the first of them. */
export const cutStep = (member: string): string => `cut/${member}`;
/** Furthest that a reading may lie, mm: 100 m. */
const FAR_MM = 100_000;

/** @param entry a new entry. @param gate that it is read at, where known: a rest and a piece may share a name. */
export function entryProblem(entry: NewEntry, gate?: Gate): { path: string; message: string } | null {
  if (entry.kind !== "reading" || entry.value === null) return null;
  const { mm } = entry.value;
  const taped = gate === "cut" || (!entry.what.startsWith("z") && !/^R\d/.test(entry.what));
  if (Math.abs(mm) > FAR_MM)
    return { path: "value", message: `${mm / 1000} m is no reading of a frame. Check the unit.` };
  if (taped && mm <= 0)
    return { path: "value", message: `${entry.what} reads ${plainMm(mm)}: a distance is more than zero.` };
  return null;
}

/** Whether a quantity is read at a gate: pieces when cut, rests on the bed, spans and corner heights of the frame. */
export function isReadAt(gate: Gate, what: string): boolean {
  if (gate === "bed") return /^R[1-9]\d?$/.test(what);
  if (gate === "cut") return /^[A-Z][A-Z0-9]{0,5}$/.test(what) && what !== "AC" && what !== "BD";
  return /^(AB|BC|CD|DA|AC|BD|z[A-D])$/.test(what);
}
