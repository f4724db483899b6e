import type { Entry } from "@/core/job";

/** Entries to a text: a list grows at its end, so that all texts but the last stay as they are. */
const ENTRIES_A_TEXT = 500;

/** Texts of full parts, by their first entry: entries never change. */
const written = new WeakMap<Entry, string>();

/** Entries as texts, which cost a page far less than thousands of objects. @returns one for every so many entries. */
export function entryTexts(entries: readonly Entry[]): string[] {
  const texts: string[] = [];
  for (let from = 0; from < entries.length; from += ENTRIES_A_TEXT) {
    const [first] = entries.slice(from, from + 1);
    const isFull = from + ENTRIES_A_TEXT <= entries.length;
    const known = first && isFull ? written.get(first) : undefined;
    const text = known ?? JSON.stringify(entries.slice(from, from + ENTRIES_A_TEXT));
    if (first && isFull) written.set(first, text);
    texts.push(text);
  }
  return texts;
}

/** Reads entries back from their texts, and remembers what it read: for whoever reads the same jobs again and again. */
export class EntryReader {
  private readonly read = new Map<string, readonly Entry[]>();
  /** Lists by their last part: the same list as long as nothing was added. */
  private readonly joined = new WeakMap<
    readonly Entry[],
    { parts: readonly (readonly Entry[])[]; entries: readonly Entry[] }
  >();
  private characters = 0;

  /** @param most characters of texts that are remembered; 0 for none. */
  constructor(private readonly most: number) {}

  /** @throws SyntaxError for a text that is none of `entryTexts`. */
  entriesOf(texts: readonly string[]): readonly Entry[] {
    const parts = texts.map((text) => this.part(text));
    const last = parts.at(-1);
    if (!last) return [];
    const known = this.joined.get(last);
    if (known?.parts.length === parts.length && parts.every((part, i) => part === known.parts[i])) return known.entries;
    const entries = parts.length === 1 ? last : Object.freeze(parts.flat());
    this.joined.set(last, { parts, entries });
    return entries;
  }

  private part(text: string): readonly Entry[] {
    const known = this.read.get(text);
    if (known) {
      // To the end of the line of those that are forgotten.
      this.read.delete(text);
      this.read.set(text, known);
      return known;
    }
    const part: readonly Entry[] = Object.freeze(JSON.parse(text) as Entry[]);
    if (this.most === 0) return part;
    this.read.set(text, part);
    this.characters += text.length;
    for (const other of this.read.keys()) {
      if (this.characters <= this.most || other === text) break;
      this.read.delete(other);
      this.characters -= other.length;
    }
    return part;
  }
}
