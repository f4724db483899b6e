/** A space at which no line breaks. */
const HELD = "\u00a0";
/** Nothing, at which no line breaks either. */
const JOINED = "\u2060";

/** Units that stand behind a figure, the longer ones first. */
const UNITS = [
  "mm/m",
  "mm/s",
  "J/mm",
  "kJ/mm",
  "kJ/in",
  "in/min",
  "in/ft",
  "thou/ft",
  "mm²",
  "mm",
  "cm",
  "m²",
  "m",
  "ft²",
  "ft",
  "in",
  "thou",
  "ga",
  "kg",
  "lb",
  "kN",
  "N",
  "lbf",
  "°C",
  "°F",
  "°",
  "K",
  "%",
  "A",
  "V",
  "min",
  "s",
  "h",
].join("|");

const BEHIND_FIGURE = new RegExp(`([\\d½¼¾]) (?=(?:${UNITS})(?![\\p{L}\\d]))`, "gu");
const OF_FRACTION = /(\d) (?=\d+\/\d)/g;
const BEHIND_SIGN = /([±≈≤≥]) (?=[\d−])/g;
const OF_DATE = /(\d{4}-)(\d{2}-)(?=\d{2}(?!\d))/g;
const STARTS_WITH_UNIT = new RegExp(`^ (?=(?:${UNITS})(?![\\p{L}\\d]))`, "u");

/** A text in which no line breaks within a date, or between a figure and its unit, its sign or its fraction. */
export const heldTogether = (text: string): string =>
  /[\d±≈≤≥]/.test(text)
    ? text
        .replace(BEHIND_FIGURE, `$1${HELD}`)
        .replace(OF_FRACTION, `$1${HELD}`)
        .replace(BEHIND_SIGN, `$1${HELD}`)
        .replace(OF_DATE, `$1${JOINED}$2${JOINED}`)
    : text;

/**
 * The same for texts that follow each other in one element, where the figure may end one and the unit begin the next.
 * @param parts what stands in the element, lists of it included; what is no text is handed back as it is.
 */
export function allHeldTogether(parts: readonly unknown[]): unknown[] {
  return parts.map((part, i) => {
    if (Array.isArray(part)) return allHeldTogether(part);
    if (typeof part !== "string") return part;
    const before = parts[i - 1];
    const next = parts[i + 1];
    let text = heldTogether(part);
    if (typeof before === "number" || (typeof before === "string" && /\d$/.test(before)))
      text = text.replace(STARTS_WITH_UNIT, HELD);
    if (/[±≈≤≥] $/.test(text) && (typeof next === "number" || (typeof next === "string" && /^[\d−]/.test(next))))
      text = `${text.slice(0, -1)}${HELD}`;
    return text;
  });
}
