import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { job, opened, read } from "../../../tests/support/jobs";
import { SHELF } from "../instruments";
import { length } from "../units";
import { readingProblem } from "./entries";
import { meantOtherwise, readLeaves } from "./leaves";
import { meantMm, readingText } from "./readingWords";
import { meansOf, roundsOf } from "./rounds";

const inThou = (text: string) => {
  const found = readLeaves(text, "in");
  return found.ok ? [found.value.goes, found.value.notAt].map((l) => l && Math.round(l.mm / 0.0254)) : found.message;
};

describe("leaves that go and leaves that do not", () => {
  it.each([
    ["goes 55, not 60 thou", [55, 60]],
    ["55 not 60 thou", [55, 60]],
    ["55 thou goes does not go at 60 thou", "Cannot read"],
    ["goes at 0.055, does not at 0.060", [55, 60]],
    ["20 + 35 thou not 20 + 40 thou", [55, 60]],
    ["20 + 25 thou", [45, null]],
    ["goes 1/16 but doesn't go 5/64", [63, 78]],
  ] as const)("%s", (text, wanted) => {
    const got = inThou(text);
    if (typeof wanted === "string") expect(got).toContain(wanted);
    else expect(got).toEqual(wanted);
  });

  it("leave the gap in between: half the step unsure, more with every leaf (JCGM 100:2008, 4.3.7)", () => {
    const r = opened("dry fit");
    const meanOf = (goes: string, notAt?: string) => {
      const taken = notAt ? { taken: { notAt: length(notAt) } } : {};
      const [round] = roundsOf([r, read(r.id, "gA", goes, taken, "feeler")]);
      return round && meansOf(round, SHELF).get("gA");
    };
    const one = meanOf("55 thou");
    const between = meanOf("55 thou", "65 thou");
    const stack = meanOf("20 + 35 thou", "65 thou");
    expect(between?.mm).toBeCloseTo(60 * 0.0254, 9);
    expect(Math.sqrt((between?.uMm ?? 0) ** 2 - (one?.uMm ?? 0) ** 2)).toBeCloseTo((10 * 0.0254) / Math.sqrt(12), 9);
    expect(stack?.uMm).toBeGreaterThan(between?.uMm ?? 1);
  });

  it("are refused where the next is thinner, or where nothing has leaves", () => {
    const taken = { taken: { notAt: length("0.4") } };
    const wrong = readingProblem({ what: { kind: "gap", at: "A" }, value: length("0.5"), ...taken });
    expect(wrong).toMatchObject({ path: "taken.notAt", message: expect.stringContaining("thicker") });
    const tape = readingProblem({ what: { kind: "distance", from: "A", to: "B" }, value: length("0.3"), ...taken });
    expect(tape?.message).toContain("leaves");
  });
});

describe("a bare number in the wrong unit", () => {
  const gap = (mm: number): boolean => mm < 4;
  it("is offered in the units in which it could be", () => {
    expect(meantOtherwise("0.25", "in", gap).map((l) => l.text)).toEqual(["0.25 mm", "0.25 thou"]);
    expect(meantOtherwise("55", "mm", gap).map((l) => l.text)).toEqual(["55 thou"]);
    expect(meantOtherwise("47.25", "mm", (mm) => Math.abs(mm - 1200) < 8).map((l) => l.text)).toEqual(["47.25 in"]);
    expect(meantOtherwise("55 mm", "in", gap)).toEqual([]);
    expect(meantOtherwise("nonsense", "in", gap)).toEqual([]);
  });
});

describe("what a reading means", () => {
  const tape = (text: string, more: object = {}) => read("r", "AB", text, more, "tape-mark");
  it("is what the tape shows less the mark, with the block; what was read stands beside it", () => {
    expect(readingText(tape("860"), SHELF, "mm")).toEqual({ text: "760", read: "860 from the 100 mm mark" });
    const block = tape("834.6", { taken: { plus: length("25.4") } });
    expect(readingText(block, SHELF, "mm")).toEqual({ text: "760", read: "834.6 from the 100 mm mark, plus 25.4" });
    const inch = read("r", "AB", "33 1/4 in", {}, "tape-inch-mark");
    expect(readingText(inch, SHELF, "inch-fraction")).toEqual({ text: "32 1/4", read: "33 1/4 in from the 1 in mark" });
    const plain = read("r", "AB", "760");
    expect(readingText(plain, SHELF, "mm")).toEqual({ text: "760", read: null });
    expect(readingText(plain, SHELF, "inch-fraction").text).toBe("760 mm");
    const leaves = read("r", "gA", "55 thou", { taken: { notAt: length("60 thou") } }, "feeler");
    expect(readingText(leaves, SHELF, "inch-decimal")).toEqual({ text: "0.0575", read: "goes 55 thou, not 60 thou" });
  });
  it("is what the means are made of, whatever was done besides", () => {
    const r = opened("dry fit");
    const plus = fc.integer({ min: -100, max: 100 });
    fc.assert(
      fc.property(fc.integer({ min: 500, max: 2000 }), plus, fc.constantFrom("tape-100", "tape-mark"), (mm, p, by) => {
        const entry = read(r.id, "AB", String(mm), { taken: { plus: length(String(p)) } }, by);
        const [round] = roundsOf([r, entry]);
        const mean = round && meansOf(round, SHELF).get("AB");
        expect(mean?.mm).toBeCloseTo(meantMm(entry, job([]).instruments) ?? 0, 9);
      }),
    );
  });
});
