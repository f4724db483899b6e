import type { Entry } from "@/core/job";

/** A text of JSON begins so; one that was packed never does. */
const PLAIN = "[";

/** Whether a text of entries has to be unpacked before it is read. */
export const isPacked = (text: string): boolean => !text.startsWith(PLAIN);

/** Reads entries back from their texts, and remembers what it read: for whoever reads the same jobs again and again. */
export class EntryReader {
  private readonly read = new Map<string, readonly Entry[]>();
  /** Lists by their last part: the same list as long as nothing was added. */
  private readonly joined = new WeakMap<
    readonly Entry[],
    { parts: readonly (readonly Entry[])[]; entries: readonly Entry[] }
  >();
  /** Characters of each text that is remembered, unpacked. */
  private readonly lengths = new Map<string, number>();
  private characters = 0;

  /** @param most characters of texts that are remembered; 0 for none. @param unpack how packed ones are unpacked. */
  constructor(
    private readonly most: number,
    private readonly unpack: (text: string) => string = (text) => text,
  ) {}

  /** @throws Error for a text that is none of `entryTexts`. */
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
    const json = isPacked(text) ? this.unpack(text) : text;
    const part: readonly Entry[] = Object.freeze(JSON.parse(json) as Entry[]);
    if (this.most === 0) return part;
    this.read.set(text, part);
    this.lengths.set(text, json.length);
    this.characters += json.length;
    for (const other of this.read.keys()) {
      if (this.characters <= this.most || other === text) break;
      this.read.delete(other);
      this.characters -= this.lengths.get(other) ?? 0;
      this.lengths.delete(other);
    }
    return part;
  }
}
