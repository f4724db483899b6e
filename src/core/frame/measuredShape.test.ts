import { describe, expect, it } from "vitest";
import { measuredShape, readSurvey, sidesOf } from "./measuredShape";

describe("sizes taken from an object", () => {
  const fitted = (text: string) => {
    const read = readSurvey(text, "mm");
    if (!read.ok) throw new Error(read.message);
    return measuredShape(read.value);
  };
  const quad = { P1: [0, 0], P2: [1200, 0], P3: [1210, 805], P4: [-6, 798] } as const;
  const d = (a: keyof typeof quad, b: keyof typeof quad): number =>
    Math.hypot(quad[a][0] - quad[b][0], quad[a][1] - quad[b][1]);
  const pairs = [
    ["P1", "P2"],
    ["P2", "P3"],
    ["P3", "P4"],
    ["P4", "P1"],
    ["P1", "P3"],
    ["P2", "P4"],
  ] as const;
  it("give the shape back from sides and diagonals, whatever the shape", () => {
    const shape = fitted(pairs.map(([a, b]) => `${a} ${b} ${d(a, b).toFixed(4)}`).join("\n"));
    if (!shape.ok) throw new Error(shape.message);
    expect(shape.value.spare).toBe(1);
    for (const p of shape.value.points) {
      const want = quad[p.name as keyof typeof quad];
      expect(p.at.x).toBeCloseTo(want[0], 3);
      expect(p.at.y).toBeCloseTo(want[1], 3);
    }
    expect(shape.value.doubtful).toEqual([]);
    // The diagonals cross each other: what is left are the four sides.
    expect(sidesOf(shape.value)).toHaveLength(4);
  });
  it("find the lines that do not agree, and say when one more is needed", () => {
    const wrong = fitted(
      pairs.map(([a, b]) => `${a} ${b} ${(d(a, b) + (a === "P1" && b === "P3" ? 12 : 0)).toFixed(3)}`).join("\n"),
    );
    expect(wrong.ok && wrong.value.doubtful.length).toBeGreaterThan(0);
    const four = fitted(
      pairs
        .slice(0, 4)
        .map(([a, b]) => `${a} ${b} ${d(a, b)}`)
        .join("\n"),
    );
    expect(four).toMatchObject({ ok: false, message: expect.stringMatching(/fewer than two|either side/) });
    expect(fitted("P1 P2 1000\nP2 P3 100\nP1 P3 300")).toMatchObject({
      ok: false,
      message: expect.stringMatching(/do not meet/),
    });
  });
  it("weigh a reading by its uncertainty", () => {
    const shape = fitted("P1 P2 1000 ± 0.1\nP1 P2 1010 ± 10");
    const [a, b] = shape.ok ? shape.value.points : [];
    // Weighted mean of two readings: closed form.
    expect(Math.hypot((a?.at.x ?? 0) - (b?.at.x ?? 0), (a?.at.y ?? 0) - (b?.at.y ?? 0))).toBeCloseTo(
      (1000 / 0.01 + 1010 / 100) / (1 / 0.01 + 1 / 100),
      6,
    );
    expect(b?.uMm).toBeCloseTo(1 / Math.sqrt(1 / 0.01 + 1 / 100), 6);
  });
  it("are read as people write them, and the first line that is not is named", () => {
    expect(readSurvey("p1 p2 47 1/4 in ± 1/16 in # tape\n\nP3 = 0, 2'", "mm")).toMatchObject({
      ok: true,
      value: [
        { kind: "distance", from: "P1", to: "P2", mm: expect.closeTo(1200.15, 9) },
        { kind: "point", name: "P3" },
      ],
    });
    for (const [text, words] of [
      ["P1 P2", /Line 1: write two points/],
      ["P1 P1 20", /no distance/],
      ["P1 P2 -20", /more than zero/],
      ["P1 P2 20 ± 0", /uncertainty is more than zero/],
      ["ok = 1, 2\n9x = 3, 4", /Line 2: "9x" is no name/],
      ["P1 P2 20 kg", /not a unit/],
    ] as const)
      expect(readSurvey(text, "mm"), text).toMatchObject({ ok: false, message: expect.stringMatching(words) });
  });
});
