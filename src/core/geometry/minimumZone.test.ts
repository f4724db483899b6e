import fc from "fast-check";
import loadHighs from "highs";
import { describe, expect, it } from "vitest";
import { normalDraw, seeded, type Vec2 } from "../numeric";
import { MinimumZone } from "./minimumZone";

const grid = (nx: number, ny: number, stepMm = 300): Map<string, Vec2> =>
  new Map(
    Array.from({ length: nx * ny }, (_, i) => [`R${i + 1}`, { x: (i % nx) * stepMm, y: Math.floor(i / nx) * stepMm }]),
  );

describe("the minimum zone by exchange", () => {
  /** Every four points, straight from the closed form. */
  const enumerated = (xy: readonly Vec2[], z: readonly number[]): number => {
    let best = 0;
    const n = xy.length;
    const area = (i: number, j: number, k: number) => {
      const [p, q, r] = [xy[i], xy[j], xy[k]] as [Vec2, Vec2, Vec2];
      return (q.x - p.x) * (r.y - p.y) - (r.x - p.x) * (q.y - p.y);
    };
    for (let a = 0; a < n; a++)
      for (let b = a + 1; b < n; b++)
        for (let c = b + 1; c < n; c++)
          for (let d = c + 1; d < n; d++) {
            const lam = [area(b, c, d), -area(a, c, d), area(a, b, d), -area(a, b, c)];
            const total = lam.reduce((s, l) => s + Math.abs(l), 0);
            if (total === 0) continue;
            const sum = [a, b, c, d].reduce((s, i, k) => s + (lam[k] as number) * (z[i] as number), 0);
            best = Math.max(best, (2 * Math.abs(sum)) / total);
          }
    return best;
  };

  it("finds what trying every four finds, on grids with many points in line too", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 6 }),
        fc.integer({ min: 2, max: 4 }),
        fc.array(fc.integer({ min: -40, max: 40 }), { minLength: 24, maxLength: 24 }),
        (nx, ny, heights) => {
          const xy = [...grid(nx, ny).values()];
          const z = heights.slice(0, xy.length).map((h) => h / 20);
          expect(new MinimumZone(xy).of(z).zoneMm).toBeCloseTo(enumerated(xy, z), 6);
        },
      ),
      { numRuns: 150 },
    );
  });

  it("finds the same from any start, as it does when many sets of heights follow each other", () => {
    const xy = [...grid(8, 5).values()];
    const random = seeded(4);
    const going = new MinimumZone(xy);
    for (let k = 0; k < 60; k++) {
      const z = xy.map(() => normalDraw(random));
      expect(going.of(z).zoneMm).toBeCloseTo(new MinimumZone(xy).of(z).zoneMm, 8);
    }
  });

  it("is the optimum of the linear program: least h with every point within h/2 of one plane", async () => {
    const highs = await loadHighs();
    const random = seeded(9);
    for (const [nx, ny] of [
      [5, 4],
      [8, 5],
    ] as const) {
      const xy = [...grid(nx, ny).values()].map((p) => ({ x: p.x / 1000, y: p.y / 1000 }));
      const z = xy.map(() => normalDraw(random));
      const rows = xy.flatMap((p, i) => [
        ` u${i}: a + ${p.x} b + ${p.y} c + 0.5 h >= ${z[i]}`,
        ` l${i}: a + ${p.x} b + ${p.y} c - 0.5 h <= ${z[i]}`,
      ]);
      const lp = `Minimize\n obj: h\nSubject To\n${rows.join("\n")}\nBounds\n a free\n b free\n c free\n h >= 0\nEnd`;
      expect(new MinimumZone(xy).of(z).zoneMm).toBeCloseTo(highs.solve(lp).ObjectiveValue, 6);
    }
  });
});
