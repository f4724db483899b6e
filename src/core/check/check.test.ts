import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { newPlan } from "../job";
import { length } from "../units";
import { type BedHeights, bedVerdict } from "./bedVerdict";
import { conformity } from "./conformity";
import { limitProblems, resolveLimits } from "./limits";
import { overall, verdicts } from "./verdicts";

/** Corners all square: only that counts for a limit. */
const sides = (l = 1000, w = 600) => built(rectangle({ length: length(String(l)), width: length(String(w)) })).quad;
const RECTANGLE = sides();

describe("conformity", () => {
  it("never passes and fails the same reading, and is monotone in the guard", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.double({ min: 0.01, max: 2, noNaN: true }),
        (y, u) => {
          const wide = conformity(y, u, -1.5, 1.5);
          const fine = conformity(y, u / 10, -1.5, 1.5);
          if (wide.verdict === "pass") expect(fine.verdict).toBe("pass");
          if (wide.verdict === "fail") expect(fine.verdict).toBe("fail");
          expect(wide.pc).toBeGreaterThanOrEqual(0);
          expect(wide.pc).toBeLessThanOrEqual(1);
        },
      ),
    );
  });
  it("takes one open side", () => {
    expect(conformity(1, 0.1, null, 2).verdict).toBe("pass");
    expect(conformity(1, 0.1, 2, null).verdict).toBe("fail");
    expect(conformity(1.95, 0.1, null, 2).verdict).toBe("too close to call");
  });
});

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
    expect(limits.map((l) => l.id)).toEqual(["place", "flat", "straight"]);
    expect(limits[0]).toMatchObject({ upper: 1.5, lower: null, nonnegative: true });
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

/** Heights that were each read alike. */
function alikeHeights(heightsMm: Record<string, number>, uMm: number): BedHeights {
  const points = Object.keys(heightsMm);
  return {
    points,
    heightsMm,
    cov: points.map((_, i) => points.map((__, j) => (i === j ? uMm ** 2 : 0))),
    levelKnown: true,
  };
}

describe("the bed", () => {
  const rests = [
    { id: "R1", x: 0, y: 0 },
    { id: "R2", x: 1200, y: 0 },
    { id: "R3", x: 0, y: 800 },
    { id: "R4", x: 1200, y: 800 },
  ];
  const shim = { by: "shims" as const, mode: "level" as const, pitchMm: 1.5, thread: "right" as const };
  const judge = (
    z: number[],
    u: number,
    flat: number | null = 2,
    level: number | null = null,
    adjust: Parameters<typeof bedVerdict>[4] = shim,
    three: Parameters<typeof bedVerdict>[6] = null,
  ) =>
    bedVerdict(
      rests,
      alikeHeights(Object.fromEntries(z.map((h, i) => [`R${i + 1}`, h])), u),
      flat,
      level,
      adjust,
      "mm",
      three,
    );
  it("is good, good with shims, or not to be judged", () => {
    expect(judge([0, 0, 0, 0.4], 0.05).word).toBe("good as it is");
    expect(judge([0, 3, 0, 0], 0.05).word).toBe("good with shims");
    expect(judge([0, 3, 0, 0], 0.05, 2, null, { ...shim, by: "feet" }).word).toBe("good once the feet are turned");
    expect(judge([0, 0, 0, 2], 0.7).word).toBe("too close to call");
    expect(judge([0, 0, 0, 0], 0.05, null).word).toBe("not measured");
  });
  it("serves on three rests, where it may, whatever its flatness", () => {
    const three = { rests: ["R1", "R2", "R4"], marginMm: 120, sagMm: 0.1 };
    expect(judge([0, 3, 0, 0], 0.05, 2, null, { ...shim, onThree: true }, three).word).toBe("good on three rests");
    // Asked for a surface, it is shimmed where that does; leaves too coarse leave the three.
    expect(judge([0, 3, 0, 0], 0.05, 2, null, shim, three).word).toBe("good with shims");
    expect(judge([0, 3, 0, 0], 0.05, 2, null, { ...shim, leavesMm: [5] }, three).word).toBe("good on three rests");
    expect(judge([0, 3, 0, 0], 0.05, 2, null, { ...shim, leavesMm: [5] }, { ...three, sagMm: 1.2 }).word).toBe(
      "not good",
    );
    // Three rests do not make it level.
    expect(judge([0, 9, 0, 9], 0.05, 2, 1, { ...shim, leavesMm: [5] }, three).word).toBe("not good");
  });
  it("takes the leaves at hand for its shims", () => {
    const rest = judge([0, 0.95, 0, 0], 0.05, 2, null, { ...shim, leavesMm: [0.4, 0.5] }).rests[0];
    expect(rest?.stack).toEqual({ leavesMm: [0.4, 0.5], totalMm: 0.9 });
  });
  it("may be flat and still not level", () => {
    expect(judge([0, 6, 0, 6], 0.05, 2, 1).level?.verdict).toBe("fail");
    expect(judge([0, 6, 0, 6], 0.05, 2, 1).word).toBe("good with shims");
    expect(judge([0, 6, 0, 6], 0.05, 2, 1, { ...shim, mode: "best_fit" }).word).toBe("not good");
    expect(judge([0, 6, 0, 6], 0.05, 2, 1).slopeMmPerM?.value).toBeCloseTo(5, 6);
  });
  it("says when the instrument can prove nothing", () => {
    expect(judge([0, 0, 0, 0], 1).why).toMatch(/cannot prove/);
  });
  it("says what is still to read, and that three rests cannot show flat", () => {
    expect(judge([0, 0, 0], 0.05)).toMatchObject({
      word: "not measured",
      missing: ["R4"],
      why: expect.stringMatching(/Read a fourth/),
    });
    expect(judge([0, 0], 0.05).why).toMatch(/three rests or more/);
  });
});
