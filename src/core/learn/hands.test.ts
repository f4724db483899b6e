import { describe, expect, it } from "vitest";
import { normalDraw, seeded } from "../numeric";
import { handsOf, ownTimes } from "./hands";
import type { FrameLesson } from "./lessonSchema";

const lesson = (by: string | undefined, change: number[], times: FrameLesson["times"] = []): FrameLesson => ({
  kind: "frame",
  ...{ id: "0197a0b0-0000-7000-8000-000000000001", at: "2026-11-20T10:00:00.000Z", origin: "Odo, bench" },
  ...{ jobId: "0197a0b0-0000-7000-8000-000000000002", name: "x", doubts: [] },
  cell: { process: "MAG", wall: "2.5 to 4 mm", metal: "steel" },
  readings: change.map((_, i) => ({ what: `r${i}`, from: "tacked", to: "cold" })),
  teaching: {
    ...{ sources: [], beads: [], linear: {}, change },
    cov: change.map((_, i) => change.map((__, j) => (i === j ? 0.04 ** 2 : 0))),
  },
  told: {
    mean: [-0.6, -0.4, -0.6, -0.4],
    cov: change.map((_, i) => change.map((__, j) => (i === j ? 0.1 ** 2 : 0.05 ** 2))),
  },
  ...(by === undefined ? {} : { by }),
  times,
});

describe("who welds shrinks how much", () => {
  it("is the multiple of what was told, with as much doubt as its readings have", () => {
    const random = seeded(7);
    const normal = () => normalDraw(random);
    const draw = (share: number) => [-0.6, -0.4, -0.6, -0.4].map((m) => share * m + 0.05 * normal());
    const hands = handsOf([
      ...Array.from({ length: 12 }, () => lesson("Odo", draw(1))),
      ...Array.from({ length: 6 }, () => lesson("Ada", draw(1.5))),
      lesson(undefined, draw(3)),
    ]);
    expect(hands.map((h) => [h.who, h.frames])).toEqual([
      ["Odo", 12],
      ["Ada", 6],
    ]);
    for (const [i, truth] of [1, 1.5].entries()) {
      const hand = hands[i];
      expect(Math.abs((hand?.ratio ?? 0) - truth)).toBeLessThan(3 * (hand?.u ?? 0));
    }
    // Twice the frames, the less doubt by the root of two.
    expect((hands[1]?.u ?? 0) / (hands[0]?.u ?? 1)).toBeCloseTo(Math.SQRT2, 6);
  });
  it("takes the middle of the shop's own times by their ticks", () => {
    const t = (seconds: number, from: number) => [{ kind: "move" as const, seconds, from }];
    expect(ownTimes([lesson("a", [0], t(20, 10)), lesson("b", [0], t(60, 2)), lesson("c", [0], t(30, 5))])).toEqual([
      { kind: "move", seconds: 20, from: 17 },
    ]);
    expect(ownTimes([])).toEqual([]);
  });
});
