import { describe, expect, it } from "vitest";
import type { Instrument } from "./instrument";
import { selfTest, type TestReadings, type TestResult } from "./selfTests";
import { SHELF } from "./shelf";
import { bulgeAt } from "./straightedge";
import { correctedMm, readingUncertainty } from "./uncertainty";

const AT = "2026-11-25T08:00:00.000Z";
const of = (kind: Instrument["kind"]): Instrument => {
  const found = SHELF.find((i) => i.kind === kind);
  if (!found) throw new Error(`no ${kind} on the shelf`);
  return found;
};
const done = (instrument: Instrument, read: TestReadings): TestResult & { card: Instrument } => {
  const result = selfTest(instrument, read, AT);
  if (!result.ok) throw new Error(result.message);
  return { ...result.value, card: { id: "new", ...result.value.updated } };
};
const refused = (instrument: Instrument, read: TestReadings): string => {
  const result = selfTest(instrument, read, AT);
  return result.ok ? "taken" : result.message;
};

describe("a shop's tests of its own instruments", () => {
  it("find a worn hook, take it off later readings and are less unsure than the card was", () => {
    const tape = { ...of("tape"), zeroMm: 2 };
    // Common practice, no source: a worn hook was wrong by 1.75 mm.
    const { card, as } = done(tape, { test: "hook", fromHookMm: 1001.75, fromMarkMm: 1100, markMm: 100 });
    expect(correctedMm(card, 1501.75)).toBeCloseTo(1500, 9);
    expect(readingUncertainty(card).uZeroMm).toBeLessThan(readingUncertainty(tape).uZeroMm);
    expect(as).toBe("sound");
    expect(done({ ...tape, zeroMm: 0.2 }, { test: "hook", fromHookMm: 1003, fromMarkMm: 1100, markMm: 100 }).as).toBe(
      "off",
    );
    expect(card.replaces).toBe(tape.id);
    expect(card.checked).toMatchObject({ at: AT, test: "hook" });
  });

  it("find a level's own error by turning it end for end, wherever it lies", () => {
    const level = of("spirit level");
    for (const slope of [0, 2.5, -7]) {
      const { card } = done(level, { test: "reversal", firstMmPerM: slope + 0.6, secondMmPerM: -slope + 0.6 });
      expect(card.foundZeroMm).toBeCloseTo(0.6, 12);
      expect(correctedMm(card, slope + 0.6)).toBeCloseTo(slope, 12);
    }
    expect(refused(of("tape"), { test: "reversal", firstMmPerM: 0, secondMmPerM: 0 })).toMatch(/Only a level/);
  });

  it("find a slanting line of sight by two pegs", () => {
    const tilt = 0.15;
    const rod = (heightMm: number, sightM: number): number => 1500 - heightMm + tilt * sightM;
    const { card } = done(of("optical level"), {
      test: "two pegs",
      a1Mm: rod(0, 15),
      b1Mm: rod(120, 15),
      a2Mm: rod(0, 2),
      b2Mm: rod(120, 32),
      a1M: 15,
      b1M: 15,
      a2M: 2,
      b2M: 32,
    });
    expect(card.foundScaleMmPerM).toBeCloseTo(tilt, 9);
    // Rods are corrected by their sights, not by what they show.
    expect(correctedMm(card, 1500)).toBe(1500);
    const alike = { test: "two pegs" as const, a1Mm: 1, b1Mm: 2, a2Mm: 1, b2Mm: 2, a1M: 9, b1M: 9, a2M: 9, b2M: 9 };
    expect(refused(of("optical level"), alike)).toMatch(/middle first/);
  });

  it("find a mislabelled leaf, and then add stacks with what it is", () => {
    const { card, as, say } = done(of("feeler"), {
      test: "leaves",
      uMm: 0.003,
      leaves: [
        { markedMm: 0.5, readMm: 0.5 },
        { markedMm: 0.3, readMm: 0.4 },
      ],
    });
    expect(as).toBe("off");
    expect(say).toMatch(/0.3 is 0.400/);
    expect(correctedMm(card, 0.8, { text: "0.5 + 0.3", unit: "mm" })).toBeCloseTo(0.9, 12);
    expect(correctedMm(card, 0.8, { text: "0.5+0.3 mm", unit: "in" })).toBeCloseTo(0.9, 12);
    // A stack with a leaf that is none of the set stays as it was typed.
    expect(correctedMm(card, 0.7, { text: "0.5 + 0.2", unit: "mm" })).toBe(0.7);
  });

  it("tell an edge's own bow from the surface by turning it over", () => {
    const bulge = (x: number): number => 0.3 * (1 - ((x - 500) / 500) ** 2);
    const surface = (x: number): number => 0.2 * Math.sin(x / 200) + 0.5;
    const places = [0, 250, 500, 750, 1000].map((x) => ({
      xMm: x,
      firstMm: surface(x) - bulge(x) + 0.1,
      secondMm: surface(x) + bulge(x) + 0.1,
    }));
    const { card } = done({ ...of("straightedge"), zeroMm: 0.1 }, { test: "turned over", places });
    expect(bulgeAt(card.edge, 500)).toBeCloseTo(0.3, 9);
    expect(bulgeAt(card.edge, 375)).toBeCloseTo((bulge(250) + bulge(500)) / 2, 9);
    expect(refused(of("straightedge"), { test: "turned over", places: places.slice(0, 2) })).toMatch(/three places/);
  });

  it("find a stretched tape on a known length", () => {
    const { card } = done(of("tape"), { test: "known length", knownMm: 4000, uKnownMm: 0.1, readMm: 4002 });
    expect(correctedMm(card, 2001)).toBeCloseTo(2000, 6);
    expect(refused(of("tape"), { test: "known length", knownMm: 4000, uKnownMm: 0, readMm: 4002 })).toMatch(
      /uncertain/,
    );
    expect(refused(of("tape"), { test: "known length", knownMm: 4000, uKnownMm: 0.1, readMm: 4900 })).toMatch(
      /misread/,
    );
  });

  it("can be repeated: a second test of the same tape starts from the first", () => {
    const first = done(of("tape"), { test: "hook", fromHookMm: 1001.75, fromMarkMm: 1100, markMm: 100 }).card;
    const again = done(first, { test: "hook", fromHookMm: 1001.75, fromMarkMm: 1100, markMm: 100 }).card;
    expect(correctedMm(again, 1001.75)).toBeCloseTo(1000, 9);
  });
});
