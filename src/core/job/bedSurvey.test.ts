import { describe, expect, it } from "vitest";
import { base, evaluate, job, opened, read, slope } from "../../../tests/support/jobs";
import { type Instrument, SHELF } from "../instruments";
import { length } from "../units";
import type { Entry, How, ReadingEntry } from "./entrySchema";
import { restsGrid } from "./plan";
import type { Plan } from "./planSchema";
import { quantityKey } from "./quantityId";
import { surveyWords } from "./surveyWords";

describe("a bed read in several ways", () => {
  const rests = restsGrid({ lengthMm: 1000, widthMm: 600 }, 3, 2, "mm");
  const grid = (p: Plan): Plan => ({ ...p, bed: { ...p.bed, rests } });
  const truth: Record<string, number> = { R1: 0, R2: 0.2, R3: 0.5, R4: 0.3, R5: 0.1, R6: 0.4 };
  const z = (name: string): number => truth[name] as number;
  const place = (name: string) => rests.find((r) => r.id === name) as (typeof rests)[number];
  const slopeFrom = (
    roundId: string,
    from: string,
    what: string,
    arrow: "on" | "back" = "on",
    error = 0,
  ): ReadingEntry => {
    const metres = Math.hypot(place(what).x.mm - place(from).x.mm, place(what).y.mm - place(from).y.mm) / 1000;
    const value = (z(what) - z(from)) / metres + (arrow === "on" ? error : -error);
    return read(
      roundId,
      what,
      null,
      { value: slope(String(value)), how: { by: "slope", from, arrow } },
      "spirit-level",
    );
  };

  it("is one survey, whatever the way and the order", () => {
    const r = opened("bed");
    const blocks: [ReturnType<typeof length>, ReturnType<typeof length>] = [length("5"), length("5")];
    const edge: How = { by: "edge", from: "R1", to: "R3", blocks };
    const entries = [
      read(r.id, "R1", "10", {}, "height-gauge"),
      slopeFrom(r.id, "R1", "R6"),
      slopeFrom(r.id, "R6", "R5", "back"),
      read(r.id, "R3", "0.5", { how: { by: "difference", from: "R1" } }, "height-gauge"),
      read(r.id, "R2", "5.05", { how: edge }, "straightedge"),
      read(r.id, "R4", "1500", { how: { by: "rod", setUp: 1, sightM: 10 } }, "level-rod"),
      read(r.id, "R1", "1500.3", { how: { by: "rod", setUp: 1, sightM: 10 } }, "level-rod"),
    ];
    for (const order of [entries, [...entries].reverse()]) {
      const [bed] = evaluate(job([r, ...order], grid)).bedRounds;
      expect(bed?.verdict.missing).toEqual([]);
      for (const rest of bed?.verdict.rests ?? []) expect(rest.heightMm).toBeCloseTo(z(rest.id), 6);
    }
  });

  it("gives a level that points back its error with the other sign", () => {
    const tested: Instrument = {
      ...(SHELF.find((i) => i.kind === "spirit level") as Instrument),
      id: "tested",
      foundZeroMm: 0.8,
    };
    const r = opened("bed");
    const chain = [
      slopeFrom(r.id, "R1", "R2", "on", 0.8),
      slopeFrom(r.id, "R2", "R3", "back", 0.8),
      slopeFrom(r.id, "R3", "R4", "on", 0.8),
      slopeFrom(r.id, "R4", "R5", "back", 0.8),
      slopeFrom(r.id, "R5", "R6", "on", 0.8),
    ].map((e) => ({ ...e, instrumentId: "tested" }));
    const [bed] = evaluate(job([r, ...chain], grid, [...SHELF, tested])).bedRounds;
    for (const rest of bed?.verdict.rests ?? []) expect(rest.heightMm).toBeCloseTo(z(rest.id), 6);
  });

  it("is as unsure as the edge that it was read under", () => {
    const r = opened("bed");
    const blocks: [ReturnType<typeof length>, ReturnType<typeof length>] = [length("5"), length("5")];
    const gap = (from: string, what: string, to: string): ReadingEntry =>
      read(r.id, what, "5", { how: { by: "edge", from, to, blocks } }, "edge");
    const uFlat = (zeroMm: number): number => {
      const edge: Instrument = { ...(SHELF.find((i) => i.kind === "straightedge") as Instrument), id: "edge", zeroMm };
      const over = (what: string, from: string): ReadingEntry =>
        read(r.id, what, "0", { how: { by: "difference", from } }, "height-gauge");
      const entries = [
        gap("R1", "R2", "R3"),
        gap("R6", "R5", "R4"),
        over("R3", "R1"),
        over("R4", "R1"),
        over("R6", "R3"),
      ];
      const bed = evaluate(job([r, ...entries], grid, [...SHELF, edge])).bedRounds[0];
      return bed?.verdict.flatness.uZoneMm ?? Number.NaN;
    };
    expect(uFlat(0.5)).toBeGreaterThan(2 * uFlat(0));
  });

  it("says what does not hang together, and which reading spoils it", () => {
    const r = opened("bed");
    const apart = evaluate(job([r, read(r.id, "R1", "0", {}, "height-gauge"), slopeFrom(r.id, "R5", "R6")], grid))
      .bedRounds[0];
    if (!apart) throw new Error("a round expected");
    expect(surveyWords(apart, "mm")).toMatchObject({ wrong: true, say: expect.stringMatching(/Nothing ties R5, R6/) });
    expect(apart.verdict.word).toBe("not measured");
    const heights = ["R1", "R2", "R3", "R4", "R5", "R6"].map((w) => read(r.id, w, String(z(w)), {}, "height-gauge"));
    const twice = heights.map((e) => ({ ...e, ...base(), how: { by: "height" as const, datum: 2 } }));
    const slipped = evaluate(
      job(
        [
          r,
          ...heights,
          ...twice.map((e) => (quantityKey(e.what) === "R4" ? { ...e, value: length("9") } : e)),
          slopeFrom(r.id, "R4", "R3"),
        ],
        grid,
      ),
    ).bedRounds[0];
    if (!slipped) throw new Error("a round expected");
    expect(surveyWords(slipped, "mm").say).toMatch(/R4.*datum 2.* misread by about 8\.\d/);
  });

  it("keeps flat and level apart: gaps under an edge say nothing of level", () => {
    const r = opened("bed");
    const edge = (from: string, what: string, to: string): ReadingEntry =>
      read(r.id, what, "5", { how: { by: "edge", from, to, blocks: [length("5"), length("5")] } }, "straightedge");
    const nine = restsGrid({ lengthMm: 1000, widthMm: 600 }, 3, 3, "mm");
    const level = (p: Plan): Plan => ({
      ...p,
      bed: { ...p.bed, rests: nine },
      limits: { ...p.limits, levelMmPerM: 1 },
    });
    const entries = [
      edge("R1", "R2", "R3"),
      edge("R6", "R5", "R4"),
      edge("R7", "R8", "R9"),
      edge("R1", "R6", "R7"),
      edge("R3", "R4", "R9"),
      edge("R1", "R5", "R9"),
      edge("R3", "R5", "R7"),
    ];
    const bed = evaluate(job([r, ...entries], level)).bedRounds[0];
    expect(bed?.verdict.flatness.zoneMm).toBeCloseTo(0, 9);
    expect(bed?.verdict.slopeMmPerM).toBeNull();
    expect(bed?.verdict).toMatchObject({ word: "not measured", why: expect.stringMatching(/How level it is/) });
    expect(
      evaluate(job([r, ...entries], (p) => ({ ...level(p), limits: { ...p.limits, levelMmPerM: null } }))).bedRounds[0]
        ?.verdict.word,
    ).toBe("good as it is");
  });

  it("guides one rest at a time until it is inside, and hears whether the last turn did what it should", () => {
    const feet = (p: Plan): Plan => ({ ...p, bed: { ...p.bed, adjust: "feet", mode: "best_fit" } });
    const entries: Entry[] = [];
    const heights: Record<string, number> = { R1: 0, R2: 2.4, R3: 0.2, R4: 0 };
    let said = "";
    for (let turn = 0; turn < 12; turn++) {
      const r = opened("bed");
      entries.push(r, ...Object.entries(heights).map(([w, mm]) => read(r.id, w, mm.toFixed(2), {}, "height-gauge")));
      const bed = evaluate(job(entries, feet)).bedRounds.at(-1);
      if (!bed?.next) throw new Error("a next step expected");
      said = bed.next.say;
      if (bed.next.rest === null) break;
      expect(said).toMatch(/Loosen the lock nut of R\d\. Turn its foot .* turns .* (anti)?clockwise seen from above/);
      if (turn > 0) expect(bed.next.why).toMatch(/was to rise .*, it rose/);
      // The thread has slack: nine tenths of what was asked.
      heights[bed.next.rest] =
        (heights[bed.next.rest] as number) +
        0.9 * (bed.verdict.rests.find((x) => x.id === bed.next?.rest)?.raiseMm ?? 0);
    }
    expect(said).toMatch(/Leave the rests as they are|Nothing is left/);
  });
});
