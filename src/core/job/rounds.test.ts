import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evaluate, job, opened, read, round, SQUARE } from "../../../tests/support/jobs";
import { type Instrument, SHELF } from "../instruments";
import { length } from "../units";
import type { Entry } from "./entrySchema";
import { quantityKey, spanId } from "./quantityId";
import { fullU, meanOf, roundsOf, stillStands } from "./rounds";

/** What stands by a plain fold, entry by entry: keys in the order of their last change, with the texts that count. */
function foldedOf(roundId: string, entries: readonly Entry[]): [string, string[]][] {
  let folded: [string, string[]][] = [];
  for (const e of entries) {
    if (e.kind !== "reading" || e.roundId !== roundId) continue;
    const key = quantityKey(e.what);
    const before = folded.find(([k]) => k === key)?.[1] ?? [];
    const text = e.value && "text" in e.value ? e.value.text : null;
    const now = text === null ? before.slice(0, -1) : e.again ? [...before, text] : [text];
    folded = [...folded.filter(([k]) => k !== key), [key, now]];
  }
  return folded.filter(([, texts]) => texts.length > 0);
}

describe("readings that stand", () => {
  const r = opened("dry fit");
  it("are those of a plain fold, in the order of their last change, whatever is read, averaged and taken back", () => {
    const other = opened("tacked");
    const one = fc.record({
      to: fc.constantFrom(r.id, other.id),
      span: fc.constantFrom("AB" as const, "BC" as const, "AC" as const),
      mm: fc.option(fc.integer({ min: 1, max: 2000 }), { freq: 4 }),
      again: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 40 }), (list) => {
        const entries = list.map(({ to, span, mm, again }) =>
          read(to, span, mm === null ? null : String(mm), again && mm !== null ? { again: true } : {}),
        );
        for (const { round: begun, readings, all } of roundsOf([r, other, ...entries])) {
          const stands = [...readings].map(([key, s]) => [key, s.repeats.map((x) => x.value.text)]);
          expect(stands).toEqual(foldedOf(begun.id, entries));
          expect(all).toEqual(entries.filter((e) => "roundId" in e && e.roundId === begun.id));
        }
      }),
      { numRuns: 200 },
    );
  });

  it("are the last one, or all that are averaged; taking back takes the last", () => {
    const list = [
      read(r.id, "AB", "1000"),
      read(r.id, "AB", "1001", { again: true }),
      read(r.id, "AB", "1002", { again: true }),
    ];
    const standing = (entries: Entry[]) =>
      roundsOf([r, ...entries])[0]
        ?.readings.get("AB")
        ?.repeats.map((x) => x.value.mm);
    expect(standing(list)).toEqual([1000, 1001, 1002]);
    expect(standing([...list, read(r.id, "AB", null)])).toEqual([1000, 1001]);
    expect(standing([...list, read(r.id, "AB", "999")])).toEqual([999]);
    expect(standing([...list.slice(0, 1), read(r.id, "AB", null)])).toBeUndefined();
    const [round] = roundsOf([r, ...list, read(r.id, "AB", "999")]);
    expect(list.map((e) => round && stillStands(round, e))).toEqual([false, false, false]);
  });

  it("are averaged with their spread; a step is never averaged away", () => {
    const mean = (texts: string[]) => {
      const [first, ...rest] = texts;
      const entries = [read(r.id, "AB", first as string), ...rest.map((t) => read(r.id, "AB", t, { again: true }))];
      const standing = roundsOf([r, ...entries])[0]?.readings.get("AB");
      if (!standing) throw new Error("nothing stands");
      return meanOf(standing, SHELF);
    };
    const one = mean(["1000"]);
    const four = mean(["1000", "1000.5", "1000", "1000.5"]);
    expect(four?.mm).toBeCloseTo(1000.25, 9);
    expect(four?.spreadMm).toBeCloseTo(0.5, 9);
    expect(four?.uMm).toBeLessThan(one?.uMm ?? 0);
    // A tape read in half millimetres at both ends: sqrt(2) 0.5 / sqrt(12) stays.
    expect(mean(Array.from({ length: 60 }, () => "1000"))?.uMm).toBeGreaterThan(
      (Math.SQRT2 * 0.5) / Math.sqrt(12) - 1e-9,
    );
    // Readings that scatter more than handling explains make it less sure.
    expect(mean(["1000", "1004", "998"])?.uMm).toBeGreaterThan(one?.uMm ?? 0);
  });

  it("by two instruments are weighed, and say when they disagree", () => {
    const both = (second: string) => {
      const entries = [read(r.id, "AB", "1000"), read(r.id, "AB", second, { again: true }, "tape-ii")];
      const standing = roundsOf([r, ...entries])[0]?.readings.get("AB");
      if (!standing) throw new Error("nothing stands");
      return meanOf(standing, SHELF);
    };
    const fine = both("1000.4");
    expect(fine?.disagree).toBeNull();
    expect(fine?.tape).toBeNull();
    expect(fine?.mm).toBeGreaterThan(1000);
    expect(fine?.mm).toBeLessThan(1000.2);
    expect(both("1004")?.disagree).toEqual(["Steel tape to half a millimetre", "Steel tape, class II"]);
    expect(fullU(both("1004") as NonNullable<ReturnType<typeof both>>)).toBeGreaterThan(
      fullU(fine as NonNullable<typeof fine>),
    );
  });
});

