import { VULGAR } from "./length";

/** Numbers as they are said, up to what a tape shows. */
const ONES = ["zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine"] as const;
const TEENS = [
  "ten",
  "eleven",
  "twelve",
  "thirteen",
  "fourteen",
  "fifteen",
  "sixteen",
  "seventeen",
  "eighteen",
  "nineteen",
] as const;
const TENS = ["twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"] as const;
const CARDINALS: Readonly<Record<string, number>> = {
  oh: 0,
  a: 1,
  an: 1,
  ...Object.fromEntries(ONES.map((w, i) => [w, i])),
  ...Object.fromEntries(TEENS.map((w, i) => [w, 10 + i])),
  ...Object.fromEntries(TENS.map((w, i) => [w, 20 + 10 * i])),
};
const SCALES: Readonly<Record<string, number>> = { hundred: 100, thousand: 1000 };
/** What parts of an inch are called. */
const PARTS: Readonly<Record<string, number>> = {
  half: 2,
  halves: 2,
  third: 3,
  quarter: 4,
  fourth: 4,
  eighth: 8,
  sixteenth: 16,
  "thirty second": 32,
  "sixty fourth": 64,
};
/** Units as they are said, and as they are written. */
const UNITS: Readonly<Record<string, string>> = {
  mil: "mm",
  mils: "mm",
  millimeter: "mm",
  millimeters: "mm",
  millimetre: "mm",
  millimetres: "mm",
  mm: "mm",
  inch: "in",
  inches: "in",
  in: "in",
  foot: "ft",
  feet: "ft",
  ft: "ft",
  thou: "thou",
  thousandth: "thou",
  thousandths: "thou",
  degree: "°",
  degrees: "°",
};

type Token = { is: "number"; value: number } | { is: "part"; of: number } | { is: "word"; word: string };

/** Whole numbers that follow each other, those that are one number as one: `one thousand two hundred and three`. */
class Groups {
  readonly all: { value: number; said: number[] }[] = [];
  private last = 0;

  add(value: number): void {
    const now = this.all.at(-1);
    // Behind a hundred or a thousand, tens and ones go on; behind tens, ones.
    const goesOn =
      now !== undefined &&
      ((this.last >= 100 && value < this.last) ||
        (this.last >= 20 && this.last < 100 && this.last % 10 === 0 && value > 0 && value < 10));
    if (goesOn) {
      now.value += value;
      now.said.push(value);
    } else this.all.push({ value, said: [value] });
    this.last = value;
  }

  scale(by: number): boolean {
    const now = this.all.at(-1);
    if (!now) return false;
    const over = by === 1000 ? now.value : now.value % 100;
    if (over === 0) return false;
    now.value += over * (by - 1);
    this.last = by;
    return true;
  }

  /** The next number begins for itself, but for what still belongs to a hundred. */
  and(): void {
    if (this.last < 100) this.last = 0;
  }

  /** All of it as one number; null where it is not one. */
  whole(): string | null {
    const [first, second] = this.all;
    if (!first) return "0";
    if (!second) return String(first.value);
    // Digit by digit, or by hundreds: `one two oh three`, `twelve fifty`.
    if (this.all.every(({ value, said }) => said.length === 1 && value < 10))
      return this.all.map((g) => g.value).join("");
    const isByHundreds =
      this.all.length === 2 && first.value > 0 && first.value < 100 && second.value >= 10 && second.value < 100;
    return isByHundreds ? String(100 * first.value + second.value) : null;
  }
}

function tokensOf(words: readonly string[]): Token[] {
  const out: Token[] = [];
  for (let i = 0; i < words.length; i++) {
    const word = words[i] as string;
    const single = (w: string): string => w.replace(/(?<=[a-z])s$/, "");
    const two = PARTS[single(`${word} ${words[i + 1] ?? ""}`)];
    const one = PARTS[word] ?? PARTS[single(word)];
    if (two) {
      out.push({ is: "part", of: two });
      i++;
    } else if (one) out.push({ is: "part", of: one });
    else if (/^\d+$/.test(word)) out.push({ is: "number", value: Number(word) });
    else if (CARDINALS[word] !== undefined) out.push({ is: "number", value: CARDINALS[word] });
    else out.push({ is: "word", word });
  }
  return out;
}

