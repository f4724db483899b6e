import { GAUGES_IN } from "./gaugeTable";
import type { Length } from "./lengthSchema";
import { fail, ok, type Result } from "./result";

/** What a bare number means: millimetres or inches. */
export type BareUnit = "mm" | "in";

/** Millimetres in one of each unit. Inch: exactly 25.4 mm (international yard and pound agreement, 1959). */
export const MM_PER = { mm: 1, cm: 10, m: 1000, um: 0.001, thou: 0.0254, in: 25.4, ft: 304.8 } as const;
type Unit = keyof typeof MM_PER;

const UNIT_WORDS: Record<string, Unit> = {
  mm: "mm",
  millimetre: "mm",
  millimetres: "mm",
  cm: "cm",
  centimetre: "cm",
  centimetres: "cm",
  m: "m",
  metre: "m",
  metres: "m",
  um: "um",
  µm: "um",
  thou: "thou",
  mil: "thou",
  in: "in",
  inch: "in",
  inches: "in",
  '"': "in",
  ft: "ft",
  foot: "ft",
  feet: "ft",
  "'": "ft",
};

/** Fractions that are one sign. */
export const VULGAR: Readonly<Record<string, string>> = {
  "½": "1/2",
  "¼": "1/4",
  "¾": "3/4",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
};

