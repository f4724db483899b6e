import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { restsGrid, restsUnder } from "../job";
import { walkRests } from "./walkRests";

const over = { lengthMm: 2000, widthMm: 1200, insetMm: 20 };
const at = (rests: ReturnType<typeof restsUnder>) => rests.map((r) => ({ x: r.x.mm, y: r.y.mm }));

describe("a level stepped from rest to rest", () => {
  it("goes along the sides and back to the first, never across", () => {
    for (const n of [4, 6] as const) {
      const places = at(restsUnder(over, n, "mm"));
      const steps = walkRests(places);
      expect(steps).toHaveLength(n);
      expect(new Set(steps.map(([, to]) => to)).size).toBe(n);
      for (const [p, q] of steps) {
        const [a, b] = [places[p], places[q]] as [{ x: number; y: number }, { x: number; y: number }];
        expect(Math.min(Math.abs(a.x - b.x), Math.abs(a.y - b.y))).toBeLessThan(1);
      }
    }
  });
  it("goes to and fro over a grid, each step to the next point", () => {
    const places = at(restsGrid(over, 4, 3, "mm"));
    const steps = walkRests(places);
    expect(steps).toHaveLength(11);
    for (const [p, q] of steps) expect(Math.abs(p - q)).toBe(1);
  });
  it("reaches every rest, wherever they lie, each step from one that was reached", () => {
    const place = fc.record({ x: fc.integer({ min: 0, max: 3000 }), y: fc.integer({ min: 0, max: 2000 }) });
    fc.assert(
      fc.property(fc.array(place, { minLength: 2, maxLength: 12 }), (places) => {
        const reached = new Set([0]);
        for (const [from, to] of walkRests(places)) {
          expect(reached.has(from)).toBe(true);
          expect(from).not.toBe(to);
          reached.add(to);
        }
        expect(reached.size).toBe(places.length);
      }),
    );
  });
});
