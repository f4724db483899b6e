import type { Instrument } from "../instruments";
import { bareSlope, formatLength, typedText, type UnitPreference } from "../units";
import type { ReadingEntry, Taken } from "./entrySchema";

/** What of a reading says what was meant by it. */
interface Read {
  value: ReadingEntry["value"];
  taken?: Taken | undefined;
  instrumentId: string;
}

const markOf = (r: Read, instruments: readonly Instrument[]): number =>
  instruments.find((i) => i.id === r.instrumentId)?.fromMarkMm ?? 0;

/**
 * What a reading means, mm: what the instrument showed, less the mark that it was read from, with the block that was gone
 * past, in the middle between what went and what did not. Null for a slope, an angle, and what was taken back.
 */
export function meantMm(r: Read, instruments: readonly Instrument[]): number | null {
  if (r.value === null || "slant" in r.value) return null;
  const { plus, notAt } = r.taken ?? {};
  return (r.value.mm + (notAt?.mm ?? r.value.mm)) / 2 - markOf(r, instruments) + (plus?.mm ?? 0);
}

/** Inch fractions down to this are how a tape is read. */
const FINEST = 64;

/** A length that was worked out from a reading, as finely as it was read. */
function workedOut(mm: number, units: UnitPreference): string {
  if (units === "mm") return formatLength(mm, "mm", { decimals: 3, trim: true, bare: true }).text;
  const fraction = formatLength(mm, "inch-fraction", { denominator: FINEST, bare: true });
  return Math.abs(fraction.roundingMm) < 1e-6 && units === "inch-fraction"
    ? fraction.text
    : formatLength(mm, "inch-decimal", { decimals: 2, trim: true, bare: true }).text;
}

/** What was seen of a level, where that was no number. */
function bubbleWords(taken: Taken | undefined, units: UnitPreference): string | null {
  const end = (e: "from" | "to"): string => (e === "to" ? "this end" : "the other end");
  if (taken?.bubble) return `${taken.bubble.divisions} divisions toward ${end(taken.bubble.toward)}`;
  if (taken?.packer) return `${typedText(taken.packer.thick, units)} under ${end(taken.packer.under)}`;
  return null;
}

/**
 * A reading in words: what it means, with the mark taken off, and what was read beside it where that is something else.
 * @returns empty texts for a reading that was taken back.
 */
export function readingText(
  r: Read,
  instruments: readonly Instrument[],
  units: UnitPreference,
): { text: string; read: string | null } {
  const { value, taken } = r;
  if (value === null) return { text: "", read: null };
  if ("slant" in value) {
    const bare = value.slant === "deg" || value.slant === bareSlope(units) || /[a-z°%]/i.test(value.text);
    return { text: bare ? value.text : `${value.text} ${value.slant}`, read: bubbleWords(taken, units) };
  }
  const shown = typedText(value, units);
  if (taken?.notAt) {
    const not = typedText(taken.notAt, units);
    return { text: workedOut(meantMm(r, instruments) ?? 0, units), read: `goes ${shown}, not ${not}` };
  }
  const mark = markOf(r, instruments);
  const notes = [
    ...(mark ? [`from the ${formatLength(mark, units, { trim: true }).text} mark`] : []),
    ...(taken?.plus ? [`plus ${typedText(taken.plus, units)}`] : []),
    ...(taken?.setIn ? [`crosses set in by ${formatLength(taken.setIn.mm, units, { trim: true }).text}`] : []),
  ];
  if (notes.length === 0) return { text: shown, read: null };
  const text = mark || taken?.plus ? workedOut(meantMm(r, instruments) ?? 0, units) : shown;
  return { text, read: `${shown} ${notes.join(", ")}` };
}