/** One number with what is behind its point, or with a fraction; null where it is none. */
function numberText(tokens: readonly Token[]): string | null {
  const groups = new Groups();
  const point = tokens.findIndex((t) => t.is === "word" && t.word === "point");
  const before = point < 0 ? tokens : tokens.slice(0, point);
  let fraction: string | null = null;
  // Something stands to either side of an "and".
  if ([before[0], before.at(-1)].some((t) => t?.is === "word" && t.word === "and")) return null;
  for (const t of before) {
    if (fraction !== null) return null;
    if (t.is === "number") groups.add(t.value);
    else if (t.is === "part") {
      const over = groups.all.pop()?.value ?? 1;
      if (over < 1 || over >= t.of) return null;
      fraction = `${over}/${t.of}`;
    } else if (t.word === "and") groups.and();
    else if (/^\d+\/\d+$/.test(t.word)) fraction = t.word;
    else if (/^\d+\.\d+$/.test(t.word) && groups.all.length === 0 && point < 0 && tokens.length === 1) return t.word;
    else {
      const by = SCALES[t.word];
      if (by === undefined || !groups.scale(by)) return null;
    }
  }
  const whole = groups.whole();
  if (whole === null) return null;
  if (fraction !== null) return point >= 0 ? null : groups.all.length > 0 ? `${whole} ${fraction}` : fraction;
  if (point < 0) return groups.all.length > 0 ? whole : null;
  const behind = new Groups();
  for (const t of tokens.slice(point + 1)) {
    if (t.is !== "number") return null;
    behind.add(t.value);
  }
  const digits = behind.all.map((g) => g.value).join("");
  return digits === "" ? null : `${whole}.${digits}`;
}

/** `half of an inch` and `half a millimetre` are a half of one; alone, `an inch` is one. */
function withoutArticle(words: readonly string[]): string[] {
  const own = words.filter((w) => w !== "of");
  return own.length > 1 && /^an?$/.test(own.at(-1) ?? "") ? own.slice(0, -1) : own;
}

/**
 * What was said, as it would have been typed: `twelve hundred and three point five` as `1203.5`, `forty-seven and fifteen sixteenths` as
 * `47 15/16`, `four foot seven and a half` as `4 ft 7 1/2`. What a recogniser writes in digits goes through. In English.
 * @returns null for what is no number.
 */
export function spokenText(said: string): string | null {
  const plain = said
    .toLowerCase()
    .replace(/[½¼¾⅛⅜⅝⅞]/g, (c) => ` ${VULGAR[c]} `)
    .replace(/(\d),(?=\d{3}\b)/g, "$1")
    .replace(/(\d)\s*\/\s*(\d)/g, "$1/$2")
    .replace(/(\d)([a-z])/g, "$1 $2")
    .replace(/["”]/g, " inches ")
    .replace(/-(?=\d)/g, " minus ")
    .replace(/[-,;:!?]|\.(?!\d)/g, " ");
  const words = plain.split(/\s+/).filter((w) => w !== "" && w !== "is" && w !== "at");
  const isMinus = words[0] === "minus" || words[0] === "negative";
  const parts: string[] = [];
  let own: string[] = [];
  for (const word of isMinus ? words.slice(1) : words) {
    const unit = UNITS[word];
    if (unit === undefined) own.push(word);
    else {
      const number = numberText(tokensOf(withoutArticle(own)));
      if (number === null) return null;
      parts.push(unit === "°" ? `${number}°` : `${number} ${unit}`);
      own = [];
    }
  }
  if (own.length > 0) {
    const number = numberText(tokensOf(own));
    if (number === null) return null;
    parts.push(number);
  }
  return parts.length > 0 ? `${isMinus ? "-" : ""}${parts.join(" ")}` : null;
}
