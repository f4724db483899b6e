import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/freeFrames";
import { type Instrument, length } from "../units";
import {
  type Entry,
  entryProblem,
  evaluate as evaluateWith,
  fullU,
  type How,
  heldWords,
  type Job,
  keyOf,
  meanOf,
  misreadWords,
  newEntrySchema,
  newPlan,
  type Plan,
  type ReadingEntry,
  restsGrid,
  roundsOf,
  SHELF,
  stillStands,
  surveyWords,
  twistWords,
} from "./index";

let n = 0;
const id = () => `00000000-0000-4000-9000-${String(++n).padStart(12, "0")}`;
const base = () => ({ id: id(), at: "2026-11-24T08:00:00.000Z", origin: "test" });
const plan = newPlan("Measured", "mm");
const job = (entries: Entry[], change: (p: Plan) => Plan = (p) => p, instruments: Instrument[] = [...SHELF]): Job => ({
  id: id(),
  createdAt: "2026-11-24T08:00:00.000Z",
  version: 1,
  plan: change(plan),
  instruments,
  entries,
});
const evaluate = (j: Job) => evaluateWith(j, null);
const opened = (
  gate: "bed" | "dry fit" | "tacked" | "cold" | "cut",
  warmerK?: number,
): Extract<Entry, { kind: "round" }> => ({
  kind: "round",
  ...base(),
  gate,
  method: "heights",
  ...(warmerK === undefined ? {} : { warmerK }),
});
const read = (
  roundId: string,
  what: string,
  text: string | null,
  more: Partial<ReadingEntry> = {},
  instrumentId = "tape-100",
): ReadingEntry => ({
  kind: "reading",
  ...base(),
  roundId,
  instrumentId,
  what,
  value: text === null ? null : length(text),
  ...more,
});
const slope = (text: string): ReadingEntry["value"] => ({ value: Number(text), text, slant: "mm/m" });
const angle = (text: string): ReadingEntry["value"] => ({ value: Number(text), text, slant: "deg" });

describe("readings that stand", () => {
  const r = opened("dry fit");
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
    expect(both("1004")?.disagree).toEqual(["Steel tape read from the 100 mm mark", "Steel tape, class II"]);
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
    expect(warm.frameRounds[0]?.means.get("A-C")?.mm).toBeCloseTo(2000, 2);
    // Heights and gaps do not grow with the tape's errand.
    const rock = evaluate(job([hot, read(hot.id, "zA", "2", {}, "feeler")]));
    expect(rock.frameRounds[0]?.means.get("zA")?.mm).toBe(2);
  });
});

