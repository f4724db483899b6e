import { describe, expect, it } from "vitest";
import { angle, opened, quantity, read, slope } from "../../../tests/support/jobs";
import { length } from "../units";
import { entryProblem } from "./entries";
import { newEntrySchema } from "./entrySchema";
import { spanId } from "./quantityId";
import "./entries";
import type { How, ReadingEntry } from "./entrySchema";
import { keyOf } from "./rounds";

describe("entries of a survey", () => {
  const r = opened("bed");
  const R2 = { kind: "rest" as const, rest: "R2" };
  const how: How = { by: "slope", from: "R1", arrow: "on" };
  it("have keys that tell ways of reading apart", () => {
    const keys = [
      { what: R2 },
      { what: R2, how },
      { what: R2, how: { by: "difference" as const, from: "R1" } },
      { what: R2, how: { by: "rod" as const, setUp: 2, sightM: null } },
    ].map(keyOf);
    expect(new Set(keys).size).toBe(4);
  });
  it("are refused in words that say what would be right", () => {
    const wrong = (e: ReadingEntry) => entryProblem(e)?.message ?? "taken";
    expect(wrong(read(r.id, "R1", null, { value: slope("1"), how }))).toMatch(/From R1 to itself/);
    expect(wrong(read(r.id, "R2", "3", { how }))).toMatch(/mm\/m/);
    expect(wrong(read(r.id, "R2", null, { value: slope("1") }))).toMatch(/is a length/);
    expect(wrong(read(r.id, "R2", null, { value: slope("4000"), how }))).toMatch(/steeper than any bed/);
    expect(
      wrong(read(r.id, "R2", "-1", { how: { by: "edge", from: "R1", to: "R3", blocks: [length("0"), length("0")] } })),
    ).toMatch(/nought or more/);
    expect(wrong(read(r.id, "D^A^B", null, { value: angle("190") }))).toMatch(/no angle of a corner/);
    expect(wrong(read(r.id, "D^A^B", "90"))).toMatch(/degrees/);
    expect(wrong(read(r.id, "gA", "-0.2"))).toMatch(/nought or more/);
    expect(wrong(read(r.id, "AB", "1000", { how: { by: "difference", from: "R1" } }))).toMatch(/only a bed/);
    expect(wrong(read(r.id, "R2", null, { value: slope("0.4"), how }))).toBe("taken");
  });
  it("are read back as they were: the schema takes a value that its text says, and no other", () => {
    const good = read(r.id, "R2", null, { value: slope("0.4"), how, again: true });
    expect(newEntrySchema.safeParse(good).success).toBe(true);
    expect(newEntrySchema.safeParse({ ...good, value: { value: 0.5, text: "0.4", slant: "mm/m" } }).success).toBe(
      false,
    );
    expect(newEntrySchema.safeParse({ ...good, how: { by: "guess" } }).success).toBe(false);
    for (const what of ["AB", "A-M1AB", "D^A^B", "zA", "fM1AB", "r", "rA", "R12", "sM1"].map(quantity))
      expect(newEntrySchema.safeParse({ ...good, what }).success, JSON.stringify(what)).toBe(true);
    expect(
      newEntrySchema.safeParse({ ...good, what: { kind: "offset", of: "M1AB", from: "A", to: "B" } }).success,
    ).toBe(true);
    for (const what of [
      "AB",
      { kind: "distance", from: "A" },
      { kind: "distance", from: "", to: "B" },
      { kind: "distance", from: "A;DROP", to: "B" },
      { kind: "rock", held: "Z" },
      { kind: "height", at: "AB ".repeat(20) },
      { kind: "weight", at: "A" },
    ])
      expect(newEntrySchema.safeParse({ ...good, what }).success, JSON.stringify(what)).toBe(false);
  });
});

describe("entries", () => {
  let n = 0;
  const id = () => `00000000-0000-4000-8000-${String(++n).padStart(12, "0")}`;
  const base = () => ({ id: id(), at: "2026-11-24T08:00:00.000Z", origin: "test" });
  it("are refused when they mean nothing", () => {
    const reading = {
      kind: "reading" as const,
      ...base(),
      roundId: id(),
      instrumentId: "rule",
      what: spanId("AB"),
      value: length("1000"),
    };
    expect(newEntrySchema.safeParse(reading).success).toBe(true);
    expect(newEntrySchema.safeParse({ ...reading, what: "a1" }).success).toBe(false);
    expect(newEntrySchema.safeParse({ ...reading, value: { mm: 1, text: "two", unit: "mm" } }).success).toBe(false);
    expect(newEntrySchema.safeParse({ ...reading, at: "yesterday" }).success).toBe(false);
    expect(newEntrySchema.safeParse({ ...reading, kind: "change" }).success).toBe(false);
    expect(entryProblem({ ...reading, value: length("0") })?.message).toMatch(/more than zero/);
    expect(entryProblem({ ...reading, value: length("200 m") })?.message).toMatch(/Check the unit/);
    expect(entryProblem({ ...reading, what: { kind: "height", at: "A" }, value: length("-0.3") })).toBeNull();
    expect(entryProblem({ ...reading, value: null })).toBeNull();
  });
});