describe("what is known of an instrument and of the heat", () => {
  it("is taken off every reading: mark, hook, warmth", () => {
    const worn: Instrument = { ...(SHELF[0] as Instrument), id: "worn", foundZeroMm: 1.75 };
    const r = opened("dry fit");
    const square = { AB: "1001.75", BC: "601.75", CD: "1001.75", DA: "601.75" };
    const e = evaluate(
      job([r, ...Object.entries(square).map(([w, t]) => read(r.id, w, t, {}, "worn"))], (p) => p, [...SHELF, worn]),
    );
    expect(e.frameRounds[0]?.verdicts.find((v) => v.limit.id === "AB")?.measured?.value).toBeCloseTo(1000, 9);
    const scribed = opened("dry fit");
    const marked = evaluate(job([scribed, read(scribed.id, "AB", "1100", {}, "tape-scribe")]));
    expect(marked.frameRounds[0]?.means.get("AB")?.mm).toBe(1000);
    // Closed form: 40 K over 2 m of steel is 0.96 mm.
    const hot = opened("cold", 40);
    const warm = evaluate(job([hot, read(hot.id, "A-C", "2000.96")]));
    expect(warm.frameRounds[0]?.means.get("AC")?.mm).toBeCloseTo(2000, 2);
    // Heights and gaps do not grow with the tape's errand.
    const rock = evaluate(job([hot, read(hot.id, "zA", "2", {}, "feeler")]));
    expect(rock.frameRounds[0]?.means.get("zA")?.mm).toBe(2);
  });
});

describe("rounds", () => {
  let n = 0;
  const id = () => `00000000-0000-4000-8000-${String(++n).padStart(12, "0")}`;
  const base = () => ({ id: id(), at: "2026-11-24T08:00:00.000Z", origin: "test" });
  it("keep every reading; the last one of a quantity stands, and one can be taken back", () => {
    const entries = round("dry fit", SQUARE);
    const roundId = entries[0]?.id ?? "";
    const again: Entry = {
      kind: "reading",
      ...base(),
      roundId,
      instrumentId: "tape-100",
      what: spanId("AC"),
      value: length("1168"),
    };
    const back: Entry = {
      kind: "reading",
      ...base(),
      roundId,
      instrumentId: "tape-100",
      what: spanId("BD"),
      value: null,
    };
    const [r] = roundsOf([...entries, again, back]);
    expect(r?.readings.get("AC")?.value.mm).toBe(1168);
    expect(r?.readings.has("BD")).toBe(false);
    expect(r?.all).toHaveLength(8);
  });
  it("are numbered within their gate", () => {
    const rs = roundsOf([...round("dry fit", {}), ...round("tacked", {}), ...round("dry fit", {})]);
    expect(rs.map((r) => `${r.round.gate} ${r.number}`)).toEqual(["dry fit 1", "tacked 1", "dry fit 2"]);
  });
});