describe("a bed read in several ways", () => {
  const rests = restsGrid({ lengthMm: 1000, widthMm: 600 }, 3, 2);
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
          ...twice.map((e) => (e.what === "R4" ? { ...e, value: length("9") } : e)),
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
    const nine = restsGrid({ lengthMm: 1000, widthMm: 600 }, 3, 3);
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

describe("a misread that six tapes cannot name", () => {
  const SIX = { AB: "1000", BC: "600", CD: "1000", DA: "600", AC: "1166", BD: "1186" };
  const taped = (): Entry[] => {
    const r = opened("dry fit");
    return [r, ...Object.entries(SIX).map(([w, t]) => read(r.id, w, t))];
  };
  it("is named by nobody, and what else would name it is asked for", () => {
    const [round] = evaluate(job(taped())).frameRounds;
    if (!round?.square) throw new Error("a check expected");
    const words = misreadWords(round.square, "mm", round.help);
    expect(words).toMatch(/cannot say which/);
    expect(words).toMatch(/lengths of AB, BC, CD and DA as they were cut.*angle at [A-D] with a gauge/);
  });
  it("is named once that is measured", () => {
    const cut = opened("cut");
    const entries = taped();
    const pieces = (["AB", "BC", "CD", "DA"] as const).map((w) => read(cut.id, w, SIX[w]));
    const gauge = read((entries[0] as Entry).id, "D^A^B", null, { value: angle("90") }, "angle-gauge");
    const [round] = evaluate(job([cut, ...pieces, ...entries, gauge])).frameRounds;
    if (!round?.square) throw new Error("a check expected");
    const named =
      round.help?.byCut?.id ??
      (round.square.fit.diagnosis.status === "located" ? round.square.fit.diagnosis.candidates[0]?.id : null);
    expect(named).toBe("BD");
  });
});

describe("bringing it square by how it is held", () => {
  const r = opened("tacked");
  const [round] = evaluate(
    job([
      r,
      ...Object.entries({ AB: "1000", BC: "600", CD: "1000", DA: "600", AC: "1170", BD: "1162" }).map(([w, t]) =>
        read(r.id, w, t),
      ),
    ]),
  ).frameRounds;
  if (!round) throw new Error("a round expected");
  it("slides a side, racks its corners, or pulls the long diagonal", () => {
    expect(heldWords(round, "slides", 0, "mm").say).toMatch(/^Slide side CD: push corner C toward D by 4\.7 mm/);
    expect(heldWords(round, "hinges", 0, "mm").say).toMatch(/^Hold AB\. Push corner C toward D by 4\.7 mm/);
    // Parallelogram, closed form: until it reads the root of the mean of the squares.
    const until = Number(
      /strap across AC and pull until it reads ([\d.]+) mm/.exec(heldWords(round, "strap", 0, "mm").say)?.[1],
    );
    expect(Math.abs(until - Math.sqrt((1170 ** 2 + 1162 ** 2) / 2))).toBeLessThan(0.3);
  });
});

describe("a frame without corners A to D", () => {
  const free = (p: Plan): Plan => ({ ...p, free: started("A-shaped drawbar") });
  it("is judged by where its places lie, and told which to tap", () => {
    const j = job([], free);
    const { places, limits } = evaluate(j);
    if (!places) throw new Error("places expected");
    expect(limits.map((l) => l.id)).toEqual(["place", "flat", "straight"]);
    const r = opened("cold");
    const names = Object.keys(places.nodes);
    const far = (p: string, q: string, off: number): string => {
      const [a, b] = [places.nodes[p], places.nodes[q]] as [{ x: number; y: number }, { x: number; y: number }];
      const shift = { [names[0] as string]: off };
      return Math.hypot(a.x + (shift[p] ?? 0) - b.x - (shift[q] ?? 0), a.y - b.y).toFixed(2);
    };
    const all = (off: number) =>
      names.flatMap((p, i) => names.slice(i + 1).map((q) => read(r.id, `${p}-${q}`, far(p, q, off))));
    const flat = names.map((p) => read(r.id, `z${p}`, "0", {}, "feeler"));
    const good = evaluate(job([r, ...all(0), ...flat], free));
    expect(good.cold?.overall).toBe("pass");
    expect(good.summary).toMatchObject({ stage: "check", verdict: "pass" });
    const bad = evaluate(job([r, ...all(9), ...flat], free));
    expect(bad.cold?.overall).toBe("fail");
    expect(bad.cold?.general?.taps[0]?.place).toBe(names[0]);
  });
});

describe("a frame that is drawn anew after it was measured", () => {
  it("keeps its readings, and none of them counts for places that are gone", () => {
    const r = opened("dry fit");
    const entries = [
      r,
      ...Object.entries({ AB: "1000", BC: "600", CD: "1000", DA: "600", AC: "1166", BD: "1166" }).map(([w, t]) =>
        read(r.id, w, t),
      ),
      read(r.id, "D^A^B", null, { value: angle("90") }, "angle-gauge"),
      read(r.id, "A-M1AB", "400"),
      read(r.id, "M1AB|A-B", "0"),
    ];
    for (const name of ["A-shaped drawbar", "rack", "rails with a kink", "table base"]) {
      const [round] = evaluate(job(entries, (p) => ({ ...p, free: started(name) }))).frameRounds;
      expect(round?.readings.size, name).toBe(8);
      if (name !== "table base") expect(round?.square, name).toBeNull();
    }
    const bed = opened("bed");
    const gone = evaluate(job([bed, read(bed.id, "R77", "1", {}, "height-gauge")])).bedRounds[0];
    expect(gone?.homeless).toEqual(["R77"]);
  });
});

describe("a cold frame by what else there is", () => {
  const r = opened("cold");
  it("is as flat as half of its rock, or as far as edges across the diagonals pass each other", () => {
    const rock = evaluate(job([r, read(r.id, "rA", "1.2", {}, "feeler")])).cold;
    expect(rock?.flatMm?.value).toBeCloseTo(0.6, 9);
    const edges = evaluate(
      job([r, read(r.id, "eAC", "0.9", {}, "feeler"), read(r.id, "eBD", "0.2", {}, "feeler")]),
    ).cold;
    expect(edges?.flatMm?.value).toBeCloseTo(0.7, 9);
    const heights = ["zA", "zB", "zC", "zD"].map((w, i) => read(r.id, w, i === 0 ? "1.4" : "0", {}, "feeler"));
    const four = evaluate(job([r, ...heights, read(r.id, "rA", "9", {}, "feeler")])).cold;
    expect(four?.flatMm).toMatchObject({ by: "4 heights" });
    expect(four?.flatMm?.value).toBeCloseTo(0.7, 5);
  });
  it("tells its twist, which pair is high, or that the readings cannot tell", () => {
    const twist = (a: string): string => {
      const found = evaluate(
        job([r, ...["zA", "zB", "zC", "zD"].map((w) => read(r.id, w, w === "zA" ? a : "0", {}, "feeler"))]),
      ).cold?.twist;
      if (!found) throw new Error("a twist expected");
      return twistWords(found, "mm");
    };
    expect(twist("1.5")).toMatch(/Twist 1\.50 ± 0\.13 mm: A and C stand high/);
    expect(twist("0.05")).toMatch(/no more than the readings can tell/);
  });
  it("is judged on straightness, level, gaps and steps only where they were read", () => {
    const limits = (p: Plan): Plan => ({
      ...p,
      limits: { ...p.limits, levelMmPerM: 1, gap: length("1"), flush: length("0.5") } as Plan["limits"],
    });
    const none = evaluate(job([r, read(r.id, "AB", "1000")], limits)).cold?.verdicts.map((v) => v.limit.id);
    expect(none).not.toContain("straight");
    const all = evaluate(
      job(
        [
          r,
          read(r.id, "sAB", "0.4", {}, "feeler"),
          read(r.id, "lAB", null, { value: slope("3") }, "spirit-level"),
          read(r.id, "gA", "0.3", {}, "feeler"),
          read(r.id, "fB", "0.8", {}, "feeler"),
        ],
        limits,
      ),
    ).cold?.verdicts;
    const verdict = (what: string) => all?.find((v) => v.limit.id === what)?.result?.verdict;
    expect([verdict("straight"), verdict("level"), verdict("gap"), verdict("flush")]).toEqual([
      "pass",
      "fail",
      "pass",
      "fail",
    ]);
  });
});

describe("entries of a survey", () => {
  const r = opened("bed");
  const how: How = { by: "slope", from: "R1", arrow: "on" };
  it("have keys that tell ways of reading apart", () => {
    const keys = [
      { what: "R2" },
      { what: "R2", how },
      { what: "R2", how: { by: "difference" as const, from: "R1" } },
      { what: "R2", how: { by: "rod" as const, setUp: 2, sightM: null } },
    ].map(keyOf);
    expect(new Set(keys).size).toBe(4);
  });
  it("are refused in words that say what would be right", () => {
    const wrong = (e: ReadingEntry, gate: "bed" | "dry fit" = "bed") => entryProblem(e, gate)?.message ?? "taken";
    expect(wrong(read(r.id, "R1", null, { value: slope("1"), how }))).toMatch(/From R1 to itself/);
    expect(wrong(read(r.id, "R2", "3", { how }))).toMatch(/mm\/m/);
    expect(wrong(read(r.id, "R2", null, { value: slope("1") }))).toMatch(/is a length/);
    expect(wrong(read(r.id, "R2", null, { value: slope("4000"), how }))).toMatch(/steeper than any bed/);
    expect(
      wrong(read(r.id, "R2", "-1", { how: { by: "edge", from: "R1", to: "R3", blocks: [length("0"), length("0")] } })),
    ).toMatch(/nought or more/);
    expect(wrong(read(r.id, "D^A^B", null, { value: angle("190") }), "dry fit")).toMatch(/no angle of a corner/);
    expect(wrong(read(r.id, "D^A^B", "90"), "dry fit")).toMatch(/degrees/);
    expect(wrong(read(r.id, "gA", "-0.2"), "dry fit")).toMatch(/nought or more/);
    expect(wrong(read(r.id, "AB", "1000", { how: { by: "difference", from: "R1" } }), "dry fit")).toMatch(/only a bed/);
    expect(wrong(read(r.id, "R2", null, { value: slope("0.4"), how }))).toBe("taken");
  });
  it("are read back as they were: the schema takes a value that its text says, and no other", () => {
    const good = read(r.id, "R2", null, { value: slope("0.4"), how, again: true });
    expect(newEntrySchema.safeParse(good).success).toBe(true);
    expect(newEntrySchema.safeParse({ ...good, value: { value: 0.5, text: "0.4", slant: "mm/m" } }).success).toBe(
      false,
    );
    expect(newEntrySchema.safeParse({ ...good, how: { by: "guess" } }).success).toBe(false);
    for (const what of ["AB", "A-M1AB", "D^A^B", "M1AB|A-B", "zA", "fM1AB", "r", "rA", "R12", "sM1"])
      expect(newEntrySchema.safeParse({ ...good, what }).success, what).toBe(true);
    for (const what of ["", "a", "A-", "A^B", "A|B", "rZ", "zz", "A-B-C", "A;DROP", "z", "AB ".repeat(20)])
      expect(newEntrySchema.safeParse({ ...good, what }).success, what).toBe(false);
  });
});
