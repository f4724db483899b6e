import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { NestingProblem } from "./nesting";
import { bestPattern, fullPlans } from "./patterns";

const problem = (
  needs: [needMm: number, quantity: number][],
  bars: [mm: number, offcut: boolean, quantity: number][],
): NestingProblem => ({
  pieces: needs.map(([needMm, quantity], i) => ({ members: [`P${i}`], quantity, longMm: needMm, needMm })),
  bars: bars.map(([mm, offcut, quantity], i) => ({
    id: `B${i}`,
    lengthMm: mm,
    usableMm: mm,
    offcut,
    quantity,
    cost: offcut ? 1 : mm,
  })),
  patterns: [],
  byPrice: false,
  complete: false,
  kerfMm: 3,
});
const need = fc.tuple(fc.integer({ min: 200, max: 2500 }), fc.integer({ min: 1, max: 4 }));

describe("ways to cut one bar", () => {
  it("finds the one that is worth most: as trying every count does", () => {
    fc.assert(
      fc.property(
        fc.array(need, { minLength: 1, maxLength: 4 }),
        fc.infiniteStream(fc.integer({ min: 1, max: 900 })),
        (needs, stream) => {
          const p = problem(needs, [[4000, false, 9]]);
          const worth = needs.map(() => stream.next().value as number);
          let best = 0;
          const walk = (i: number, room: number, sum: number): void => {
            best = Math.max(best, sum);
            const n = needs[i];
            if (!n) return;
            for (let c = 0; c <= n[1] && c * n[0] <= room; c++) walk(i + 1, room - c * n[0], sum + c * (worth[i] ?? 0));
          };
          walk(0, 4003, 0);
          const found = bestPattern(p, 0, worth);
          expect(found.worth).toBeCloseTo(best, 6);
          expect(found.counts.reduce((s, c, i) => s + c * (needs[i]?.[0] ?? 0), 0)).toBeLessThanOrEqual(4003);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe("whole plans to begin with", () => {
  it("cut every piece once, no bar over its length, no offcut twice", () => {
    fc.assert(
      fc.property(fc.array(need, { minLength: 1, maxLength: 6 }), (needs) => {
        const p = problem(needs, [
          [6000, false, 99],
          [3000, false, 99],
          [1500, true, 1],
        ]);
        for (const plan of fullPlans(p, 4)) {
          needs.forEach(([, quantity], i) => {
            expect(plan.reduce((s, bar) => s + (bar.counts[i] ?? 0), 0)).toBe(quantity);
          });
          for (const { bar, counts } of plan)
            expect(counts.reduce((s, c, i) => s + c * (needs[i]?.[0] ?? 0), 0)).toBeLessThanOrEqual(
              (p.bars[bar]?.usableMm ?? 0) + 3,
            );
          expect(plan.filter((x) => x.bar === 2).length).toBeLessThanOrEqual(1);
        }
      }),
      { numRuns: 60 },
    );
  });
});
