import { describe, expect, it } from "vitest";
import { type BedHeights, bedVerdict } from "./bedVerdict";

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
