import { describe, expect, it } from "vitest";
import { type GrillageBar, sagOnRests } from "./sagOnRests";
import { sagOnTwoRests } from "./support";

const EI = 210_000 * 100_000;
const GJ = 81_000 * 150_000;
const bar = (x0: number, y0: number, x1: number, y1: number, w = 0.03): GrillageBar => ({
  from: { x: x0, y: y0 },
  to: { x: x1, y: y1 },
  eiNmm2: EI,
  gjNmm2: GJ,
  wNPerMm: w,
});
const ladder = (w = 0.03): GrillageBar[] => [
  bar(0, 0, 2000, 0, w),
  bar(2000, 0, 2000, 800, w),
  bar(2000, 800, 0, 800, w),
  bar(0, 800, 0, 0, w),
];

describe("sag of a frame on its rests", () => {
  it("is the closed form of a beam on two rests, for two beams that carry nothing across", () => {
    const light = ladder(0.03).map((b, i) =>
      i % 2 === 0 ? b : { ...b, wNPerMm: 0, eiNmm2: EI / 1e4, gjNmm2: GJ / 1e4 },
    );
    for (const inset of [0, 446]) {
      const found = sagOnRests(
        light,
        [inset, 2000 - inset].flatMap((x) => [0, 800].map((y) => ({ x, y }))),
        20,
      );
      const want = sagOnTwoRests(0.03, 2000, 210_000, 100_000, inset);
      expect(-(found?.lowMm ?? 0)).toBeCloseTo(Math.max(want.centreMm, want.endMm), 3);
    }
  });

  it("carries its whole weight, and no rest pulls", () => {
    const weight = 0.03 * 2 * (2000 + 800);
    for (const rests of [
      [0, 2000].flatMap((x) => [0, 800].map((y) => ({ x, y }))),
      [
        { x: 0, y: 0 },
        { x: 0, y: 800 },
        { x: 2000, y: 400 },
      ],
      [
        { x: 400, y: 0 },
        { x: 400, y: 800 },
        { x: 800, y: 0 },
        { x: 1600, y: 800 },
        { x: 1600, y: 0 },
      ],
    ]) {
      const found = sagOnRests(ladder(), rests, 20);
      expect(found?.loadsN.reduce((s, v) => s + v, 0)).toBeCloseTo(weight, 4);
      expect(Math.min(...(found?.loadsN ?? [-1]))).toBeGreaterThanOrEqual(0);
    }
  });

  it("sags more at the corners beyond a single rest in the middle of an end", () => {
    const three = sagOnRests(
      ladder(),
      [
        { x: 0, y: 0 },
        { x: 0, y: 800 },
        { x: 2000, y: 400 },
      ],
      20,
    );
    const four = sagOnRests(
      ladder(),
      [0, 2000].flatMap((x) => [0, 800].map((y) => ({ x, y }))),
      20,
    );
    expect(three?.lowMm).toBeLessThan(four?.lowMm ?? 0);
    // By statics: half of the weight on the two, half on the one.
    expect(three?.loadsN[2]).toBeCloseTo((0.03 * 5600) / 2, 2);
  });

  it("scales with the weight, and falls when its weight lies beyond the rests", () => {
    const rests = [
      { x: 0, y: 0 },
      { x: 0, y: 800 },
      { x: 2000, y: 400 },
    ];
    expect(sagOnRests(ladder(0.06), rests, 20)?.lowMm).toBeCloseTo(
      2 * (sagOnRests(ladder(0.03), rests, 20)?.lowMm ?? 0),
      6,
    );
    expect(
      sagOnRests(
        ladder(),
        [
          { x: 0, y: 0 },
          { x: 200, y: 0 },
          { x: 0, y: 800 },
        ],
        20,
      ),
    ).toBeNull();
  });
});