const NUMBER = /^(?:(\d+)(?:\s+|\s*-\s*)(\d+)\s*\/\s*(\d+)|(\d+)\s*\/\s*(\d+)|(\d+(?:[.,]\d+)?|[.,]\d+))/;
const UNIT = /^\s*("|'|[a-zµ]+)/;
/** Longest text of a length. */
export const MAX_TEXT = 60;

/** One length as it was typed, with what it means. */
interface ParsedLength {
  mm: number;
  /** Set when the text could be read in two ways; says which was taken. */
  note?: string;
}

/** Words that say what was added, not how much: `1200 plus 25.4 block`. */
const NOUNS = /\b(?:blocks?|radius|lea(?:f|ves)|shims?)\b/g;

function tidy(text: string): string {
  return text
    .replace(/[½¼¾⅛⅜⅝⅞]/g, (c) => ` ${VULGAR[c] ?? ""}`)
    .replace(/[′’‘`]/g, "'")
    .replace(/[″“”]|''/g, '"')
    .replace(/[−–]/g, "-")
    .replace(/μ/g, "µ")
    .replace(/[\u00a0\u2009\u202f]/g, " ")
    .toLowerCase()
    .replace(/\bplus\b/g, "+")
    .replace(NOUNS, "")
    .trim();
}

interface Term {
  value: number;
  /** Null where none was said. */
  unit: Unit | null;
}

/** Units of a sum: a number without one has that of the next that says it, or else of the last: `20 + 25 thou`. */
function unitsOf(terms: readonly Term[], bare: BareUnit): Unit[] {
  const next = (from: number): Unit | null => terms.slice(from).find((t) => t.unit)?.unit ?? null;
  const last = (to: number): Unit | null => terms.slice(0, to).findLast((t) => t.unit)?.unit ?? null;
  return terms.map((t, i) => t.unit ?? next(i) ?? last(i) ?? bare);
}

const toNumber = (digits: string): number => Number(digits.replace(",", "."));

/** The parts of a sum, mm, with the sign of the whole. */
function readParts(text: string, bare: BareUnit): Result<{ partsMm: number[]; note: string | undefined }> {
  if (text.length > MAX_TEXT) return fail(`Too long for a length: at most ${MAX_TEXT} characters.`);
  let rest = tidy(text);
  if (rest === "") return fail("Nothing typed: give a length, for example 1200 or 47 1/4 in.");
  let sign = 1;
  if (rest.startsWith("-") || rest.startsWith("+")) {
    if (rest.startsWith("-")) sign = -1;
    rest = rest.slice(1).trimStart();
  }
  const terms: Term[] = [];
  let plus = false;
  let note: string | undefined;
  while (rest !== "") {
    const number = NUMBER.exec(rest);
    if (!number) return fail(`Cannot read "${rest}" as a length. Write for example 1200, 1.2 m or 47 1/4 in.`);
    const [whole, mixWhole, mixTop, mixBottom, top, bottom, decimal] = number;
    let value: number;
    if (mixWhole !== undefined) value = Number(mixWhole) + Number(mixTop) / Number(mixBottom);
    else if (top !== undefined) value = Number(top) / Number(bottom);
    else value = toNumber(decimal ?? "");
    if (!Number.isFinite(value)) return fail(`"${whole.trim()}" divides by zero.`);
    rest = rest.slice(whole.length);
    const word = UNIT.exec(rest);
    const before = terms.at(-1);
    let unit: Unit | null = null;
    if (word && /^(ga|gauge)$/.test(word[1] ?? "")) {
      const inches = GAUGES_IN[value];
      if (inches === undefined) return fail(`"${whole.trim()} ga" is no gauge of tube: give the wall as a length.`);
      value = inches;
      unit = "in";
      note = `${whole.trim()} ga is taken as gauge of tube: ${inches} in.`;
      rest = rest.slice(word[0].length);
    } else if (word) {
      const found = UNIT_WORDS[word[1] ?? ""];
      if (!found) return fail(`"${word[1]}" is not a unit of length here. Use mm, cm, m, in, ft or thou.`);
      unit = found;
      rest = rest.slice(word[0].length);
    } else if (before?.unit === "ft" && !plus) unit = "in";
    else if (before && !plus) return fail(`"${whole.trim()}" needs a unit: the number before it already has one.`);
    if (decimal !== undefined && /^[1-9]\d{0,2},\d{3}$/.test(decimal))
      note = `Read the comma as a decimal comma: ${toNumber(decimal)}. For the larger number leave the comma out.`;
    terms.push({ value, unit });
    rest = rest.trimStart();
    plus = rest.startsWith("+");
    if (plus || (rest.startsWith("-") && unit === "ft")) {
      rest = rest.slice(1).trimStart();
      if (rest === "") return fail("Something is missing after the sign.");
    }
  }
  const units = unitsOf(terms, bare);
  const partsMm = terms.map((t, i) => sign * t.value * MM_PER[units[i] as Unit]);
  if (terms.some((t, i) => t.unit === null && units[i] !== bare))
    note ??= `Read every number of the sum in ${units[terms.findIndex((t) => t.unit === null)]}.`;
  if (!partsMm.every(Number.isFinite)) return fail("That number is too large.");
  return ok({ partsMm, note });
}

/**
 * Reads a length as people write it: `1200`, `47 1/4`, `3' 11 1/4"`, `1.2 m`, `60 thou`, `12.5+3`, `4'6-1/2`, `106,5 cm`.
 *
 * Terms are summed. A bare number after feet is inches; another takes the unit of the next term that says one, or else of
 * the last, or else `bare`. A leading minus holds for the whole. A comma is a decimal comma.
 *
 * @param text what was typed
 * @param bare what a number without a unit means
 * @returns the length in mm, or a sentence that says what could not be read
 */
export function parseLength(text: string, bare: BareUnit = "mm"): Result<ParsedLength> {
  const read = readParts(text, bare);
  if (!read.ok) return read;
  const { partsMm, note } = read.value;
  const mm = partsMm.reduce((s, p) => s + p, 0);
  if (!Number.isFinite(mm)) return fail("That number is too large.");
  return ok(note === undefined ? { mm: mm === 0 ? 0 : mm } : { mm: mm === 0 ? 0 : mm, note });
}

/** What was added up in a length as it was typed, mm: the leaves of a stack. Empty when it cannot be read. */
export function lengthParts(text: string, bare: BareUnit = "mm"): number[] {
  const read = readParts(text, bare);
  return read.ok ? read.value.partsMm : [];
}

/**
 * @param text a length as typed. @param unit what a bare number means.
 * @returns the stated length, or what could not be read.
 */
export function readLength(text: string, unit: BareUnit = "mm"): Result<Length> {
  const parsed = parseLength(text, unit);
  return parsed.ok ? ok({ mm: parsed.value.mm, text: text.trim(), unit }) : parsed;
}

/** A stated length from text known to be good (tables, defaults, demo). @throws Error on a text that is not a length. */
export function length(text: string, unit: BareUnit = "mm"): Length {
  const read = readLength(text, unit);
  if (!read.ok) throw new Error(`length("${text}"): ${read.message}`);
  return read.value;
}
