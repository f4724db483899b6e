import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { PANELS } from "../../../tests/support/networks";
import { normalDraw, seeded, type Vec2 } from "../numeric";
import { bestFit } from "./bestFit";

describe("rigid best fit", () => {
  it("undoes any turn and shift, and moves nothing then", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: -500, max: 500, noNaN: true }),
        (turn, shift) => {
          const [c, s] = [Math.cos(turn), Math.sin(turn)];
          const moved = Object.fromEntries(
            Object.entries(PANELS).map(([n, p]) => [n, { x: c * p.x - s * p.y + shift, y: s * p.x + c * p.y - shift }]),
          );
          expect(bestFit(moved, PANELS).worst?.mm).toBeLessThan(1e-8);
        },
      ),
    );
  });
  it("lays a frame over by some of its places alone: what the others are off is theirs, to the last of it", () => {
    const [one, ...others] = Object.keys(PANELS) as [string, ...string[]];
    fc.assert(
      fc.property(fc.double({ min: -3, max: 3, noNaN: true }), (turn) => {
        const [c, s] = [Math.cos(turn), Math.sin(turn)];
        const aside = { x: 7, y: -4 };
        const moved = Object.fromEntries(
          Object.entries(PANELS).map(([n, p]) => {
            const q = n === one ? { x: p.x + aside.x, y: p.y + aside.y } : p;
            return [n, { x: c * q.x - s * q.y + 90, y: s * q.x + c * q.y }];
          }),
        );
        const { moves } = bestFit(moved, PANELS, others);
        expect(moves[one]?.x).toBeCloseTo(-aside.x, 6);
        expect(moves[one]?.y).toBeCloseTo(-aside.y, 6);
        for (const n of others) expect(Math.hypot(moves[n]?.x ?? 1, moves[n]?.y ?? 1)).toBeLessThan(1e-6);
      }),
    );
  });
  it("leaves less to move, in squares, than any other turn", () => {
    const random = seeded(8);
    const off = Object.fromEntries(
      Object.entries(PANELS).map(([n, p]) => [n, { x: p.x + 4 * normalDraw(random), y: p.y + 4 * normalDraw(random) }]),
    );
    const sum = (moves: Record<string, Vec2>): number =>
      Object.values(moves).reduce((t, m) => t + m.x ** 2 + m.y ** 2, 0);
    const best = sum(bestFit(off, PANELS).moves);
    const centre = (of: Record<string, Vec2>, k: "x" | "y"): number =>
      Object.values(of).reduce((t, p) => t + p[k], 0) / Object.keys(of).length;
    for (const turn of [-0.01, -0.001, 0.001, 0.01]) {
      const th = bestFit(off, PANELS).turnRad + turn;
      const moves = Object.fromEntries(
        Object.entries(off).map(([n, p]) => {
          const d = { x: p.x - centre(off, "x"), y: p.y - centre(off, "y") };
          const q = PANELS[n] as Vec2;
          return [
            n,
            {
              x: q.x - centre(PANELS, "x") - (Math.cos(th) * d.x - Math.sin(th) * d.y),
              y: q.y - centre(PANELS, "y") - (Math.sin(th) * d.x + Math.cos(th) * d.y),
            },
          ];
        }),
      );
      expect(sum(moves)).toBeGreaterThan(best);
    }
  });
});
