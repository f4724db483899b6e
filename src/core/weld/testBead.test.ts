import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { BEAD_RESULTS, beadsOn, provenOn } from "./testBead";
import { type TestBead, testBeadSchema } from "./testBeadSchema";

const bead = (change: Partial<TestBead>): TestBead => ({
  id: "00000000-0000-4000-8000-000000000001",
  at: "2026-03-02T08:00:00.000Z",
  origin: "bench",
  process: "MAG",
  volts: 18,
  amps: 120,
  travelMmPerS: 5,
  wallMm: 3,
  material: "mild steel",
  seam: "fillet",
  position: "flat",
  result: "keep",
  note: "",
  ...change,
});
const on = { process: "MAG", wallMm: 3, material: "mild steel" } as const;

describe("test beads", () => {
  it("prove settings for about their wall, the newest that was kept; never for another process or material", () => {
    const older = bead({ amps: 110 });
    const newer = bead({ at: "2026-03-03T08:00:00.000Z", amps: 125, wallMm: 3.2 });
    expect(provenOn([older, newer], on)).toBe(newer);
    expect(provenOn([newer], { ...on, wallMm: 4 })).toBeNull();
    expect(provenOn([newer], { ...on, process: "TIG" })).toBeNull();
    expect(provenOn([newer], { ...on, material: "stainless 304" as never })).toBeNull();
    expect(provenOn([], on)).toBeNull();
  });
  it("given up later prove nothing; what was kept before them, with other settings, does again", () => {
    const first = bead({ amps: 110 });
    const second = bead({ at: "2026-03-03T08:00:00.000Z", amps: 130 });
    const burnt = bead({ at: "2026-03-04T08:00:00.000Z", amps: 130, result: "burnt through" });
    expect(provenOn([burnt, first, second], on)).toBe(first);
    const again = bead({ at: "2026-03-05T08:00:00.000Z", amps: 130 });
    expect(provenOn([burnt, first, again, second], on)).toBe(again);
  });
  it("are proven by whichever order they come in, and only what was kept", () => {
    const any = fc.array(
      fc.record({
        day: fc.integer({ min: 1, max: 28 }),
        amps: fc.constantFrom(100, 120, 140),
        result: fc.constantFrom(...BEAD_RESULTS),
      }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(any, (list) => {
        const beads = list
          .filter((b, i) => list.findIndex((o) => o.day === b.day) === i)
          .map(({ day, amps, result }) =>
            bead({ at: `2026-03-${String(day).padStart(2, "0")}T08:00:00.000Z`, amps, result }),
          );
        const proven = provenOn(beads, on);
        expect(provenOn([...beads].reverse(), on)).toBe(proven);
        if (proven) expect(proven.result).toBe("keep");
        else
          for (const b of beads.filter((x) => x.result === "keep"))
            expect(beads.some((o) => o.at > b.at && o.amps === b.amps && o.result !== "keep")).toBe(true);
        expect(beadsOn(beads, on)).toHaveLength(beads.length);
      }),
    );
  });
  it("with nonsense in them are refused, each field named", () => {
    for (const [field, value] of [
      ["volts", 900],
      ["amps", Number.NaN],
      ["wallMm", 0],
      ["result", "fine"],
      ["origin", " "],
      ["note", "x".repeat(301)],
      ["at", "yesterday"],
    ] as const) {
      const read = testBeadSchema.safeParse({ ...bead({}), [field]: value });
      expect(read.success).toBe(false);
      expect(read.error?.issues[0]?.path).toEqual([field]);
    }
    expect(testBeadSchema.safeParse(bead({})).success).toBe(true);
  });
});
