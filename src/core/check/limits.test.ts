import { describe, expect, it } from "vitest";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { newPlan } from "../job";
import { length } from "../units";
import { limitProblems, resolveLimits } from "./limits";
import { overall, verdicts } from "./verdicts";

/** Corners all square: only that counts for a limit. */
const sides = (l = 1000, w = 600) => built(rectangle({ length: length(String(l)), width: length(String(w)) })).quad;
const RECTANGLE = sides();

describe("limits", () => {
  const plan = newPlan("t", "mm");
  it("come from the drawing, one or two sided", () => {
    if (plan.limits.kind !== "own") throw new Error("own limits expected");
    const limits = resolveLimits(
      {
        ...plan.limits,
        length: { lower: length("-1.6"), upper: length("0") },
        width: { lower: null, upper: length("2") },
      },
      { lengthMm: 1000, widthMm: 600 },
      RECTANGLE,
    );
    expect(limits.find((l) => l.id === "AB")).toMatchObject({ lower: 998.4, upper: 1000 });
    expect(limits.find((l) => l.id === "BC")).toMatchObject({ lower: null, upper: 602 });
    expect(limits.find((l) => l.id === "square")).toMatchObject({ kind: "diagonal", lower: -3, upper: 3 });
  });
  it("come from a class, by the nominal size", () => {
    const limits = resolveLimits(
      { kind: "class", linear: "A", flat: "E", levelMmPerM: null, confirmed: {} },
      { lengthMm: 1000.1, widthMm: 1000 },
      sides(1000.1, 1000),
    );
    expect(limits.find((l) => l.id === "AB")?.upper).toBeCloseTo(1003.1, 9);
    expect(limits.find((l) => l.id === "BC")?.upper).toBe(1002);
    expect(limits.find((l) => l.id === "square")).toMatchObject({ unit: "mm/m", upper: 4.5 });
    expect(limits.find((l) => l.id === "flat")?.upper).toBe(2);
  });
  it("take a figure of the class that was looked up, and leave the others from memory", () => {
    const limits = resolveLimits(
      { kind: "class", linear: "B", flat: "F", levelMmPerM: 2, confirmed: { lengthMm: 3.5, flatMm: 1.2 } },
      { lengthMm: 1200, widthMm: 800 },
      sides(1200, 800),
    );
    const of = (id: string) => limits.find((l) => l.id === id);
    expect(of("AB")).toMatchObject({ lower: 1196.5, upper: 1203.5, source: "ISO 13920-B, confirmed" });
    expect(of("BC")).toMatchObject({ lower: 797, upper: 803, source: "ISO 13920-B, from memory: confirm" });
    expect(of("flat")).toMatchObject({ upper: 1.2, source: "ISO 13920-F, confirmed" });
    expect(of("level")).toMatchObject({ upper: 2, unit: "mm/m", optional: true });
  });
  it("hold a frame without sides to where its places lie", () => {
    const limits = resolveLimits(plan.limits, { lengthMm: 1000, widthMm: 600 }, null);
    expect(limits.map((l) => l.id)).toEqual(["place", "flat"]);
    expect(limits[0]).toMatchObject({ upper: 1.5, lower: null, nonnegative: true });
  });
  it("hold a mouth to its width, where a frame is open in one place; a row of free ends where it is read", () => {
    const mouth = { from: "M1S", to: "M3E", mm: 860 };
    const one = resolveLimits(plan.limits, { lengthMm: 1000, widthMm: 600 }, null, [mouth]);
    expect(one[0]).toMatchObject({ id: "M1S-M3E", kind: "size", nominal: 860, label: "Mouth M1S to M3E" });
    expect(one[0]?.optional).toBeUndefined();
    const cls = { kind: "class", linear: "B", flat: "F", levelMmPerM: null, confirmed: {} } as const;
    // ISO 13920-B over 400 to 1000 mm: 3 mm either way (from memory).
    expect(resolveLimits(cls, { lengthMm: 2000, widthMm: 900 }, null, [mouth])[0]).toMatchObject({
      lower: 857,
      upper: 863,
    });
    const row = resolveLimits(plan.limits, { lengthMm: 1000, widthMm: 600 }, null, [
      mouth,
      { from: "M3E", to: "M5E", mm: 210 },
    ]);
    expect(row.filter((l) => l.kind === "size").every((l) => l.optional)).toBe(true);
    const read = verdicts(one, { sides: { "M1S-M3E": { value: 864, u: 0.2 } }, square: null, flatMm: null });
    expect(read[0]?.result?.verdict).toBe("fail");
    expect(overall(verdicts(one, { sides: {}, square: null, flatMm: null }))).toBe("not measured");
  });
  it("are refused when they cross or are absurd", () => {
    if (plan.limits.kind !== "own") throw new Error("own limits expected");
    const found = limitProblems({
      ...plan.limits,
      length: { lower: length("1"), upper: length("-1") },
      flat: length("0"),
      width: { lower: length("-40 in"), upper: null },
    });
    expect(found.map((p) => p.path)).toEqual(["limits.length.lower", "limits.width.lower", "limits.flat"]);
  });
  it("make no verdict while one is unmeasured, and the worst one counts", () => {
    const limits = resolveLimits(plan.limits, { lengthMm: 1000, widthMm: 600 }, RECTANGLE);
    const measured = (u: number) =>
      verdicts(limits, { sides: { AB: { value: 1000, u }, CD: { value: 1000, u } }, square: null, flatMm: null });
    expect(overall(measured(0.2))).toBe("not measured");
    expect(measured(0.2)[0]?.result?.verdict).toBe("pass");
    expect(overall(verdicts(limits, { sides: { AB: { value: 1010, u: 0.2 } }, square: null, flatMm: null }))).toBe(
      "fail",
    );
    expect(overall([])).toBe("not measured");
  });
});
