import { deflateSync, strFromU8, strToU8 } from "fflate";
import type { Entry } from "@/core/job";

/** Entries to a text: a list grows at its end, so that all texts but the last stay as they are. */
const ENTRIES_A_TEXT = 500;

/** Texts of full parts, by their first entry: entries never change. */
const written = new WeakMap<Entry, string>();

/** A full part packed: written once and sent with every page, it is a fifth of the characters. */
const packed = (text: string): string => btoa(strFromU8(deflateSync(strToU8(text)), true));

/** The text of so many entries as one part. */
function textOf(part: readonly Entry[]): string {
  const [first] = part;
  if (!first || part.length < ENTRIES_A_TEXT) return JSON.stringify(part);
  const text = written.get(first) ?? packed(JSON.stringify(part));
  written.set(first, text);
  return text;
}

/** Entries as texts, which cost a page far less than thousands of objects. @returns one for every so many entries. */
export const entryTexts = (entries: readonly Entry[]): string[] =>
  Array.from({ length: Math.ceil(entries.length / ENTRIES_A_TEXT) }, (_, i) =>
    textOf(entries.slice(i * ENTRIES_A_TEXT, (i + 1) * ENTRIES_A_TEXT)),
  );
