import { describe, expect, it } from "vitest";
import type { Entry } from "@/core/job";
import { EntryReader } from "./entryReader";
import { entryTexts } from "./entryTexts";
import { unpacked } from "./unpacked";

const note = (i: number): Entry => ({
  kind: "note",
  id: `n${i}`,
  at: "2026-03-01T08:00:00.000Z",
  origin: "bench",
  text: `weld ${i}`,
});
const notes = (count: number): Entry[] => Array.from({ length: count }, (_, i) => note(i));

describe("entries as texts", () => {
  it.each([0, 1, 499, 500, 501, 1700])("come back as they were: %i of them", (count) => {
    const entries = notes(count);
    for (const most of [0, 1000, 1e7])
      expect(new EntryReader(most, unpacked).entriesOf(entryTexts(entries))).toEqual(entries);
  });

  it("are packed where a part is full: a long record is a fraction of its characters, in any script", () => {
    const entries = notes(2000).map(
      (e, i) => ({ ...e, text: `Naht ${i}: 0,5 mm – größer als ½ · 溶接 ${i % 7}` }) as Entry,
    );
    const texts = entryTexts(entries);
    expect(texts.join("").length).toBeLessThan(JSON.stringify(entries).length / 4);
    expect(new EntryReader(0, unpacked).entriesOf(texts)).toEqual(entries);
    // Who has nothing to unpack with reads no nonsense instead.
    expect(() => new EntryReader(0).entriesOf(texts)).toThrow();
    // A shorter list that begins alike is not taken for the full one.
    expect(new EntryReader(0, unpacked).entriesOf(entryTexts(entries.slice(0, 40)))).toEqual(entries.slice(0, 40));
    for (const wrong of ["not packed at all", "AAAA"])
      expect(() => new EntryReader(0, unpacked).entriesOf([wrong])).toThrow();
  });

  it("stay the same text, all but the last, as entries are added", () => {
    const entries = notes(1700);
    const before = entryTexts(entries);
    const after = entryTexts([...entries, note(1700)]);
    expect(after.slice(0, -1)).toEqual(before.slice(0, -1));
    expect(after.at(-1)).not.toBe(before.at(-1));
  });

  it("are the same list until one is added, and the same entries after", () => {
    const entries = notes(1200);
    const reader = new EntryReader(1e7, unpacked);
    const first = reader.entriesOf(entryTexts(entries));
    expect(reader.entriesOf(entryTexts(entries))).toBe(first);
    const next = reader.entriesOf(entryTexts([...entries, note(1200)]));
    expect(next).toHaveLength(1201);
    expect(next[0]).toBe(first[0]);
    expect(reader.entriesOf(entryTexts(entries))).toEqual(entries);
  });

  it("of two jobs are never mixed up, however little is remembered", () => {
    const [one, two] = [notes(900), notes(1800).slice(700)];
    for (const most of [0, 20_000, 60_000, 1e7]) {
      const reader = new EntryReader(most, unpacked);
      for (let i = 0; i < 3; i++) {
        expect(reader.entriesOf(entryTexts(one))).toEqual(one);
        expect(reader.entriesOf(entryTexts(two))).toEqual(two);
      }
    }
  });

  it("cannot be changed by one who was given them", () => {
    const reader = new EntryReader(1e7, unpacked);
    const list = reader.entriesOf(entryTexts(notes(3))) as Entry[];
    expect(() => list.push(note(9))).toThrow(TypeError);
  });
});
