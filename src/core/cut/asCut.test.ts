import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, started } from "../../../tests/support/drawnFrames";
import { ladder } from "../../../tests/support/ladder";
import { resolveStructure } from "../frame";
import type { Vec3 } from "../numeric";
import { asCut, bestPairs, matchWords } from "./asCut";
import { cutList } from "./cutList";

const list = (rungs: number) => cutList(ladder(rungs));
const quad = ladder(0).quad;
const read = (mm: Record<string, number>, uMm = 0.1) =>
  Object.fromEntries(Object.entries(mm).map(([k, v]) => [k, { mm: v, uMm }]));

describe("pieces as cut", () => {
  it("catches a pair cut unequal, says which is longer and what it does to the corners", () => {
    const cut = list(1);
    const [long, short] = [cut[0]?.cutLongPointMm ?? 0, cut[1]?.cutLongPointMm ?? 0];
    const found = asCut(cut, read({ AB: long + 1.2, CD: long, BC: short, DA: short + 0.1 }), quad);
    expect(found.pairs[0]).toMatchObject({ longer: "AB", word: "do not match", byMm: expect.closeTo(1.2, 9) });
    // Half of 1.2 over the side across, in mm per metre.
    expect(found.pairs[0]?.skewMmPerM).toBeCloseTo(600 / short, 9);
    expect(found.pairs[1]?.word).toBe("match");
    expect(found.missing).toEqual(["M1"]);
  });
  it("asks beforehand for what is drawn alike to match, and speaks of equal diagonals where they are drawn equal", () => {
    const words = (C: Vec3, D: Vec3): string | null => {
      const [A, B]: [Vec3, Vec3] = [
        [0, 0, 0],
        [900, 0, 0],
      ];
      return matchWords(resolveStructure(drawn({ AB: [A, B], BC: [B, C], CD: [C, D], DA: [D, A] })).structure, "mm");
    };
    expect(words([900, 600, 0], [0, 600, 0])).toBe(
      "Opposite sides must match within 0.5 mm, or equal diagonals prove nothing.",
    );
    expect(words([760, 600, 0], [-140, 600, 0])).toBe("Opposite sides must match within 0.5 mm.");
    expect(words([760, 600, 0], [140, 600, 0])).toBe("BC and DA must match within 0.5 mm.");
    expect(words([760, 640, 0], [60, 600, 0])).toBeNull();
    expect(matchWords(resolveStructure(started("rack")).structure, "mm")).toBeNull();
  });
  it("does not claim what the instrument cannot tell", () => {
    const cut = list(0);
    const a = cut[0]?.cutLongPointMm ?? 0;
    expect(asCut(cut, read({ AB: a + 0.5, CD: a }, 0.3), quad).pairs[0]?.word).toBe("too close to call");
    expect(asCut(cut, read({ AB: a + 0.1, CD: a }, 0.3), quad).pairs[0]?.word).toBe("too close to call");
    expect(asCut(cut, read({ AB: a + 2, CD: a }, 0.3), quad).pairs[0]?.word).toBe("do not match");
  });
  it("puts the pieces of a square opposite each other so that they match best", () => {
    const cut = list(0);
    const found = asCut(cut, read({ AB: 508, BC: 509, CD: 509.1, DA: 508.2 }), quad);
    expect(found.swap).toEqual({
      pairs: [
        ["AB", "DA"],
        ["BC", "CD"],
      ],
      worstMm: expect.closeTo(0.2, 9),
    });
    expect(asCut(cut, read({ AB: 508, CD: 508.1, BC: 509, DA: 509.1 }), quad).swap).toBeNull();
  });
  it("pairs no worse than any other pairing (tried all, up to eight pieces)", () => {
    const every = (names: string[]): [string, string][][] => {
      const [a, ...rest] = names;
      if (a === undefined) return [[]];
      return rest.flatMap((b) => every(rest.filter((x) => x !== b)).map((p): [string, string][] => [[a, b], ...p]));
    };
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 4 }), fc.infiniteStream(fc.integer({ min: 0, max: 50 })), (n, stream) => {
        const lengths = Object.fromEntries(
          Array.from({ length: 2 * n }, (_, i) => [`P${i}`, 1000 + Number(stream.next().value) / 10]),
        );
        const worst = (p: readonly [string, string][]) =>
          Math.max(...p.map(([a, b]) => Math.abs((lengths[a] ?? 0) - (lengths[b] ?? 0))));
        const best = Math.min(...every(Object.keys(lengths)).map(worst));
        expect(worst(bestPairs(lengths))).toBeCloseTo(best, 9);
      }),
      { numRuns: 60, seed: 2 },
    );
  });
  it("compares cross members, longest with shortest", () => {
    const cut = list(3);
    const m = cut.at(-1)?.cutLongPointMm ?? 0;
    expect(asCut(cut, read({ M1: m, M2: m + 1.5, M3: m - 0.2 }), quad).alike[0]).toMatchObject({
      members: ["M3", "M1", "M2"],
      longest: "M2",
      shortest: "M3",
      word: "do not match",
    });
  });
});
